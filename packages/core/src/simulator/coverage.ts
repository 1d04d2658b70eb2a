/** How often the expectation holds what it says, on simulated kitchens: a row for each way a kitchen differs from the one it was tuned on. */
import { beforeClosing, unitsSeen } from '../breakdown/expectPieces.ts';
import type { PlanPiece, PlanStage } from '../breakdown/plan.ts';
import { batchVariance, believeShare } from '../breakdown/shareBelief.ts';
import { expectStage } from '../breakdown/stageState.ts';
import { believeYield } from '../pots/yieldBelief.ts';
import { Z80 } from '../yields/predictNext.ts';
import { seededRandom } from './random.ts';

export interface CoverageRow {
  readonly name: string;
  /** Of how many, and how many of them lay in the interval that says eight of ten. */
  readonly of: number;
  readonly inside: number;
}

const START_MG = 2_000_000;
const logit = (p: number): number => Math.log(p / (1 - p));
const expit = (x: number): number => 1 / (1 + Math.exp(-x));

interface ShareCase {
  readonly name: string;
  readonly records: number;
  readonly of: number;
  readonly next: number;
  /** How many records of a new supplier there are beside; the others are the old one's. */
  readonly shifted?: number;
  /** How far the new supplier's animals lie from the old one's: 15 % up or down by turns, or drawn for each with an sd of a tenth. */
  readonly shift?: 'always 15 %' | 'a tenth or so';
  /** The house's true spread against the handbook's. */
  readonly spread?: number;
  /** Of whom one is learning: by how much his share lies off the mean at an earlier breakdown. */
  readonly off?: (breakdown: number) => number;
}

const one = { of: 1, next: 1 };
/** A learner leaves an eighth of it behind at first, and two thirds less of that after ten. */
const learning = (breakdown: number): number => -0.12 * Math.exp(-breakdown / 10);

export const shareCases: readonly ShareCase[] = [
  { name: 'no records, one animal', records: 0, ...one },
  { name: '3 records, one animal', records: 3, ...one },
  { name: '10 records, one animal', records: 10, ...one },
  { name: '30 records, one animal', records: 30, ...one },
  { name: '10 batches of six, then one animal', records: 10, of: 6, next: 1 },
  { name: '30 batches of six, then one animal', records: 30, of: 6, next: 1 },
  { name: '30 batches of six, then six', records: 30, of: 6, next: 6 },
  { name: '30 records, then a batch of six', records: 30, of: 1, next: 6 },
  { name: '10 records, spread half the handbook’s', records: 10, ...one, spread: 0.5 },
  { name: '10 records, spread double the handbook’s', records: 10, ...one, spread: 2 },
  { name: '30 records, spread half the handbook’s', records: 30, ...one, spread: 0.5 },
  { name: '30 records, spread double the handbook’s', records: 30, ...one, spread: 2 },
  { name: 'a supplier nobody has seen, a tenth or so off', records: 30, ...one, shifted: 0, shift: 'a tenth or so' },
  { name: '3 records of a new supplier, a tenth or so off', records: 30, ...one, shifted: 3, shift: 'a tenth or so' },
  { name: '3 records of a new supplier, 15 % off', records: 30, ...one, shifted: 3, shift: 'always 15 %' },
  { name: '10 records of a new supplier, 15 % off', records: 30, ...one, shifted: 10, shift: 'always 15 %' },
  { name: 'a learner after 5', records: 5, ...one, off: learning },
  { name: 'a learner after 10', records: 10, ...one, off: learning },
  { name: 'a learner after 20', records: 20, ...one, off: learning },
];

/** A piece's share: each kitchen with a mean of its own, its records, and the next animal or batch. */
export function coverageOfShares(seed: string, row: ShareCase, kitchens: number): CoverageRow {
  const random = seededRandom(`${seed}/${row.name}`);
  let inside = 0;
  for (let k = 0; k < kitchens; k += 1) {
    const mean = 0.05 + 0.5 * random.next();
    const sd = mean * (0.06 + 0.12 * random.next());
    const spread = sd / (mean * (1 - mean));
    const own = logit(mean) + 0.5 * spread * random.normal();
    const draw = (at: number, animals: number): number =>
      expit(at + (row.spread ?? 1) * spread * Math.sqrt(batchVariance(animals)) * random.normal());
    const off = (breakdown: number): number => logit(expit(own) * (1 + (row.off?.(breakdown) ?? 0)));
    const old = Array.from({ length: row.records }, (_, i) => ({
      share: draw(off(row.records - 1 - i), row.of),
      animals: row.of,
      otherSupplier: row.shifted !== undefined,
    }));
    const shift = row.shift === 'always 15 %' ? (k % 2 === 0 ? 0.15 : -0.15) : 0.1 * random.normal();
    const now = row.shifted === undefined ? off(row.records) : logit(expit(own) * (1 + shift));
    const fresh = Array.from({ length: row.shifted ?? 0 }, () => ({
      share: draw(now, row.of),
      animals: row.of,
      otherSupplier: false,
    }));
    const belief = believeShare({ mean, sd }, [...fresh, ...old]);
    const half = Z80 * belief.sd * Math.sqrt(batchVariance(row.next));
    if (Math.abs(draw(now, row.next) - belief.mean) <= half) inside += 1;
  }
  return { name: row.name, of: kitchens, inside };
}

