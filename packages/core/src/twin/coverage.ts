/** How often the expectation holds what it says, on simulated kitchens: a row for each way a kitchen differs from the one it was tuned on. */
import { unitsSeen } from '../breakdown/expectPieces.ts';
import type { PlanPiece, PlanStage } from '../breakdown/plan.ts';
import { batchVariance, believeShare } from '../breakdown/shareBelief.ts';
import { expectStage } from '../breakdown/stageState.ts';
import { seededRandom } from './random.ts';

export interface CoverageRow {
  readonly name: string;
  /** Of how many, and how many of them lay in the interval that says eight of ten. */
  readonly of: number;
  readonly inside: number;
}

const Z80 = 1.2815515655446004;
const START_MG = 2_000_000;
const logit = (p: number): number => Math.log(p / (1 - p));
const expit = (x: number): number => 1 / (1 + Math.exp(-x));

interface ShareCase {
  readonly name: string;
  readonly records: number;
  readonly of: number;
  readonly next: number;
  /** Records of a new supplier whose animals have 15 % more or less of it; the others are the old one's. */
  readonly shifted?: number;
}

export const shareCases: readonly ShareCase[] = [
  { name: 'no records, one animal', records: 0, of: 1, next: 1 },
  { name: '10 records, one animal', records: 10, of: 1, next: 1 },
  { name: '30 records, one animal', records: 30, of: 1, next: 1 },
  { name: '10 batches of six, then one animal', records: 10, of: 6, next: 1 },
  { name: '30 batches of six, then one animal', records: 30, of: 6, next: 1 },
  { name: '30 batches of six, then six', records: 30, of: 6, next: 6 },
  { name: '30 records, then a batch of six', records: 30, of: 1, next: 6 },
  { name: '10 records of a new supplier, 15 % off', records: 30, of: 1, next: 1, shifted: 10 },
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
      expit(at + spread * Math.sqrt(batchVariance(animals)) * random.normal());
    const old = Array.from({ length: row.records }, () => ({
      share: draw(own, row.of),
      animals: row.of,
      otherSupplier: row.shifted !== undefined,
    }));
    const now = row.shifted === undefined ? own : logit(expit(own) * (k % 2 === 0 ? 1.15 : 0.85));
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
