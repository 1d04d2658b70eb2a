import { describe, expect, it } from 'vitest';
import { checkPlan } from './checkPlan.ts';
import { decodePlan } from './decode.ts';
import { LinearBuilder } from './linear.ts';
import { planModel } from './planModel.ts';
import type { PlannedUse, PlanProblem, Supply, WeekPlan } from './problem.ts';
import { ruleOfThumb } from './ruleOfThumb.ts';

const stock: PlannedUse = {
  id: 'stock',
  title: 'Stock',
  takes: 'any',
  base: { categories: ['frame'], products: [] },
  refuses: [],
  caps: [],
  minLife: 0,
  parts: [],
  costPerKg: 0.5,
  out: 1.5,
  shelf: 1,
  frozenOk: true,
  vessels: [{ id: 'pot', minKg: 1, maxKg: 4, slots: 2 }],
  handsFixed: 10,
  handsPerKg: 2,
  part: 'am',
  burnerMin: 30,
  ovenMin: 0,
  chillPerKg: 1,
  energy: 0.4,
  staff: false,
  platesPerKg: 0,
  repeatDays: 0,
  maxRunsPerDay: 2,
  buyPrice: 6,
  maxBuyPerDay: 10,
  shortPrice: 9,
  wasteCost: 0.2,
  endValue: 1,
  endCap: 1,
};
const frames: Supply = {
  id: 'L1',
  category: 'frame',
  state: 'raw',
  kg: 3,
  ready: 0,
  lastDay: 1,
  freezable: true,
  frozen: false,
};
const kitchen: PlanProblem = {
  id: 'by hand',
  days: 3,
  slotsPerDay: 3,
  lots: [frames],
  stock: [],
  uses: [stock],
  demand: [
    { use: 'stock', day: 0, qty: 2 },
    { use: 'stock', day: 1, qty: 1 },
    { use: 'stock', day: 2, qty: 1 },
  ],
  staff: { plates: [0, 0, 0], missingPrice: 3 },
  vessels: [{ id: 'pot', count: 1 }],
  hands: { am: [60, 60, 60], pm: [60, 60, 60] },
  burner: [60, 60, 60],
  oven: [0, 0, 0],
  chiller: [10, 10, 10],
  freezer: { kg: 5, perKg: 0.5, perKgDay: 0.1, thawDays: 1 },
  rate: 0.3,
  runPrice: 1,
  disposal: { frame: 0.4 },
  endFresh: { frame: 0.3 },
  endFrozen: { frame: 0.6 },
};
/** Two kilograms of frames to three of stock on the first day: two served, one the day after. */
const plan: WeekPlan = {
  runs: [
    { use: 'stock', day: 0, vessel: 'pot', batches: 1, kg: 2, base: [{ lot: 'L1', kg: 2 }], parts: {}, bought: {} },
  ],
  freezeLots: [],
  freezeProducts: [],
  serve: [
    { product: 'stock', day: 0, qty: 2, made: 0 },
    { product: 'stock', day: 1, qty: 1, made: 0 },
  ],
  buy: [],
};
const rulesOf = (problem: PlanProblem, of: WeekPlan): string[] => checkPlan(problem, of).faults.map((f) => f.rule);

describe('a plan reckoned by hand', () => {
  it('costs a batch, its fire, its minutes, what goes in, what is short and what is thrown away', () => {
    const { faults, money, total } = checkPlan(kitchen, plan);
    expect(faults).toEqual([]);
    // 10 + 2 x 2 minutes at 0.30; 2 kg at 0.50; one litre short at 9.00; a kilogram of frames thrown away at 0.40
    expect(money).toEqual({
      runs: 1,
      energy: 0.4,
      labour: 4.2,
      ingredients: 1,
      partsBought: 0,
      bought: 0,
      short: 9,
      platesMissing: 0,
      disposal: 0.4,
      freezing: 0,
      endValue: 0,
    });
    expect(total).toBeCloseTo(16, 9);
  });

  it('bought instead it is 3 cheaper; frozen, the kilogram is kept for its room', () => {
    const bought = { ...plan, buy: [{ product: 'stock', day: 2, qty: 1 }] };
    expect(checkPlan(kitchen, bought).total).toBeCloseTo(13, 9);
    // 0.50 to put it in on day 1, two nights at 0.10; worth 0.60 at the end and not 0.40 to throw away
    const frozen = { ...bought, freezeLots: [{ lot: 'L1', day: 1, kg: 1 }] };
    expect(checkPlan(kitchen, frozen).total).toBeCloseTo(13 - 0.4 + 0.5 + 0.2 - 0.6, 9);
  });

  it('is refused by the rule it breaks', () => {
    const [run] = plan.runs;
    if (run === undefined) throw new Error('no run');
    const with_ = (change: object): WeekPlan => ({ ...plan, runs: [{ ...run, ...change }] });
    expect(rulesOf({ ...kitchen, uses: [{ ...stock, minLife: 1 }] }, plan)).toEqual([]);
    expect(rulesOf({ ...kitchen, uses: [{ ...stock, minLife: 1 }], lots: [{ ...frames, lastDay: 0 }] }, plan)).toEqual([
      'date',
    ]);
    expect(rulesOf({ ...kitchen, uses: [{ ...stock, refuses: ['frame'] }] }, plan)).toEqual(['base']);
    expect(rulesOf({ ...kitchen, uses: [{ ...stock, takes: 'cooked' }] }, plan)).toEqual(['base']);
    expect(rulesOf({ ...kitchen, uses: [{ ...stock, caps: [{ category: 'frame', maxShare: 0.9 }] }] }, plan)).toEqual([
      'cap',
    ]);
    expect(rulesOf({ ...kitchen, hands: { ...kitchen.hands, am: [13.9, 60, 60] } }, plan)).toEqual(['hands']);
    expect(rulesOf({ ...kitchen, burner: [29, 60, 60] }, plan)).toEqual(['burner']);
    expect(rulesOf({ ...kitchen, chiller: [1.9, 10, 10] }, plan)).toEqual(['chiller']);
    expect(rulesOf(kitchen, with_({ batches: 2 }))).toEqual(['vessel']);
    expect(rulesOf(kitchen, with_({ vessel: 'pan' }))).toContain('vessel');
    expect(rulesOf(kitchen, with_({ base: [{ lot: 'L1', kg: 1.9 }] }))).toEqual(['base']);
    expect(rulesOf({ ...kitchen, pins: [{ use: 'stock', day: 0, max: 0 }] }, plan)).toEqual(['pin']);
    expect(rulesOf({ ...kitchen, pins: [{ use: 'stock', day: 1, min: 1 }] }, plan)).toEqual(['pin']);
    const late = { ...plan, serve: [...plan.serve, { product: 'stock', day: 2, qty: 0.5, made: 0 }] };
    expect(rulesOf(kitchen, late)).toEqual(['date', 'product']);
    const thawed = {
      ...with_({ day: 1, base: [{ lot: 'L1', kg: 2, frozen: true }] }),
      freezeLots: [{ lot: 'L1', day: 1, kg: 2 }],
      serve: [],
    };
    expect(rulesOf(kitchen, thawed)).toEqual(['thaw']);
    expect(
      rulesOf(
        { ...kitchen, freezer: { ...kitchen.freezer, kg: 1 } },
        { ...plan, freezeLots: [{ lot: 'L1', day: 1, kg: 1.02 }] },
      ),
    ).toContain('freezer');
  });
});

