import { tQuantile, Z80 } from '../yields/predictNext.ts';
import type { ShareBelief } from './shareBelief.ts';

export interface TakenMass {
  readonly massMg: number;
  /** How many units were in this weighing. */
  readonly count: number;
}

export interface PieceState {
  readonly pieceId: string;
  readonly belief: ShareBelief;
  /** How many units the piece comes off in, all animals together. */
  readonly count: number;
  readonly taken: readonly TakenMass[];
  /** Comes together from many small weighings: how many there will be nobody knows. */
  readonly accumulates: boolean;
  /** How unlike two units of it are, relative to their mass; left out, as paired fillets usually are. */
  readonly unitSpread?: number;
}

export interface PieceExpectation {
  readonly pieceId: string;
  /** What the next unit of this piece should weigh: median, 80 % and 95 % interval. Zero when all units are weighed. */
  readonly nextMg: number;
  readonly low80Mg: number;
  readonly high80Mg: number;
  readonly low95Mg: number;
  readonly high95Mg: number;
  /** What the whole piece should still come to, and its 80 % interval. */
  readonly remainingMg: number;
  readonly remainingLow80Mg: number;
  readonly remainingHigh80Mg: number;
  readonly remainingLow95Mg: number;
  readonly remainingHigh95Mg: number;
  readonly openCount: number;
  readonly records: number;
}

const sum = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0);
const Z95 = 1.959963984540054;
/** How unlike two units of one animal's piece are, relative to their mass, and two of several animals'. This project's choice, in line with paired fillets and legs. */
const ONE_ANIMAL = 0.036;
const SEVERAL_ANIMALS = 0.08;
/** What is taken where nobody worked out it: between the two, as paired fillets. */
const PAIRED = 0.04;
/** What that choice is worth in pairs seen. */
const SPREAD_PAIRS = 1;

/** Units that were weighed one by one: squares of their distance from their own mean, relative to it, and how many are free of it. */
export interface UnitsSeen {
  readonly squares: number;
  readonly df: number;
}
export const noUnits: UnitsSeen = { squares: 0, df: 0 };

/** Squares and freedom of units of one piece of one breakdown. @example 95 g and 105 g -> 0.005 and 1 */
export function unitsSeen(masses: readonly number[]): UnitsSeen {
  const n = masses.length;
  const mean = sum(masses) / Math.max(1, n);
  return n < 2 || mean <= 0 ? noUnits : { squares: sum(masses.map((m) => (m / mean - 1) ** 2)), df: n - 1 };
}

/**
 * How unlike the units of a piece are, from what this house and this breakdown have shown of it.
 *
 * Source  conjugate update of a variance, as in believeShare; the usual one first, then what is seen outweighs it.
 */
export function unitSpread(animals: number, seen: readonly UnitsSeen[]): number {
  const usual = (animals > 1 ? SEVERAL_ANIMALS : ONE_ANIMAL) ** 2;
  const df = sum(seen.map((s) => s.df));
  const worth = SPREAD_PAIRS + df;
  const spread = Math.sqrt((SPREAD_PAIRS * usual + sum(seen.map((s) => s.squares))) / worth);
  // a spread that few pairs showed is less sure than it looks: Student's t asks for 0.66 a pair more to hold eight of ten, and unlike
  // pairs are skewed; what holds in coverage.ts
  return spread * (1 + 1 / worth);
}

/** What nineteen of twenty asks for in sds that hold eight of ten: more where few records know the spread. */
const nineteenOf = (records: number): number =>
  records === 0 ? Z95 : (tQuantile(Math.max(5, records), Z95) / tQuantile(Math.max(5, records), Z80)) * Z80;

/** A quantile of the lognormal with this mean and sd: masses are never negative, and a rare big roe is no surprise. */
const quantile = (mean: number, sd: number, z: number): number => {
  if (mean <= 0) return 0;
  const s2 = Math.log(1 + (sd / mean) ** 2);
  return mean * Math.exp(z * Math.sqrt(s2) - s2 / 2);
};

const ROUNDS = 24;
/** How a surprise is shared out is worked out from spreads that records only estimate: as much wider holds eight of ten in coverage.ts. */
const SPLIT_DOUBT = 1.12;

/**
 * The variances of independent parts which, conditioned on their sum, have these variances. Records are shares of animals that
 * were already whole, so their spread already carries that they sum to one; taking it as it is would count that twice.
 *
 * Solves v (1 - v / V) = s, V the sum of all v, by repeated substitution. Where one s exceeds all others together no such v exists;
 * the rounds then stop at a large one, which only says that this piece takes what the others leave.
 */