export const stageCases: readonly number[] = [0, 3, 10, 30];

/** What is still to come of a stage while its pieces come off: five pieces that add up to the animal, their spreads the handbook's. */
export function coverageOfStages(seed: string, records: number, kitchens: number): CoverageRow {
  const name = `as the pieces of a stage come off, ${records} records`;
  const random = seededRandom(`${seed}/${name}`);
  let [of, inside] = [0, 0];
  for (let k = 0; k < kitchens; k += 1) {
    const sizes = Array.from({ length: 5 }, () => 0.3 + random.next());
    const all = sizes.reduce((a, b) => a + b, 0);
    const drip = { mean: 0.02, sd: 0.004 };
    const shares = sizes.map((x) => {
      const mean = (0.98 * x) / all;
      return { mean, sd: mean * (0.06 + 0.1 * random.next()) };
    });
    // spreads before the parts are made to add up, such that afterwards they are the handbook's
    const open = beforeClosing([...shares, drip].map((s) => s.sd ** 2));
    const sum = open.reduce((a, b) => a + b, 0);
    const close = (parts: readonly number[], total: number): number[] => {
      const surplus = parts.reduce((a, b) => a + b, 0) - total;
      return parts.map((p, i) => p - ((open[i] ?? 0) / sum) * surplus);
    };
    const house = close(
      [...shares, drip].map((s) => s.mean + 0.5 * s.sd * random.normal()),
      1,
    );
    const draw = (): number[] =>
      close(
        house.map((m, i) => m + Math.sqrt(open[i] ?? 0) * random.normal()),
        1,
      );
    const history = Array.from({ length: records }, draw);
    const stage: PlanStage = {
      id: 's',
      name: 's',
      minutes: { low: 1, typical: 1, high: 1 },
      steps: [],
      pieces: shares.map((s, i) => pieceOf(String(i), 1, s.mean, s.sd)),
      drip: { ...drip, provenance: 'estimate', source: 'simulated' },
    };
    const beliefs = new Map(
      shares.map((s, i) => [
        String(i),
        believeShare(
          s,
          history.map((h) => h[i] ?? 0),
        ),
      ]),
    );
    const taken: { id: string; pieceId: string; massMg: number; replaces: null; count: number }[] = [];
    for (const [i, share] of draw().slice(0, -1).entries()) {
      const massMg = Math.round(share * START_MG);
      const e = expectStage(stage, START_MG, taken, beliefs)[i];
      if (e !== undefined && i > 0) {
        of += 1;
        if (massMg >= e.low80Mg && massMg <= e.high80Mg) inside += 1;
      }
      taken.push({ id: String(i), pieceId: String(i), massMg, replaces: null, count: 1 });
    }
  }
  return { name, of, inside };
}

interface PotCase {
  readonly name: string;
  readonly batches: number;
  /** How much a batch's yield moves from one to the next: always the same way, or by chance. */
  readonly drift?: number;
  readonly wander?: number;
  readonly spread?: number;
}

export const potCases: readonly PotCase[] = [
  { name: 'a pot, no batches', batches: 0 },
  { name: 'a pot after 3 batches', batches: 3 },
  { name: 'a pot after 10 batches', batches: 10 },
  { name: 'a pot after 30 batches', batches: 30 },
  { name: 'a pot after 10, spread half the handbook’s', batches: 10, spread: 0.5 },
  { name: 'a pot after 10, spread double the handbook’s', batches: 10, spread: 2 },
  { name: 'a pot after 20, drifting 1 % a batch', batches: 20, drift: 0.01 },
  { name: 'a pot after 30, drifting 1 % a batch', batches: 30, drift: 0.01 },
  { name: 'a pot after 30, wandering 2 % a batch', batches: 30, wander: 0.02 },
];

