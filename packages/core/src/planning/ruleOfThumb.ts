/**
 * What a careful cook does without a plan: day by day, what must go first goes first, into what is wanted and has room; what is wanted is served from the
 * oldest batch, the rest is bought. It always gives a plan that keeps every rule, and it is what a better one is held against.
 */
import { lastOf, mayBeBase, type PlanModel } from './planModel.ts';
import type { PlannedRun, PlannedUse, PlanProblem, Served, Source, Supply, VesselFor, WeekPlan } from './problem.ts';

const CRUMB_KG = 1e-6;

interface Room {
  am: number;
  pm: number;
  all: number;
  burner: number;
  oven: number;
  chiller: number;
  readonly slots: Map<string, number>;
  readonly long: Map<string, number>;
}

interface Batch {
  readonly use: PlannedUse;
  readonly made: number;
  qty: number;
}

export function ruleOfThumb(problem: PlanProblem): WeekPlan {
  const T = problem.days;
  const uses = problem.uses.filter((u) => u.idle !== true);
  const left = new Map(problem.lots.map((l) => [l.id, l.kg]));
  const leftOf = (lot: Supply): number => left.get(lot.id) ?? 0;
  const batches: Batch[] = problem.stock.flatMap((s) => {
    const use = uses.find((u) => u.id === s.use);
    return use === undefined ? [] : [{ use, made: -1, qty: s.qty }];
  });
  const wanted = new Map<string, number>();
  for (const d of problem.demand) wanted.set(`${d.use}/${d.day}`, (wanted.get(`${d.use}/${d.day}`) ?? 0) + d.qty);
  const wantedOf = (use: PlannedUse, day: number): number => wanted.get(`${use.id}/${day}`) ?? 0;
  const lastCooked = new Map<string, number>();
  const runs: PlannedRun[] = [];
  const serve: Served[] = [];
  const buy: { product: string; day: number; qty: number }[] = [];

  const usable = (use: PlannedUse, day: number): Supply[] =>
    problem.lots
      .filter(
        (l) =>
          leftOf(l) > CRUMB_KG && l.ready <= day && (l.frozen || day + use.minLife <= l.lastDay) && mayBeBase(use, l),
      )
      .sort((a, b) => Number(a.frozen) - Number(b.frozen) || a.lastDay - b.lastDay || a.ready - b.ready);

  /** Of the oldest first, each category within its share; less where that does not come to so much. */
  const fill = (use: PlannedUse, day: number, most: number): { readonly kg: number; readonly base: Source[] } => {
    let kg = most;
    for (let tries = 0; tries < 30; tries += 1) {
      const byCategory = new Map<string, number>();
      const base: Source[] = [];
      let all = 0;
      for (const lot of usable(use, day)) {
        const cap = use.caps.find((c) => c.category === lot.category)?.maxShare ?? 1;
        const some = Math.min(leftOf(lot), kg - all, cap * kg - (byCategory.get(lot.category) ?? 0));
        if (some <= CRUMB_KG) continue;
        byCategory.set(lot.category, (byCategory.get(lot.category) ?? 0) + some);
        all += some;
        base.push({ lot: lot.id, kg: some, ...(lot.frozen ? { frozen: true as const } : {}) });
      }
      if (kg - all < CRUMB_KG) return { kg: all, base };
      kg = all;
      if (kg <= CRUMB_KG) break;
    }
    return { kg: 0, base: [] };
  };

  /** What is still wanted of it while a batch of today is good, in kilograms of base. */
  const wants = (use: PlannedUse, day: number, plates: number): number => {
    if (use.staff) {
      const last = lastCooked.get(use.id);
      if (last !== undefined && day < last + use.repeatDays) return 0;
      return plates / use.platesPerKg;
    }
    let [need, there] = [0, 0];
    for (let d = day; d < Math.min(T, day + use.shelf + 1); d += 1) need += wantedOf(use, d);
    for (const b of batches) if (b.use === use && lastOf(problem, use, b.made) >= day) there += b.qty;
    return Math.max(0, need - there) / use.out;
  };

  /** What a kilogram of base saves: what would be bought, or go without, less what goes in beside it and the work. */
  const saves = (use: PlannedUse): number =>
    (use.staff
      ? problem.staff.missingPrice * use.platesPerKg
      : Math.min(use.buyPrice ?? use.shortPrice, use.shortPrice) * use.out) -
    use.costPerKg -
    problem.rate * use.handsPerKg -
    use.parts.reduce((sum, p) => sum + p.lo * p.price, 0);

  for (let day = 0; day < T; day += 1) {
    const room: Room = {
      am: problem.hands.am[day] ?? 0,
      pm: problem.hands.pm[day] ?? 0,
      all: (problem.hands.am[day] ?? 0) + (problem.hands.pm[day] ?? 0),
      burner: problem.burner[day] ?? 0,
      oven: problem.oven[day] ?? 0,
      chiller: problem.chiller[day] ?? 0,
      slots: new Map(problem.vessels.map((v) => [v.id, v.count * problem.slotsPerDay])),
      long: new Map(problem.vessels.map((v) => [v.id, v.count])),
    };
    const cooked = new Map<string, number>();
    let plates = problem.staff.plates[day] ?? 0;
    /** The most of it that this pot and what is left of the day let be made. */
    const fits = (use: PlannedUse, v: VesselFor): number => {
      const isLong = v.slots * 2 > problem.slotsPerDay;
      if ((room.slots.get(v.id) ?? 0) < v.slots || (isLong && (room.long.get(v.id) ?? 0) < 1)) return 0;
      if (room.burner < use.burnerMin || room.oven < use.ovenMin) return 0;
      const minutes = Math.min(room.all, use.part === 'any' ? room.all : room[use.part]) - use.handsFixed;
      return Math.min(
        v.maxKg,
        minutes < 0 ? 0 : use.handsPerKg > 0 ? minutes / use.handsPerKg : v.maxKg,
        use.chillPerKg > 0 ? room.chiller / use.chillPerKg : v.maxKg,
      );
    };
    const cook = (use: PlannedUse): boolean => {
      if ((cooked.get(use.id) ?? 0) >= use.maxRunsPerDay) return false;
      const want = wants(use, day, plates);
      if (want <= CRUMB_KG) return false;
      for (const v of [...use.vessels].sort((a, b) => a.maxKg - b.maxKg)) {
        const most = fits(use, v);
        if (most < v.minKg) continue;
        const { kg, base } = fill(use, day, Math.min(most, Math.max(want, v.minKg)));
        if (kg < v.minKg) continue;
        for (const s of base) if ('lot' in s) left.set(s.lot, (left.get(s.lot) ?? 0) - s.kg);
        const minutes = use.handsFixed + use.handsPerKg * kg;
        room.all -= minutes;
        if (use.part !== 'any') room[use.part] -= minutes;
        room.burner -= use.burnerMin;
        room.oven -= use.ovenMin;
        room.chiller -= use.chillPerKg * kg;
        room.slots.set(v.id, (room.slots.get(v.id) ?? 0) - v.slots);
        if (v.slots * 2 > problem.slotsPerDay) room.long.set(v.id, (room.long.get(v.id) ?? 0) - 1);
        cooked.set(use.id, (cooked.get(use.id) ?? 0) + 1);
        if (use.staff) {
          lastCooked.set(use.id, day);
          plates = Math.max(0, plates - use.platesPerKg * kg);
        } else batches.push({ use, made: day, qty: use.out * kg });
        runs.push({
          use: use.id,
          day,
          vessel: v.id,
          batches: 1,
          kg,
          base,
          parts: {},
          bought: Object.fromEntries(use.parts.filter((p) => p.lo > 0).map((p) => [p.id, p.lo * kg])),
        });
        return true;
      }
      return false;
    };
    // what must go first decides what is cooked
    for (let again = true; again; ) {
      again = false;
      const oldest = problem.lots
        .filter((l) => !l.frozen && l.ready <= day && day <= l.lastDay && leftOf(l) > CRUMB_KG)
        .sort((a, b) => a.lastDay - b.lastDay);
      for (const lot of oldest) {
        const may = uses
          .filter((u) => u.base.products.length === 0 && mayBeBase(u, lot))
          .sort((a, b) => saves(b) - saves(a));
        if (may.some(cook)) {
          again = true;
          break;
        }
      }
    }
    for (const use of uses.filter((u) => !u.staff)) {
      let need = wantedOf(use, day);
      for (const b of batches.filter((x) => x.use === use && lastOf(problem, use, x.made) >= day)) {
        const qty = Math.min(b.qty, need);
        if (qty <= CRUMB_KG) continue;
        serve.push({ product: use.id, day, qty, made: b.made });
        b.qty -= qty;
        need -= qty;
      }
      const bought = use.buyPrice === null || use.buyPrice >= use.shortPrice ? 0 : Math.min(need, use.maxBuyPerDay);
      if (bought > CRUMB_KG) buy.push({ product: use.id, day, qty: bought });
    }
  }
  return { runs, freezeLots: [], freezeProducts: [], serve, buy };
}

/** The batches of a plan as the model counts them, for a search to begin with. */
export function batchesOf(model: PlanModel, plan: WeekPlan): Map<number, number> {
  const counts = new Map<number, number>();
  for (const run of plan.runs) {
    const at = model.columns.batches.find(
      (b) =>
        b.day === run.day &&
        model.uses[b.use]?.id === run.use &&
        model.uses[b.use]?.vessels[b.vessel]?.id === run.vessel,
    );
    if (at !== undefined) counts.set(at.count, (counts.get(at.count) ?? 0) + run.batches);
  }
  return counts;
}
