/**
 * The plan of bones and trim as a linear model in which only the batches are whole.
 *
 * Lots are taken together that are of one kind, end on one day and may or may not be frozen; lots never meet uses directly, but through the kilograms
 * of their kind on a day. What is waste, and what is left, stands in the costs of what is taken. Two rows a vessel and day say exactly that its batches fit
 * into three shifts (sizes 1, 2, 3 in bins of 3).
 *
 * Source  docs/methods of this project's planning notes: the formulation proven on its public instances.
 */
import { LinearBuilder, type LinearModel, type Term } from './linear.ts';
import type { PlannedUse, PlanProblem, Supply } from './problem.ts';

/** Lots of one kind that end on one day. */
export interface LotClass {
  readonly kind: number;
  /** Capped at the end of the plan: what outlives it. */
  readonly lastDay: number;
  readonly freezable: boolean;
  /** In the order they are ready. */
  readonly lots: readonly Supply[];
}

/** What all lots of one category and state share. */
export interface Kind {
  readonly category: string;
  readonly state: 'raw' | 'cooked';
}

export type Role = 'base' | { readonly part: number };

/** Where each decision stands among the columns. */
export interface PlanColumns {
  /** Kilograms drawn of a class on a day for a tier: a day or none that they must still be in date. */
  readonly draw: { readonly cls: number; readonly day: number; readonly tier: 0 | 1; readonly column: number }[];
  readonly freeze: { readonly cls: number; readonly day: number; readonly column: number }[];
  readonly thaw: { readonly kind: number; readonly day: number; readonly tier: 0 | 1; readonly column: number }[];
  readonly into: {
    readonly kind: number;
    readonly use: number;
    readonly day: number;
    readonly role: Role;
    readonly column: number;
  }[];
  readonly batches: {
    readonly use: number;
    readonly day: number;
    readonly vessel: number;
    readonly count: number;
    readonly mass: number;
  }[];
  readonly boughtPart: {
    readonly use: number;
    readonly day: number;
    readonly part: number;
    readonly column: number;
  }[];
  /** Of the batch of day `made` on a day: `served`, or into another use. Two columns, so that what is served can be held to what is wanted. */
  readonly ofBatch: {
    readonly use: number;
    readonly made: number;
    readonly day: number;
    readonly served: boolean;
    readonly column: number;
  }[];
  readonly freezeProduct: { readonly use: number; readonly made: number; readonly column: number }[];
  readonly thawProduct: {
    readonly use: number;
    readonly day: number;
    readonly served: boolean;
    readonly column: number;
  }[];
  readonly serve: { readonly use: number; readonly day: number; readonly column: number }[];
  readonly buy: { readonly use: number; readonly day: number; readonly column: number }[];
  readonly productInto: {
    readonly product: number;
    readonly use: number;
    readonly day: number;
    readonly role: Role;
    readonly column: number;
  }[];
}

export interface PlanModel {
  readonly problem: PlanProblem;
  readonly linear: LinearModel;
  readonly columns: PlanColumns;
  readonly kinds: readonly Kind[];
  readonly classes: readonly LotClass[];
  /** Lots in the freezer from the first day, by kind, in the order they are ready. */
  readonly frozen: readonly (readonly Supply[])[];
  /** Those that take part. */
  readonly uses: readonly PlannedUse[];
}

const SPENT_BONES = 'spent-bones';

/** Whether a kind may be the base of a use. */
export const mayBeBase = (use: PlannedUse, { category, state }: Kind): boolean =>
  use.base.categories.includes(category) &&
  !use.refuses.includes(category) &&
  (use.takes === 'any' || use.takes === state || category === SPENT_BONES);

/** Whether a kind may be a part of it: what may be its base is none. */
export const mayBePart = (use: PlannedUse, part: number, { category }: Kind): boolean =>
  use.parts[part]?.categories.includes(category) === true && !use.base.categories.includes(category);

