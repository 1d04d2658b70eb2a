/**
 * Whether a plan keeps every rule, and what it costs: reckoned from the plan to the lot, and knowing nothing of the model it came from.
 *
 * Units   kilograms, minutes, money. A mass may be 2 g off and a time a twentieth of a minute: what rounding leaves.
 */
import type { PlannedUse, PlanProblem, Source, WeekPlan } from './problem.ts';

const MASS = 2e-3;
const TIME = 0.05;
const SPENT_BONES = 'spent-bones';

/** What is wrong, and where. */
export interface PlanFault {
  readonly rule:
    | 'amount'
    | 'day'
    | 'unknown'
    | 'vessel'
    | 'batches'
    | 'fill'
    | 'base'
    | 'cap'
    | 'part'
    | 'lot'
    | 'date'
    | 'product'
    | 'runs'
    | 'repeat'
    | 'hands'
    | 'burner'
    | 'oven'
    | 'chiller'
    | 'freezer'
    | 'thaw'
    | 'serve'
    | 'buy'
    | 'pin';
  readonly about: string;
}

/** What a plan costs, by what it costs it for. */
export interface PlanMoney {
  readonly runs: number;
  readonly energy: number;
  readonly labour: number;
  readonly ingredients: number;
  readonly partsBought: number;
  readonly bought: number;
  readonly short: number;
  readonly platesMissing: number;
  readonly disposal: number;
  readonly freezing: number;
  /** What is left and worth something: it comes off. */
  readonly endValue: number;
}

export interface PlanChecked {
  readonly faults: readonly PlanFault[];
  readonly money: PlanMoney;
  readonly total: number;
}

/** Amounts by day, of something named. */
class ByDay {
  readonly #days: number;
  readonly #of = new Map<string, Float64Array>();

  constructor(days: number) {
    this.#days = days;
  }

  add(name: string, day: number, amount: number): void {
    const there = this.of(name);
    there[day] = (there[day] ?? 0) + amount;
    this.#of.set(name, there);
  }

  of(name: string): Float64Array {
    return this.#of.get(name) ?? new Float64Array(this.#days);
  }

  get names(): IterableIterator<string> {
    return this.#of.keys();
  }
}

const sum = (amounts: Iterable<number>): number => {
  let all = 0;
  for (const amount of amounts) all += amount;
  return all;
};