describe('the rule of thumb', () => {
  it('cooks what must go while it is wanted, in a pot that holds it, and buys the rest', () => {
    const thumb = ruleOfThumb(kitchen);
    expect(checkPlan(kitchen, thumb).faults).toEqual([]);
    // three litres are wanted while a batch of the first day is good: two kilograms of frames make them
    expect(thumb.runs.map((r) => [r.day, r.kg])).toEqual([
      [0, 2],
      [1, 1],
    ]);
    expect(thumb.buy).toEqual([]);
  });
});

describe('what the model says, taken apart', () => {
  it('comes out of the freezer no sooner than it has thawed, whichever lot went in first', () => {
    const lots: Supply[] = [
      { ...frames, id: 'LATE', kg: 1, ready: 1, lastDay: 2 },
      { ...frames, id: 'SOON', kg: 1, ready: 0, lastDay: 1 },
    ];
    const model = planModel({ ...kitchen, lots });
    const values = new Float64Array(model.linear.cost.length);
    const set = <T extends { readonly column: number }>(
      of: readonly T[],
      fits: (t: T) => boolean,
      kg: number,
    ): void => {
      const found = of.find(fits);
      if (found === undefined) throw new Error('no such column');
      values[found.column] = kg;
    };
    const late = model.classes.findIndex((c) => c.lots[0]?.id === 'LATE');
    const soon = model.classes.findIndex((c) => c.lots[0]?.id === 'SOON');
    set(model.columns.freeze, (z) => z.cls === late && z.day === 1, 1);
    set(model.columns.freeze, (z) => z.cls === soon && z.day === 0, 1);
    // on day 1 only what went in on day 0 has thawed
    set(model.columns.thaw, (w) => w.day === 1 && w.tier === 0, 1);
    set(model.columns.into, (x) => x.day === 1, 1);
    const batch = model.columns.batches.find((b) => b.day === 1);
    values[batch?.count ?? -1] = 1;
    values[batch?.mass ?? -1] = 1;
    const { runs, freezeLots } = decodePlan(model, values);
    expect(freezeLots).toHaveLength(2);
    expect(runs.map((r) => r.base)).toEqual([[{ lot: 'SOON', kg: 1, frozen: true }]]);
  });
});

it('a linear model adds up the terms of one column and leaves out rows of none', () => {
  const m = new LinearBuilder();
  const [a, b] = [m.column({ cost: 2 }), m.column({ upper: 3, whole: true })];
  m.costs(a, 0.5);
  m.atMost('sum', ['x'], 4, [
    [a, 1],
    [b, 2],
    [a, 1],
  ]);
  m.equal('none', [], 0, [
    [a, 1],
    [a, -1],
  ]);
  m.atLeast('least', [1], 1, [[b, 1]]);
  const { cost, upper, whole, rowLower, rowUpper, starts, indices, values, rows } = m.build();
  expect([[...cost], [...upper], [...whole]]).toEqual([
    [2.5, 0],
    [Number.POSITIVE_INFINITY, 3],
    [0, 1],
  ]);
  expect([[...rowLower], [...rowUpper]]).toEqual([
    [Number.NEGATIVE_INFINITY, 1],
    [4, Number.POSITIVE_INFINITY],
  ]);
  expect([[...starts], [...indices], [...values]]).toEqual([
    [0, 2, 3],
    [0, 1, 1],
    [2, 2, 1],
  ]);
  expect(rows.map((r) => r.kind)).toEqual(['sum', 'least']);
});
