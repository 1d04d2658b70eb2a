/** A solution of the model as a plan to the lot: first expired first out, and what went together in the model comes apart without losing anything. */
import { type PlanModel, type Role, rolesOf } from './planModel.ts';
import type { PlannedRun, Served, Source, Supply, WeekPlan } from './problem.ts';

/** Masses under this are nothing: a tenth of a milligram. */
const CRUMB_KG = 1e-7;

/** Some of something, taken from the front. */
class Heap<T> {
  readonly #parts: { what: T; kg: number }[] = [];

  add(what: T, kg: number): void {
    if (kg > CRUMB_KG) this.#parts.push({ what, kg });
  }

  /** As much as is wanted, or all there is. */
  take(kg: number): { readonly what: T; readonly kg: number }[] {
    const out: { what: T; kg: number }[] = [];
    let wanted = kg;
    while (wanted > CRUMB_KG) {
      const [first] = this.#parts;
      if (first === undefined) break;
      const some = Math.min(first.kg, wanted);
      out.push({ what: first.what, kg: some });
      wanted -= some;
      first.kg -= some;
      if (first.kg <= CRUMB_KG) this.#parts.shift();
    }
    return out;
  }
}

type FromLot = { readonly lot: Supply; readonly frozen: boolean };
type FromBatch = { readonly made: number } | 'freezer';

/** The sources of a run by its roles, and what of a product was bought for a part. */
interface Needs {
  readonly sources: Map<number, Source[]>;
}

const roleIndex = (role: Role): number => (role === 'base' ? 0 : role.part + 1);

/**
 * Shapes  values: of each column of the model, batches whole.
 * Keeps   what the model took of a class is drawn of its lots in the order they are ready: all of them end on one day, and no more is drawn by a day
 *         than had come by then. Sources are split over the vessels of one use and day in proportion, so that caps and parts hold in each.
 */