export function checkPlan(problem: PlanProblem, plan: WeekPlan): PlanChecked {
  const T = problem.days;
  const faults: PlanFault[] = [];
  const fault = (rule: PlanFault['rule'], about: string): void => {
    faults.push({ rule, about });
  };
  const uses = new Map(problem.uses.map((u) => [u.id, u]));
  const lots = new Map(problem.lots.map((l) => [l.id, l]));
  const { freezer } = problem;
  const money = {
    runs: 0,
    energy: 0,
    labour: 0,
    ingredients: 0,
    partsBought: 0,
    bought: 0,
    short: 0,
    platesMissing: 0,
    disposal: 0,
    freezing: 0,
    endValue: 0,
  };
  const amount = (value: number | undefined, about: string): number => {
    if (value !== undefined && Number.isFinite(value) && value >= -1e-9) return value;
    fault('amount', about);
    return 0;
  };
  const isDay = (day: number, about: string): boolean => {
    if (Number.isInteger(day) && day >= 0 && day < T) return true;
    fault('day', about);
    return false;
  };

  const made = new Map(problem.stock.map((s) => [`${s.use}/-1`, s.qty]));
  const lastOf = (use: PlannedUse, day: number): number =>
    day < 0 ? (problem.stock.find((s) => s.use === use.id)?.lastDay ?? -1) : day + use.shelf;
  const fresh = new ByDay(T);
  const thawed = new ByDay(T);
  const batchTaken = new ByDay(T);
  const productThawed = new ByDay(T);

  const takeProduct = (
    s: { readonly product: string; readonly qty: number; readonly made?: number; readonly frozen?: true },
    day: number,
    about: string,
  ): number => {
    const qty = amount(s.qty, about);
    const use = uses.get(s.product);
    if (use === undefined || use.staff) {
      fault('unknown', `${about}: ${s.product}`);
      return 0;
    }
    if (s.frozen === true) {
      productThawed.add(s.product, day, qty);
      return qty;
    }
    const of = s.made ?? Number.NaN;
    if (!Number.isInteger(of) || of < -1 || of > day) {
      fault('product', `${about}: ${s.product} of day ${of}`);
      return 0;
    }
    if (day > lastOf(use, of)) fault('date', `${about}: ${s.product} of day ${of}`);
    batchTaken.add(`${s.product}/${of}`, day, qty);
    return qty;
  };
  /** Takes what a run asks for. Gives the mass, and the lot where it is of one. */
  const take = (s: Source, day: number, use: PlannedUse, about: string) => {
    if (!('lot' in s)) return { kg: takeProduct(s, day, about), lot: undefined, product: s.product };
    const lot = lots.get(s.lot);
    const kg = amount(s.kg, about);
    if (lot === undefined) {
      fault('unknown', `${about}: lot ${s.lot}`);
      return { kg: 0, lot: undefined, product: undefined };
    }
    if (lot.frozen || s.frozen === true) {
      thawed.add(lot.id, day, kg);
      if (lot.frozen && day < lot.ready) fault('lot', `${about}: ${lot.id} is not there yet`);
    } else {
      if (day < lot.ready) fault('lot', `${about}: ${lot.id} is not there yet`);
      if (day + use.minLife > lot.lastDay) fault('date', `${about}: ${lot.id}`);
      fresh.add(lot.id, day, kg);
    }
    return { kg, lot, product: undefined };
  };

  const counts = new ByDay(T);
  const slots = new ByDay(T);
  const long = new ByDay(T);
  const minutes = new ByDay(T);
  const held = new ByDay(T);
  const plates = new Float64Array(T);
  for (const run of plan.runs) {
    const { day } = run;
    const about = `${run.use} on day ${day}`;
    const use = uses.get(run.use);
    if (use === undefined) {
      fault('unknown', about);
      continue;
    }
    if (!isDay(day, about)) continue;
    const vessel = use.vessels.find((v) => v.id === run.vessel);
    if (vessel === undefined) {
      fault('vessel', about);
      continue;
    }
    if (!Number.isInteger(run.batches) || run.batches < 1) {
      fault('batches', about);
      continue;
    }
    const kg = amount(run.kg, about);
    if (kg < vessel.minKg * run.batches - MASS || kg > vessel.maxKg * run.batches + MASS) fault('fill', about);
    let base = 0;
    const byCategory = new Map<string, number>();
    for (const source of run.base) {
      const { kg: some, lot, product } = take(source, day, use, about);
      base += some;
      if (product !== undefined && !use.base.products.includes(product)) fault('base', `${about}: ${product}`);
      if (lot === undefined) continue;
      byCategory.set(lot.category, (byCategory.get(lot.category) ?? 0) + some);
      const fits =
        use.base.categories.includes(lot.category) &&
        !use.refuses.includes(lot.category) &&
        (use.takes === 'any' || use.takes === lot.state || lot.category === SPENT_BONES);
      if (!fits) fault('base', `${about}: ${lot.id}`);
    }
    if (Math.abs(base - kg) > MASS) fault('base', `${about}: ${base} of ${kg} kg`);
    for (const cap of use.caps)
      if ((byCategory.get(cap.category) ?? 0) > cap.maxShare * kg + MASS) fault('cap', `${about}: ${cap.category}`);
    for (const part of use.parts) {
      let all = amount(run.bought[part.id] ?? 0, about);
      money.partsBought += all * part.price;
      for (const source of run.parts[part.id] ?? []) {
        const { kg: some, lot, product } = take(source, day, use, about);
        all += some;
        if (product !== undefined && !part.products.includes(product)) fault('part', `${about}: ${product}`);
        if (
          lot !== undefined &&
          (!part.categories.includes(lot.category) || use.base.categories.includes(lot.category))
        )
          fault('part', `${about}: ${lot.id}`);
      }
      if (all < part.lo * kg - MASS || all > part.hi * kg + MASS) fault('part', `${about}: ${part.id}`);
    }
    counts.add(use.id, day, run.batches);
    slots.add(vessel.id, day, vessel.slots * run.batches);
    if (vessel.slots * 2 > problem.slotsPerDay) long.add(vessel.id, day, run.batches);
    const hands = use.handsFixed * run.batches + use.handsPerKg * kg;
    minutes.add('all', day, hands);
    if (use.part !== 'any') minutes.add(use.part, day, hands);
    held.add('burner', day, use.burnerMin * run.batches);
    held.add('oven', day, use.ovenMin * run.batches);
    held.add('chiller', day, use.chillPerKg * kg);
    if (use.staff) plates[day] = (plates[day] ?? 0) + use.platesPerKg * kg;
    else made.set(`${use.id}/${day}`, (made.get(`${use.id}/${day}`) ?? 0) + use.out * kg);
    money.runs += problem.runPrice * run.batches;
    money.energy += use.energy * run.batches;
    money.labour += problem.rate * hands;
    money.ingredients += use.costPerKg * kg;
  }

  for (const use of problem.uses) {
    const of = counts.of(use.id);
    for (let day = 0; day < T; day += 1) {
      if ((of[day] ?? 0) > use.maxRunsPerDay) fault('runs', `${use.id} on day ${day}`);
      if (use.staff && sum(of.subarray(day, day + use.repeatDays)) > 1) fault('repeat', `${use.id} from day ${day}`);
    }
  }
  for (const { id, count } of problem.vessels)
    for (let day = 0; day < T; day += 1)
      if ((slots.of(id)[day] ?? 0) > count * problem.slotsPerDay || (long.of(id)[day] ?? 0) > count)
        fault('vessel', `${id} on day ${day}`);
  for (let day = 0; day < T; day += 1) {
    const [am = 0, pm = 0] = [problem.hands.am[day], problem.hands.pm[day]];
    for (const [part, most] of [
      ['am', am],
      ['pm', pm],
      ['all', am + pm],
    ] as const)
      if ((minutes.of(part)[day] ?? 0) > most + TIME) fault('hands', `day ${day}, ${part}`);
    for (const what of ['burner', 'oven', 'chiller'] as const)
      if ((held.of(what)[day] ?? 0) > (problem[what][day] ?? 0) + (what === 'chiller' ? 0.01 : TIME))
        fault(what, `day ${day}`);
    money.platesMissing +=
      problem.staff.missingPrice * Math.max(0, (problem.staff.plates[day] ?? 0) - (plates[day] ?? 0));
  }

  // the freezer: what goes in, what comes out, the room it takes
  const room = new Float64Array(T);
  const fills = (from: number, kg: number): void => {
    for (let day = from; day < T; day += 1) room[day] = (room[day] ?? 0) + kg;
  };
  const frozenLots = new ByDay(T);
  const frozenProducts = new ByDay(T);
  for (const f of plan.freezeLots) {
    const about = `freezing ${f.lot}`;
    const lot = lots.get(f.lot);
    const kg = amount(f.kg, about);
    if (lot === undefined || !isDay(f.day, about)) {
      fault('unknown', about);
      continue;
    }
    if (!lot.freezable || lot.frozen) fault('freezer', `${about}: it cannot be`);
    if (f.day < lot.ready || f.day > lot.lastDay) fault('date', `${about} on day ${f.day}`);
    fresh.add(lot.id, f.day, kg);
    frozenLots.add(lot.id, f.day, kg);
    money.freezing += kg * freezer.perKg;
    fills(f.day, kg);
  }
  for (const f of plan.freezeProducts) {
    const about = `freezing ${f.product}`;
    const qty = amount(f.qty, about);
    const from = Math.max(0, f.made);
    if (uses.get(f.product)?.frozenOk !== true) {
      fault('freezer', `${about}: it cannot be`);
      continue;
    }
    if (!isDay(from, about)) continue;
    batchTaken.add(`${f.product}/${f.made}`, from, qty);
    frozenProducts.add(f.product, from, qty);
    money.freezing += qty * freezer.perKg;
    fills(from, qty);
  }
  /** Nothing comes out before it was in long enough; what is out leaves its room. */
  const thaws = (about: string, put: Float64Array, out: Float64Array, there: number): void => {
    let [inside, taken] = [there, 0];
    for (let day = 0; day < T; day += 1) {
      inside += put[day - freezer.thawDays] ?? 0;
      taken += out[day] ?? 0;
      if (taken > inside + MASS) fault('thaw', `${about} on day ${day}`);
      fills(day, -(out[day] ?? 0));
    }
  };
  let before = 0;
  for (const lot of problem.lots) {
    const out = thawed.of(lot.id);
    if (lot.frozen) {
      before += lot.kg;
      thaws(lot.id, new Float64Array(T), out, lot.kg);
      money.endValue += (problem.endFrozen[lot.category] ?? 0) * (lot.kg - sum(out));
      continue;
    }
    const taken = sum(fresh.of(lot.id));
    if (taken > lot.kg + MASS) fault('lot', `${taken} of ${lot.kg} kg of ${lot.id}`);
    const put = frozenLots.of(lot.id);
    thaws(lot.id, put, out, 0);
    money.endValue += (problem.endFrozen[lot.category] ?? 0) * (sum(put) - sum(out));
    const left = Math.max(0, lot.kg - taken);
    if (lot.lastDay >= T) money.endValue += (problem.endFresh[lot.category] ?? 0) * left;
    else money.disposal += (problem.disposal[lot.category] ?? 0) * left;
  }

  // what is wanted
  const wanted = new ByDay(T);
  for (const d of problem.demand) wanted.add(d.use, d.day, d.qty);
  const got = new ByDay(T);
  const boughtOn = new ByDay(T);
  for (const s of plan.serve)
    if (isDay(s.day, `serving ${s.product}`)) got.add(s.product, s.day, takeProduct(s, s.day, `serving ${s.product}`));
  for (const b of plan.buy) {
    const use = uses.get(b.product);
    const qty = amount(b.qty, `buying ${b.product}`);
    if (use?.buyPrice == null) {
      fault('buy', `${b.product} is not sold`);
      continue;
    }
    money.bought += qty * use.buyPrice;
    if (!Number.isInteger(b.day) || b.day < 0 || b.day >= T) {
      if (qty > MASS) fault('day', `buying ${b.product}`);
      continue;
    }
    got.add(b.product, b.day, qty);
    boughtOn.add(b.product, b.day, qty);
    if ((boughtOn.of(b.product)[b.day] ?? 0) > use.maxBuyPerDay + MASS) fault('buy', `${b.product} on day ${b.day}`);
  }
  for (const name of got.names)
    for (let day = 0; day < T; day += 1)
      if ((got.of(name)[day] ?? 0) > (wanted.of(name)[day] ?? 0) + MASS) fault('serve', `${name} on day ${day}`);
  for (const name of wanted.names)
    for (let day = 0; day < T; day += 1)
      money.short +=
        (uses.get(name)?.shortPrice ?? 0) * Math.max(0, (wanted.of(name)[day] ?? 0) - (got.of(name)[day] ?? 0));

  // what is left of batches
  const left = new Map<string, number>();
  for (const name of batchTaken.names) if (!made.has(name)) fault('product', `${name} was not made`);
  for (const [name, qty] of made) {
    const [id = '', day] = name.split('/');
    const use = uses.get(id);
    if (use === undefined) continue;
    const taken = sum(batchTaken.of(name));
    if (taken > qty + MASS) fault('product', `${taken} of ${qty} of ${name}`);
    const rest = Math.max(0, qty - taken);
    if (lastOf(use, Number(day)) >= T) left.set(id, (left.get(id) ?? 0) + rest);
    else money.disposal += use.wasteCost * rest;
  }
  for (const name of new Set([...productThawed.names, ...frozenProducts.names])) {
    const [put, out] = [frozenProducts.of(name), productThawed.of(name)];
    thaws(name, put, out, 0);
    left.set(name, (left.get(name) ?? 0) + sum(put) - sum(out));
  }
  for (const [name, qty] of left) {
    const use = uses.get(name);
    money.endValue += (use?.endValue ?? 0) * Math.min(use?.endCap ?? 0, qty);
  }
  for (let day = 0; day < T; day += 1) {
    const there = (room[day] ?? 0) + before;
    if (there > freezer.kg + 5 * MASS) fault('freezer', `${there} kg on day ${day}`);
    money.freezing += freezer.perKgDay * Math.max(0, there);
  }
  for (const pin of problem.pins ?? []) {
    const n = counts.of(pin.use)[pin.day] ?? 0;
    if (n < (pin.min ?? 0) || n > (pin.max ?? Number.POSITIVE_INFINITY)) fault('pin', `${pin.use} on day ${pin.day}`);
  }
  const { endValue, ...costs } = money;
  return { faults, money, total: sum(Object.values(costs)) - endValue };
}