export function beforeClosing(closed: readonly number[]): number[] {
  let open = [...closed];
  for (let i = 0; i < ROUNDS; i += 1) {
    const total = sum(open);
    if (total <= 0) return open;
    open = open.map((v, j) => (closed[j] ?? 0) + (v * v) / total);
  }
  return open;
}

/**
 * What each piece still to come should weigh, given what this animal has already shown.
 *
 * A piece's total is believed with a mean and an sd. Units already weighed say what the total is (units of one animal are alike
 * within its unitSpread). Shares of one stage sum to one, so a heavy head leaves less for the fillets: what is still to come is taken
 * as independent normals conditioned on their sum, each giving and taking the surprise in proportion to its variance. The drip is
 * one more piece that is never weighed. Intervals are of the lognormal with the mean and sd this gives.
 *
 * Shapes  pieces: as in the plan. drip: its belief. Result: one entry per piece, same order.
 * Units   milligrams.
 * Keeps   expected remainders plus expected drip equal start minus weighed, unless that would make one negative (then 0).
 * Source  normal-normal updating and conditioning of a multivariate normal on a linear constraint, any multivariate statistics
 *         text; from memory. Checked against Monte Carlo conditioning in expectation.test.ts.
 */
export function expectPieces(
  startMg: number,
  pieces: readonly PieceState[],
  drip: { readonly mean: number; readonly sd: number },
): PieceExpectation[] {
  const start = Math.max(startMg, 1);
  const variances = beforeClosing([...pieces.map((p) => p.belief.sd ** 2), drip.sd ** 2]);
  const dripVariance = variances.at(-1) ?? 0;
  const states = pieces.map((piece, i) => {
    const count = Math.max(1, piece.count);
    const done = sum(piece.taken.map((t) => t.count));
    const open = piece.accumulates ? 1 : Math.max(0, count - done);
    const taken = sum(piece.taken.map((t) => t.massMg)) / start;
    const prior = { mean: piece.belief.mean, variance: variances[i] ?? 0 };
    if (open === 0) return { piece, open, taken, mean: 0, variance: 0 };
    if (piece.accumulates || done === 0)
      return { piece, open, taken, mean: Math.max(0, prior.mean - taken), variance: prior.variance };
    // what the units weighed so far say of the total, and how surely
    const shown = (taken * count) / done;
    const noise = (shown * (piece.unitSpread ?? PAIRED)) ** 2 * (1 / done - 1 / count);
    const weight = prior.variance + noise > 0 ? prior.variance / (prior.variance + noise) : 0;
    const total = prior.mean + weight * (shown - prior.mean);
    return { piece, open, taken, mean: Math.max(0, total - taken), variance: prior.variance * (1 - weight) };
  });
  const weighed = states.some((s) => s.taken > 0);
  const left = 1 - sum(states.map((s) => s.taken));
  const openMean = sum(states.map((s) => s.mean)) + drip.mean;
  const openVariance = sum(states.map((s) => s.variance)) + dripVariance;
  return states.map(({ piece, open, mean, variance }) => {
    const gain = openVariance > 0 ? variance / openVariance : 0;
    const share = open === 0 ? 0 : Math.max(0, mean + gain * (left - openMean));
    const split = weighed && piece.belief.records > 0 ? SPLIT_DOUBT : 1;
    const remainingVariance = Math.max(0, variance * (1 - gain)) * split;
    const unit = open === 0 ? 0 : share / open;
    const unitSd =
      open === 0
        ? 0
        : Math.sqrt(remainingVariance / open ** 2 + (unit * (piece.unitSpread ?? PAIRED)) ** 2 * (1 - 1 / open));
    const z95 = nineteenOf(piece.belief.records);
    const next = (z: number): number => Math.round(quantile(unit, unitSd, z) * start);
    const rest = (z: number): number => Math.round(quantile(share, Math.sqrt(remainingVariance), z) * start);
    return {
      pieceId: piece.pieceId,
      nextMg: Math.round(unit * start),
      low80Mg: next(-Z80),
      high80Mg: next(Z80),
      low95Mg: next(-z95),
      high95Mg: next(z95),
      remainingMg: Math.round(share * start),
      remainingLow80Mg: rest(-Z80),
      remainingHigh80Mg: rest(Z80),
      remainingLow95Mg: rest(-z95),
      remainingHigh95Mg: rest(z95),
      openCount: open,
      records: piece.belief.records,
    };
  });
}