export function decodePlan(model: PlanModel, values: ArrayLike<number>): WeekPlan {
  const { problem, columns: c, classes, kinds, frozen, uses } = model;
  const of = (column: number): number => values[column] ?? 0;
  const days = Array.from({ length: problem.days }, (_, d) => d);

  // lots out of their classes and out of the freezer, into bags by kind, day and tier
  const bags = new Map<string, Heap<FromLot>>();
  const bag = (kind: number, day: number, tier: number): Heap<FromLot> => {
    const key = `${kind}/${day}/${tier}`;
    const there = bags.get(key) ?? new Heap<FromLot>();
    bags.set(key, there);
    return there;
  };
  const freezeLots: WeekPlan['freezeLots'][number][] = [];
  const inFreezer = kinds.map(() => [] as { readonly lot: Supply; readonly from: number; kg: number }[]);
  for (const [i, cls] of classes.entries()) {
    const here = new Heap<Supply>();
    let next = 0;
    for (const day of days) {
      for (; (cls.lots[next]?.ready ?? Number.POSITIVE_INFINITY) <= day; next += 1) {
        const lot = cls.lots[next];
        if (lot !== undefined) here.add(lot, lot.kg);
      }
      for (const y of c.draw)
        if (y.cls === i && y.day === day)
          for (const { what, kg } of here.take(of(y.column)))
            bag(cls.kind, day, y.tier).add({ lot: what, frozen: false }, kg);
      for (const z of c.freeze)
        if (z.cls === i && z.day === day)
          for (const { what, kg } of here.take(of(z.column))) {
            freezeLots.push({ lot: what.id, day, kg });
            inFreezer[cls.kind]?.push({ lot: what, from: day + problem.freezer.thawDays, kg });
          }
    }
  }
  for (const [k, lots] of frozen.entries())
    inFreezer[k]?.unshift(...lots.map((lot) => ({ lot, from: lot.ready, kg: lot.kg })));
  for (const w of [...c.thaw].sort((a, b) => a.day - b.day)) {
    let wanted = of(w.column);
    for (const there of inFreezer[w.kind] ?? []) {
      if (wanted <= CRUMB_KG) break;
      if (there.from > w.day || there.kg <= CRUMB_KG) continue;
      const kg = Math.min(there.kg, wanted);
      there.kg -= kg;
      wanted -= kg;
      bag(w.kind, w.day, w.tier).add({ lot: there.lot, frozen: true }, kg);
    }
  }

  // batches of products, on the days they are used
  const products = new Map<string, Heap<FromBatch>>();
  const product = (p: number, day: number, served: boolean): Heap<FromBatch> => {
    const key = `${p}/${day}/${served}`;
    const there = products.get(key) ?? new Heap<FromBatch>();
    products.set(key, there);
    return there;
  };
  for (const f of [...c.ofBatch].sort((a, b) => a.made - b.made))
    product(f.use, f.day, f.served).add({ made: f.made }, of(f.column));
  for (const h of c.thawProduct) product(h.use, h.day, h.served).add('freezer', of(h.column));
  const ofProduct = (p: number, { what, kg }: { readonly what: FromBatch; readonly kg: number }): Source =>
    what === 'freezer'
      ? { product: uses[p]?.id ?? '', frozen: true, qty: kg }
      : { product: uses[p]?.id ?? '', made: what.made, qty: kg };

  const serve: Served[] = [];
  for (const s of c.serve)
    for (const { what, kg } of product(s.use, s.day, true).take(of(s.column)))
      serve.push({
        product: uses[s.use]?.id ?? '',
        day: s.day,
        qty: kg,
        ...(what === 'freezer' ? { frozen: true as const } : { made: what.made }),
      });

  // what goes into each use on a day
  const needs = new Map<string, Needs>();
  const needsOf = (use: number, day: number): Needs => {
    const key = `${use}/${day}`;
    const there = needs.get(key) ?? { sources: new Map<number, Source[]>() };
    needs.set(key, there);
    return there;
  };
  const add = (use: number, day: number, role: Role, source: Source): void => {
    const { sources } = needsOf(use, day);
    const at = roleIndex(role);
    sources.set(at, [...(sources.get(at) ?? []), source]);
  };
  for (const x of c.into)
    for (const { what, kg } of bag(x.kind, x.day, uses[x.use]?.minLife ?? 0).take(of(x.column)))
      add(x.use, x.day, x.role, { lot: what.lot.id, kg, ...(what.frozen ? { frozen: true as const } : {}) });
  for (const q of c.productInto)
    for (const some of product(q.product, q.day, false).take(of(q.column)))
      add(q.use, q.day, q.role, ofProduct(q.product, some));

  const runs: PlannedRun[] = [];
  for (const [r, use] of uses.entries())
    for (const day of days) {
      const here = c.batches.filter((b) => b.use === r && b.day === day && Math.round(of(b.count)) > 0);
      const all = here.reduce((sum, b) => sum + of(b.mass), 0);
      for (const b of here) {
        const vessel = use.vessels[b.vessel];
        const mass = of(b.mass);
        if (vessel === undefined || mass <= CRUMB_KG) continue;
        const share = mass / all;
        const sourcesOf = (role: Role): Source[] =>
          (needsOf(r, day).sources.get(roleIndex(role)) ?? []).map((s) =>
            'lot' in s ? { ...s, kg: s.kg * share } : { ...s, qty: s.qty * share },
          );
        const bought = Object.fromEntries(
          use.parts.flatMap((part, p): [string, number][] => {
            const kg = c.boughtPart
              .filter((x) => x.use === r && x.day === day && x.part === p)
              .reduce((sum, x) => sum + of(x.column), 0);
            return kg > CRUMB_KG ? [[part.id, kg * share]] : [];
          }),
        );
        const parts = Object.fromEntries(
          rolesOf(use).flatMap((role): [string, Source[]][] =>
            role === 'base' ? [] : [[use.parts[role.part]?.id ?? '', sourcesOf(role)]],
          ),
        );
        runs.push({
          use: use.id,
          day,
          vessel: vessel.id,
          batches: Math.round(of(b.count)),
          kg: mass,
          base: sourcesOf('base'),
          parts,
          bought,
        });
      }
    }
  return {
    runs,
    freezeLots,
    freezeProducts: c.freezeProduct.flatMap((g) =>
      of(g.column) > CRUMB_KG ? [{ product: uses[g.use]?.id ?? '', made: g.made, qty: of(g.column) }] : [],
    ),
    serve,
    buy: c.buy.flatMap((b) =>
      of(b.column) > CRUMB_KG ? [{ product: uses[b.use]?.id ?? '', day: b.day, qty: of(b.column) }] : [],
    ),
  };
}