/** The last day on which a batch may be used; -1 is what was on hand. */
export const lastOf = (problem: PlanProblem, use: PlannedUse, made: number): number =>
  made < 0 ? (problem.stock.find((s) => s.use === use.id)?.lastDay ?? -1) : made + use.shelf;

export const rolesOf = (use: PlannedUse): Role[] => ['base', ...use.parts.map((_, part): Role => ({ part }))];
/** Things filed under a number, to be found without going through all of them. */
class Filed<T> {
  readonly #under = new Map<number, T[]>();

  add(under: number, thing: T): void {
    const there = this.#under.get(under);
    if (there === undefined) this.#under.set(under, [thing]);
    else there.push(thing);
  }

  of(under: number): readonly T[] {
    return this.#under.get(under) ?? [];
  }
}

const upTo = (n: number): number[] => Array.from({ length: Math.max(0, n) }, (_, i) => i);

/** @example a plan of 4 days over 20 lots and 10 uses: some 500 columns, of which 70 are whole */
export function planModel(problem: PlanProblem): PlanModel {
  const T = problem.days;
  const days = upTo(T);
  const m = new LinearBuilder();
  const uses = problem.uses.filter((u) => u.idle !== true);
  const useAt = new Map(uses.map((u, i) => [u.id, i]));

  // what there is
  const kinds: Kind[] = [];
  const kindOf = ({ category, state }: Kind): number => {
    const at = kinds.findIndex((k) => k.category === category && k.state === state);
    return at >= 0 ? at : kinds.push({ category, state }) - 1;
  };
  const byClass = new Map<string, { kind: number; lastDay: number; freezable: boolean; lots: Supply[] }>();
  const frozen: Supply[][] = [];
  for (const lot of problem.lots) {
    const kind = kindOf(lot);
    if (lot.frozen) {
      frozen[kind] = [...(frozen[kind] ?? []), lot];
      continue;
    }
    const lastDay = Math.min(T, lot.lastDay);
    const key = `${kind}/${lastDay}/${lot.freezable}`;
    const cls = byClass.get(key) ?? { kind, lastDay, freezable: lot.freezable, lots: [] };
    cls.lots.push(lot);
    byClass.set(key, cls);
  }
  const classes: LotClass[] = [...byClass.values()].map((c) => ({
    ...c,
    lots: [...c.lots].sort((a, b) => a.ready - b.ready),
  }));
  const frozenOf = (kind: number): Supply[] => [...(frozen[kind] ?? [])].sort((a, b) => a.ready - b.ready);
  const known = new Map<string, number>();
  /** All there can be of a kind on a day, of what is still in date `life` days after or could be frozen. */
  const thereCanBe = (kind: number, day: number, life: number): number => {
    const key = `${kind}/${day}/${life}`;
    const before = known.get(key);
    if (before !== undefined) return before;
    const readyOf = (lots: readonly Supply[]): number => lots.reduce((kg, l) => (l.ready <= day ? kg + l.kg : kg), 0);
    const now = classes.reduce(
      (kg, cls) => (cls.kind === kind && (cls.freezable || day + life <= cls.lastDay) ? kg + readyOf(cls.lots) : kg),
      readyOf(frozenOf(kind)),
    );
    known.set(key, now);
    return now;
  };

  const c: PlanColumns = {
    draw: [],
    freeze: [],
    thaw: [],
    into: [],
    batches: [],
    boughtPart: [],
    ofBatch: [],
    freezeProduct: [],
    thawProduct: [],
    serve: [],
    buy: [],
    productInto: [],
  };
  /** Of something on a day. */
  const on = (thing: number, day: number): number => thing * (T + 1) + day + 1;
  const drawnOf = new Filed<PlanColumns['draw'][number]>();
  const drawnOn = new Filed<PlanColumns['draw'][number]>();
  const frozenOn = new Filed<PlanColumns['freeze'][number]>();
  const thawedOn = new Filed<PlanColumns['thaw'][number]>();
  const intoOn = new Filed<PlanColumns['into'][number]>();
  const ofKindOn = new Filed<PlanColumns['into'][number]>();
  const batchesOn = new Filed<PlanColumns['batches'][number]>();
  const dayBatches = new Filed<PlanColumns['batches'][number]>();
  const productOn = new Filed<PlanColumns['ofBatch'][number]>();
  const productThawedOn = new Filed<PlanColumns['thawProduct'][number]>();
  const productIntoOn = new Filed<PlanColumns['productInto'][number]>();
  const { freezer } = problem;
  const roomFrom = (day: number): number => freezer.perKgDay * (T - day);

  // lots out of their classes
  const tiersOf = (kind: Kind): (0 | 1)[] =>
    ([0, 1] as const).filter((tier) =>
      uses.some((u) => u.minLife === tier && (mayBeBase(u, kind) || u.parts.some((_, p) => mayBePart(u, p, kind)))),
    );
  for (const [i, cls] of classes.entries()) {
    const kind = kinds[cls.kind] as Kind;
    const ends = cls.lastDay < T;
    const left = ends ? (problem.disposal[kind.category] ?? 0) : -(problem.endFresh[kind.category] ?? 0);
    m.offset += left * cls.lots.reduce((sum, l) => sum + l.kg, 0);
    const first = cls.lots[0]?.ready ?? T;
    for (const day of days.filter((d) => d >= first)) {
      for (const tier of tiersOf(kind))
        if (day + tier <= cls.lastDay) {
          const drawn = { cls: i, day, tier, column: m.column({ cost: -left }) };
          c.draw.push(drawn);
          drawnOf.add(i, drawn);
          drawnOn.add(on(cls.kind, day), drawn);
        }
      if (cls.freezable && day <= cls.lastDay) {
        const cost = -left + freezer.perKg + roomFrom(day) - (problem.endFrozen[kind.category] ?? 0);
        const put = { cls: i, day, column: m.column({ cost }) };
        c.freeze.push(put);
        frozenOn.add(on(cls.kind, day), put);
      }
    }
    const taken = (until: number): Term[] =>
      [...drawnOf.of(i), ...c.freeze.filter((z) => z.cls === i)]
        .filter((x) => x.day <= until)
        .map((x): Term => [x.column, 1]);
    const comes = [...new Set(cls.lots.map((l) => l.ready))].sort((a, b) => a - b);
    for (const until of [...comes.slice(1).map((d) => d - 1), T - 1]) {
      const there = cls.lots.filter((l) => l.ready <= until).reduce((sum, l) => sum + l.kg, 0);
      m.atMost('lot', [kind.category, cls.lastDay, until], there, taken(until));
    }
  }

  // out of the freezer
  for (const [k, kind] of kinds.entries()) {
    const before = frozenOf(k);
    const can = before.length > 0 || c.freeze.some((z) => classes[z.cls]?.kind === k);
    m.offset += before.reduce((sum, l) => sum + l.kg, 0) * (roomFrom(0) - (problem.endFrozen[kind.category] ?? 0));
    if (!can) continue;
    for (const day of days)
      for (const tier of tiersOf(kind)) {
        const cost = (problem.endFrozen[kind.category] ?? 0) - roomFrom(day);
        const thawed = { kind: k, day, tier, column: m.column({ cost }) };
        c.thaw.push(thawed);
        thawedOn.add(on(k, day), thawed);
      }
    let lies: number | undefined;
    for (const day of days) {
      const now = m.column();
      const comes = before
        .filter((l) => l.ready === day || (day === 0 && l.ready < 0))
        .reduce((sum, l) => sum + l.kg, 0);
      m.equal('frozen', [kind.category, day], comes, [
        [now, 1],
        ...(lies === undefined ? [] : [[lies, -1] as Term]),
        ...thawedOn.of(on(k, day)).map((w): Term => [w.column, 1]),
        ...(day < freezer.thawDays ? [] : frozenOn.of(on(k, day - freezer.thawDays))).map((z): Term => [z.column, -1]),
      ]);
      lies = now;
    }
  }

  // batches, what goes into them and what comes of them
  const massOf = (use: number, day: number): Term[] => batchesOn.of(on(use, day)).map((b): Term => [b.mass, 1]);
  const demand = new Map<string, number>();
  for (const d of problem.demand) {
    const at = useAt.get(d.use);
    // what nothing is made of and nothing is bought of is short whatever is done
    if (at === undefined) {
      const idle = problem.uses.find((u) => u.id === d.use);
      m.offset += (idle?.shortPrice ?? 0) * d.qty;
    } else demand.set(`${at}/${d.day}`, (demand.get(`${at}/${d.day}`) ?? 0) + d.qty);
  }
  for (const [r, use] of uses.entries())
    for (const day of days)
      for (const [v, vessel] of use.vessels.entries()) {
        const count = problem.vessels.find((x) => x.id === vessel.id)?.count ?? 0;
        const most = Math.min(use.maxRunsPerDay, Math.floor((count * problem.slotsPerDay) / vessel.slots));
        const waste = use.staff || lastOf(problem, use, day) >= T ? 0 : use.wasteCost * use.out;
        const batch = {
          use: r,
          day,
          vessel: v,
          count: m.column({
            cost: problem.runPrice + use.energy + problem.rate * use.handsFixed,
            upper: Math.max(0, most),
            whole: true,
          }),
          mass: m.column({ cost: problem.rate * use.handsPerKg + use.costPerKg + waste }),
        };
        c.batches.push(batch);
        batchesOn.add(on(r, day), batch);
        dayBatches.add(day, batch);
      }
  for (const [r, use] of uses.entries())
    for (const day of days) {
      const mass = massOf(r, day);
      for (const role of rolesOf(use)) {
        const sources: Term[] = [];
        for (const [k, kind] of kinds.entries()) {
          const may = role === 'base' ? mayBeBase(use, kind) : mayBePart(use, role.part, kind);
          if (!may) continue;
          const column = m.column();
          const into = { kind: k, use: r, day, role, column };
          c.into.push(into);
          intoOn.add(on(r, day), into);
          ofKindOn.add(on(k, day), into);
          sources.push([column, 1]);
        }
        const products = role === 'base' ? use.base.products : (use.parts[role.part]?.products ?? []);
        for (const product of products) {
          const p = useAt.get(product);
          if (p === undefined || uses[p]?.staff === true) continue;
          const column = m.column();
          const into = { product: p, use: r, day, role, column };
          c.productInto.push(into);
          productIntoOn.add(on(p, day), into);
          sources.push([column, 1]);
        }
        if (role === 'base') m.equal('base', [use.id, day], 0, [...sources, ...mass.map(([b]): Term => [b, -1])]);
        else {
          const part = use.parts[role.part];
          if (part === undefined) continue;
          const column = m.column({ cost: part.price });
          c.boughtPart.push({ use: r, day, part: role.part, column });
          const all: Term[] = [...sources, [column, 1]];
          m.atLeast('part', [use.id, day, part.id], 0, [...all, ...mass.map(([b]): Term => [b, -part.lo])]);
          m.atMost('part', [use.id, day, part.id], 0, [...all, ...mass.map(([b]): Term => [b, -part.hi])]);
        }
      }
      for (const cap of use.caps) {
        const capped = intoOn
          .of(on(r, day))
          .filter((x) => x.role === 'base' && kinds[x.kind]?.category === cap.category)
          .map((x): Term => [x.column, 1]);
        if (capped.length > 0)
          m.atMost('cap', [use.id, day, cap.category], 0, [...capped, ...mass.map(([b]): Term => [b, -cap.maxShare])]);
      }
    }
  for (const [k, kind] of kinds.entries())
    for (const day of days)
      for (const tier of tiersOf(kind))
        m.equal('node', [kind.category, day, tier], 0, [
          ...drawnOn
            .of(on(k, day))
            .filter((y) => y.tier === tier)
            .map((y): Term => [y.column, 1]),
          ...thawedOn
            .of(on(k, day))
            .filter((w) => w.tier === tier)
            .map((w): Term => [w.column, 1]),
          ...ofKindOn
            .of(on(k, day))
            .filter((x) => uses[x.use]?.minLife === tier)
            .map((x): Term => [x.column, -1]),
        ]);

  // how much a batch can hold at the most: what is in date of all it may be made of
  const availableTo = (use: PlannedUse, day: number): number =>
    kinds.reduce((kg, kind, k) => (mayBeBase(use, kind) ? kg + thereCanBe(k, day, use.minLife) : kg), 0);
  for (const b of c.batches) {
    const use = uses[b.use] as PlannedUse;
    const vessel = use.vessels[b.vessel];
    if (vessel === undefined) continue;
    const there = use.base.products.length > 0 ? Number.POSITIVE_INFINITY : availableTo(use, b.day);
    m.atLeast('fill', [use.id, b.day, vessel.id, 'least'], 0, [
      [b.mass, 1],
      [b.count, -vessel.minKg],
    ]);
    m.atMost('fill', [use.id, b.day, vessel.id, 'most'], 0, [
      [b.mass, 1],
      [b.count, -Math.min(vessel.maxKg, there)],
    ]);
  }

  // a kind of which less is there than a batch takes: no more of it than there is in each batch
  for (const x of c.into) {
    const use = uses[x.use] as PlannedUse;
    if (x.role !== 'base') continue;
    const there = thereCanBe(x.kind, x.day, use.minLife);
    const batches = batchesOn.of(on(x.use, x.day));
    const largest = Math.max(...batches.map((b) => use.vessels[b.vessel]?.maxKg ?? 0));
    if (there < 0.8 * largest)
      m.atMost('there', [use.id, x.day, kinds[x.kind]?.category ?? ''], 0, [
        [x.column, 1],
        ...batches.map((b): Term => [b.count, -there]),
      ]);
  }

  // products
  /** Ways out of a batch on a day: served where it is wanted, into another use where one takes it. */
  const ways = (p: number, use: PlannedUse, day: number): boolean[] => [
    ...(demand.has(`${p}/${day}`) ? [true] : []),
    ...(uses.some((u) => isMadeOf(u, use.id)) ? [false] : []),
  ];
  for (const [p, use] of uses.entries()) {
    if (use.staff) continue;
    const stock = problem.stock.find((s) => s.use === use.id);
    const made = [...(stock === undefined ? [] : [-1]), ...days];
    const leftIn: Term[] = [];
    for (const s of made) {
      const last = lastOf(problem, use, s);
      const outlives = last >= T;
      const left = outlives ? 0 : use.wasteCost;
      const from = Math.max(0, s);
      const uses_: Term[] = [];
      for (const day of days.filter((d) => d >= from && d <= last)) {
        for (const served of ways(p, use, day)) {
          const column = m.column({ cost: -left });
          const of = { use: p, made: s, day, served, column };
          c.ofBatch.push(of);
          productOn.add(on(p, day), of);
          uses_.push([column, 1]);
          const wanted = demand.get(`${p}/${day}`) ?? 0;
          if (s >= 0 && served)
            m.atMost('serves', [use.id, s, day], 0, [
              [column, 1],
              ...batchesOn.of(on(p, s)).map((b): Term => [b.count, -wanted]),
            ]);
        }
      }
      if (use.frozenOk) {
        const column = m.column({ cost: -left + freezer.perKg + roomFrom(from) });
        c.freezeProduct.push({ use: p, made: s, column });
        const later = days.reduce((sum, d) => sum + (d > from ? (demand.get(`${p}/${d}`) ?? 0) : 0), 0);
        if (s >= 0 && !uses.some((u) => isMadeOf(u, use.id)))
          m.atMost('freezes', [use.id, s], 0, [
            [column, 1],
            ...batchesOn
              .of(on(p, s))
              .map(
                (b): Term => [b.count, -Math.min(later + use.endCap, (use.vessels[b.vessel]?.maxKg ?? 0) * use.out)],
              ),
          ]);
        uses_.push([column, 1]);
        leftIn.push([column, 1]);
      }
      if (outlives) {
        const column = m.column();
        uses_.push([column, 1]);
        leftIn.push([column, 1]);
        if (s >= 0)
          m.atMost('left', [use.id, s], 0, [
            [column, 1],
            ...batchesOn
              .of(on(p, s))
              .map((b): Term => [b.count, -Math.min(use.endCap, (use.vessels[b.vessel]?.maxKg ?? 0) * use.out)]),
          ]);
      }
      const there: Term[] = s < 0 ? [] : massOf(p, s).map(([b]): Term => [b, -use.out]);
      if (s < 0) m.offset += left * (stock?.qty ?? 0);
      m.atMost('out', [use.id, s], s < 0 ? (stock?.qty ?? 0) : 0, [...uses_, ...there]);
    }
    if (use.frozenOk) {
      for (const day of days.filter((d) => d >= freezer.thawDays))
        for (const served of ways(p, use, day)) {
          const column = m.column({ cost: -roomFrom(day) });
          const thawed = { use: p, day, served, column };
          c.thawProduct.push(thawed);
          productThawedOn.add(on(p, day), thawed);
          leftIn.push([column, -1]);
        }
      let lies: number | undefined;
      for (const day of days) {
        const now = m.column();
        m.equal('frozen', [use.id, day], 0, [
          [now, 1],
          ...(lies === undefined ? [] : [[lies, -1] as Term]),
          ...productThawedOn.of(on(p, day)).map((h): Term => [h.column, 1]),
          ...c.freezeProduct
            .filter((g) => g.use === p && Math.max(0, g.made) === day - freezer.thawDays)
            .map((g): Term => [g.column, -1]),
        ]);
        lies = now;
      }
    }
    if (leftIn.length > 0 && use.endValue > 0 && use.endCap > 0) {
      const worth = m.column({ cost: -use.endValue, upper: use.endCap });
      m.atMost('end', [use.id], 0, [[worth, 1], ...leftIn.map(([x, f]): Term => [x, -f])]);
    }
    for (const day of days) {
      const wanted = demand.get(`${p}/${day}`) ?? 0;
      const sold: Term[] = [];
      if (wanted > 0) {
        const column = m.column();
        c.serve.push({ use: p, day, column });
        sold.push([column, 1]);
        const served: Term[] = [
          [column, 1],
          [m.column({ cost: use.shortPrice }), 1],
        ];
        if (use.buyPrice !== null) {
          const bought = m.column({ cost: use.buyPrice, upper: use.maxBuyPerDay });
          c.buy.push({ use: p, day, column: bought });
          served.push([bought, 1]);
        }
        m.equal('dem', [use.id, day], wanted, served);
      }
      for (const served of [true, false]) {
        const away = served ? sold : productIntoOn.of(on(p, day)).map((q): Term => [q.column, 1]);
        m.equal(served ? 'served' : 'flow', [use.id, day], 0, [
          ...productOn
            .of(on(p, day))
            .filter((f) => f.served === served)
            .map((f): Term => [f.column, 1]),
          ...productThawedOn
            .of(on(p, day))
            .filter((h) => h.served === served)
            .map((h): Term => [h.column, 1]),
          ...away.map(([x]): Term => [x, -1]),
        ]);
      }
    }
  }

  // pots, hands, fire, cold
  const sumOf = (
    of: (b: PlanColumns['batches'][number], use: PlannedUse) => number,
    day: number,
    mass = false,
  ): Term[] => dayBatches.of(day).map((b): Term => [mass ? b.mass : b.count, of(b, uses[b.use] as PlannedUse)]);
  let roomBefore: number | undefined;
  for (const day of days) {
    for (const [r, use] of uses.entries()) {
      const here = batchesOn.of(on(r, day)).map((b): Term => [b.count, 1]);
      if (use.vessels.length > 1) m.atMost('runs', [use.id, day], use.maxRunsPerDay, here);
      if (use.staff && use.repeatDays > 0)
        m.atMost(
          'repeat',
          [use.id, day],
          1,
          c.batches
            .filter((b) => b.use === r && b.day >= day && b.day < day + use.repeatDays)
            .map((b): Term => [b.count, 1]),
        );
      const pin = problem.pins?.filter((p) => p.use === use.id && p.day === day) ?? [];
      for (const { min = 0, max = Number.POSITIVE_INFINITY } of pin) m.row('pin', [use.id, day], min, max, here);
    }
    for (const vessel of problem.vessels) {
      const slotsOf = (b: PlanColumns['batches'][number], use: PlannedUse): number =>
        use.vessels[b.vessel]?.id === vessel.id ? (use.vessels[b.vessel]?.slots ?? 0) : 0;
      m.atMost('vessel', [vessel.id, day], vessel.count * problem.slotsPerDay, sumOf(slotsOf, day));
      m.atMost(
        'long',
        [vessel.id, day],
        vessel.count,
        sumOf((b, use) => (slotsOf(b, use) * 2 > problem.slotsPerDay ? 1 : 0), day),
      );
    }
    const minutes = (part: 'am' | 'pm' | 'all'): Term[] => [
      ...sumOf((_, use) => (part === 'all' || use.part === part ? use.handsFixed : 0), day),
      ...sumOf((_, use) => (part === 'all' || use.part === part ? use.handsPerKg : 0), day, true),
    ];
    const [am = 0, pm = 0] = [problem.hands.am[day], problem.hands.pm[day]];
    m.atMost('hands', [day, 'am'], am, minutes('am'));
    m.atMost('hands', [day, 'pm'], pm, minutes('pm'));
    m.atMost('hands', [day, 'all'], am + pm, minutes('all'));
    m.atMost(
      'burner',
      [day],
      problem.burner[day] ?? 0,
      sumOf((_, use) => use.burnerMin, day),
    );
    m.atMost(
      'oven',
      [day],
      problem.oven[day] ?? 0,
      sumOf((_, use) => use.ovenMin, day),
    );
    m.atMost(
      'chiller',
      [day],
      problem.chiller[day] ?? 0,
      sumOf((_, use) => use.chillPerKg, day, true),
    );
    const room0 = kinds.reduce((sum, _, k) => sum + frozenOf(k).reduce((kg, l) => kg + l.kg, 0), 0);
    // kilograms lying there at the end of the day
    const room = m.column({ upper: freezer.kg });
    m.equal('freezer', [day], roomBefore === undefined ? room0 : 0, [
      [room, 1],
      ...(roomBefore === undefined ? [] : [[roomBefore, -1] as Term]),
      ...c.freeze.filter((z) => z.day === day).map((z): Term => [z.column, -1]),
      ...c.thaw.filter((w) => w.day === day).map((w): Term => [w.column, 1]),
      ...c.freezeProduct.filter((g) => Math.max(0, g.made) === day).map((g): Term => [g.column, -1]),
      ...c.thawProduct.filter((h) => h.day === day).map((h): Term => [h.column, 1]),
    ]);
    roomBefore = room;
    const wanted = problem.staff.plates[day] ?? 0;
    const missing = m.column({ cost: problem.staff.missingPrice });
    m.atLeast('staff', [day], wanted, [
      ...sumOf((_, use) => (use.staff ? use.platesPerKg : 0), day, true),
      [missing, 1],
    ]);
  }
  return {
    problem,
    linear: m.build(),
    columns: c,
    kinds,
    classes,
    frozen: kinds.map((_, k) => frozenOf(k)),
    uses,
  };
}

/** Whether a use takes what another one makes. */
const isMadeOf = (use: PlannedUse, product: string): boolean =>
  use.base.products.includes(product) || use.parts.some((p) => p.products.includes(product));
