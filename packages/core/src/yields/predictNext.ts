import { median, medianAbsoluteDeviation } from 'simple-statistics';

/** One figure that was seen before: a piece's share of an animal or a batch's yield, on the log or logit scale. */
export interface SeenBefore {
  readonly value: number;
  /** Its variance against one unit's: a batch's mean varies less than one animal's. */
  readonly variance: number;
  /** It came from another supplier, or another source that need not be like this one. */
  readonly other: boolean;
}

/** What is thought before anything is seen. */
export interface Handbook {
  readonly mean: number;
  /** The spread of one unit within a house. */
  readonly sd: number;
  /** How many records its mean is worth: how far houses stand apart. */
  readonly worth: number;
  /** How many its spread is worth before any are seen: little, houses differ in it by twice and more. */
  readonly spreadWorth: number;
  /** After how many newer records an older one counts half. */
  readonly halfLife: number;
}

export interface Prediction {
  readonly mean: number;
  /** Such that the mean and 1.2816 times it hold the next unit eight times in ten. */
  readonly sd: number;
  /** This source's own mean and the others', where both are seen, and how many sds of that difference lie between. */
  readonly apart: { readonly own: number; readonly others: number; readonly sure: number } | null;
}

/** After so many records a handbook's spread is worth half of what it was. */
const SPREAD_FADES = 2;
/** What the t quantile is given beside the freedom of the records, for what the handbook says of the spread. */
const SPREAD_FREEDOM = 1.5;
/** How far suppliers stand apart, as a share of the variance of one unit: no number of another's records says more than that. */
const SOURCES_APART = 1;
/** What is added to the variance of a source nothing is known of. */
const UNSEEN_SOURCE = 0.7;

/** Nine of ten lie below it: eight of ten between it and its mirror image. */
export const Z80 = 1.281_551_565_545;
/**
 * Quantile of Student's t that answers to a normal quantile, by the Cornish-Fisher expansion about the normal; within 0.3 % from 5
 * degrees of freedom on, as far out as one in forty.
 *
 * Source  Abramowitz and Stegun, Handbook of Mathematical Functions, 26.7.5.
 * @example 10 degrees, 1.2816 -> 1.372
 */
export function tQuantile(freedom: number, z: number): number {
  const g1 = (z ** 3 + z) / 4;
  const g2 = (5 * z ** 5 + 16 * z ** 3 + 3 * z) / 96;
  const g3 = (3 * z ** 7 + 19 * z ** 5 + 17 * z ** 3 - 15 * z) / 384;
  return z + g1 / freedom + g2 / freedom ** 2 + g3 / freedom ** 3;
}

/**
 * Pulls records beyond three robust sds in to that fence, so that one mis-weighed fish does not move the house.
 *
 * Source  1.4826 times the median absolute deviation estimates the sd of a normal one (NIST/SEMATECH e-Handbook 1.3.5.6).
 */
export function clipAtThreeMads(values: number[], floorSd: number): number[] {
  if (values.length === 0) return [];
  const centre = median(values);
  const fence = 3 * Math.max(1.4826 * medianAbsoluteDeviation(values), floorSd / 2);
  return values.map((v) => Math.min(centre + fence, Math.max(centre - fence, v)));
}

interface Group {
  readonly records: number;
  /** How many units' worth of precision for the mean. */
  readonly precision: number;
  readonly mean: number;
  readonly squares: number;
  /** What the squares are divided by for the variance, and the freedom that variance has. */
  readonly divisor: number;
  readonly freedom: number;
}

/**
 * What the next unit will be, from a handbook and from what was seen.
 *
 * Three sources speak of this one's mean: its own records, those of others, and the handbook. Others' count for no more than sources
 * are alike, however many they are. Where its own contradict what the rest would lead one to think, the rest counts less: the variance
 * between sources is taken as large as the contradiction shows. The spread is that of the records about their own means; the handbook's
 * is worth little once there are some. Older records count less. Outliers are pulled in to three robust sds.
 *
 * Shapes  seen: newest first, may be empty.
 * Keeps   with nothing seen, the handbook's mean and a spread widened for how far houses stand apart; with many of its own, theirs.
 * Source  random effects between groups with a moment estimate of their variance, as in DerSimonian and Laird (1986), and the prediction
 *         interval of a normal sample, mean and t times s times the root of 1 + 1/n; from memory. The constants are this project's,
 *         held by coverage.test.ts on fixed seeds and by `npm run bench -- coverage` on others.
 */
export function predictNext(handbook: Handbook, seen: readonly SeenBefore[]): Prediction {
  const group = (other: boolean): Group => {
    const mine = seen.flatMap((r, i) => (r.other === other ? [{ ...r, counts: 0.5 ** (i / handbook.halfLife) }] : []));
    const values = clipAtThreeMads(
      mine.map((r) => r.value),
      handbook.sd,
    );
    const of = mine.map((r, i) => ({ value: values[i] ?? 0, counts: r.counts, precision: r.counts / r.variance }));
    const counts = of.reduce((a, r) => a + r.counts, 0);
    const squaredCounts = of.reduce((a, r) => a + r.counts ** 2, 0);
    const precision = of.reduce((a, r) => a + r.precision, 0);
    const mean = precision > 0 ? of.reduce((a, r) => a + r.precision * r.value, 0) / precision : 0;
    return {
      records: mine.length,
      precision,
      mean,
      squares: of.reduce((a, r) => a + r.precision * (r.value - mean) ** 2, 0),
      divisor: counts > 0 ? counts - squaredCounts / counts : 0,
      freedom: counts > 0 ? counts ** 2 / squaredCounts - 1 : 0,
    };
  };
  const [own, others] = [group(false), group(true)];
  const freedom = own.freedom + others.freedom;
  const spreadWorth = handbook.spreadWorth / (1 + freedom / SPREAD_FADES);
  const variance =
    (spreadWorth * handbook.sd ** 2 + own.squares + others.squares) / (spreadWorth + own.divisor + others.divisor);

  const fromOthers = others.precision > 0 ? 1 / (1 / others.precision + SOURCES_APART) : 0;
  const worth = handbook.worth + fromOthers;
  const thought = (handbook.worth * handbook.mean + fromOthers * others.mean) / worth;
  const seenAny = own.precision > 0;
  // one record alone may be a slip of the scale
  const contradicts = own.records > 1 ? (own.mean - thought) ** 2 / variance - 1 / own.precision : 0;
  const counts = 1 / Math.max(1 / worth, contradicts);
  const mean = (counts * thought + own.precision * own.mean) / (counts + own.precision);
  const unseen = !seenAny && others.precision > 0 ? UNSEEN_SOURCE : 0;
  const wider = freedom > 0 ? tQuantile(SPREAD_FREEDOM + freedom, Z80) / Z80 : 1;
  const sd = Math.sqrt(variance);
  return {
    mean,
    sd: sd * wider * Math.sqrt(1 + 1 / (counts + own.precision) + unseen),
    apart:
      seenAny && others.precision > 0
        ? {
            own: own.mean,
            others: others.mean,
            sure: Math.abs(own.mean - others.mean) / (sd * Math.sqrt(1 / own.precision + 1 / others.precision)),
          }
        : null,
  };
}