/** A recipe's yield: each house with its own, half of the handbook's variance apart, and its batches. */
export function coverageOfPots(seed: string, row: PotCase, kitchens: number): CoverageRow {
  const random = seededRandom(`${seed}/${row.name}`);
  let inside = 0;
  for (let k = 0; k < kitchens; k += 1) {
    const mean = 0.3 + 2 * random.next();
    const sd = 0.05 + 0.1 * random.next();
    const reach = 1.644_854 * sd;
    const within = (row.spread ?? 1) * Math.SQRT1_2 * sd;
    let at = Math.log(mean) + Math.SQRT1_2 * sd * random.normal();
    const way = k % 2 === 0 ? 1 : -1;
    const ratios: number[] = [];
    for (let i = 0; i <= row.batches; i += 1) {
      ratios.unshift(Math.exp(at + within * random.normal()));
      at += way * (row.drift ?? 0) + (row.wander ?? 0) * random.normal();
    }
    const [next = 0, ...earlier] = ratios;
    const belief = believeYield({ low: mean * Math.exp(-reach), mean, high: mean * Math.exp(reach) }, earlier);
    if (next >= belief.low && next <= belief.high) inside += 1;
  }
  return { name: row.name, of: kitchens, inside };
}

interface UnitCase {
  readonly count: number;
  readonly animals: number;
  /** How unlike the units are. */
  readonly unlike: number;
}

export const unitCases: readonly UnitCase[] = [
  [2, 1],
  [4, 1],
  [8, 1],
  [2, 4],
  [2, 8],
].flatMap(([count = 1, animals = 1]) => [0.04, 0.08, 0.12, 0.15].map((unlike) => ({ count, animals, unlike })));

const pieceOf = (id: string, count: number, mean: number, sd: number): PlanPiece => ({
  id,
  name: id,
  count,
  category: 'white-fish-portion',
  share: { mean, sd, provenance: 'estimate', source: 'simulated' },
  destination: 'portion',
  alternatives: [],
  refused: [],
  main: false,
  edible: true,
});

/** The next unit of a piece, one after the other, after ten earlier breakdowns whose units were as unlike. */
export function coverageOfUnits(seed: string, { count, animals, unlike }: UnitCase, kitchens: number): CoverageRow {
  const name = `next unit of ${count} an animal, ${animals} ${animals === 1 ? 'animal' : 'animals'}, ${unlike * 100} % unlike`;
  const random = seededRandom(`${seed}/${name}`);
  let [of, inside] = [0, 0];
  for (let k = 0; k < kitchens; k += 1) {
    const mean = 0.2 + 0.3 * random.next();
    const sd = mean * (0.05 + 0.07 * random.next());
    const stage: PlanStage = {
      id: 's',
      name: 's',
      minutes: { low: 1, typical: 1, high: 1 },
      steps: [],
      pieces: [pieceOf('units', count, mean, sd), pieceOf('rest', 1, 0.98 - mean, sd)],
      drip: { mean: 0.02, sd: 0.004, provenance: 'estimate', source: 'simulated' },
    };
    const start = START_MG * animals;
    const draw = (): number[] => {
      const total = (mean + sd * Math.sqrt(batchVariance(animals)) * random.normal()) * start;
      const parts = Array.from({ length: count * animals }, () => Math.max(0.2, 1 + unlike * random.normal()));
      const all = parts.reduce((a, b) => a + b, 0);
      return parts.map((p) => (p / all) * total);
    };
    const earlier = Array.from({ length: 10 }, () => unitsSeen(draw()));
    const units = {
      squares: earlier.reduce((a, s) => a + s.squares, 0),
      df: earlier.reduce((a, s) => a + s.df, 0),
    };
    const beliefs = new Map([
      ['units', { mean, sd, records: 30, units }],
      ['rest', { mean: 0.98 - mean, sd, records: 30, units: { squares: 0, df: 0 } }],
    ]);
    const taken: { id: string; pieceId: string; massMg: number; replaces: null; count: number }[] = [];
    for (const [i, massMg] of draw().entries()) {
      const next = expectStage(stage, start, taken, beliefs, animals)[0];
      of += 1;
      if (next !== undefined && massMg >= next.low80Mg && massMg <= next.high80Mg) inside += 1;
      taken.push({ id: String(i), pieceId: 'units', massMg, replaces: null, count: 1 });
    }
  }
  return { name, of, inside };
}
