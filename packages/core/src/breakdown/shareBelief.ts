/** What we believe about a piece's share of the stage's start for the next animal: a predictive mean and sd, 0..1. */
import { mustBeFigures } from '../refusal.ts';
export interface ShareBelief {
  readonly mean: number;
  readonly sd: number;
  /** The house's own records behind it; 0 means handbook alone. */
  readonly records: number;
}

/** How many own records the handbook's mean and its spread are each worth. This project's choice. */
const PRIOR_RECORDS = 4;
const PRIOR_SPREAD_RECORDS = 8;

const logit = (p: number): number => Math.log(p / (1 - p));
const expit = (x: number): number => 1 / (1 + Math.exp(-x));
const clampShare = (p: number): number => Math.min(0.999, Math.max(0.0005, p));

const median = (sorted: readonly number[]): number => {
  const mid = sorted.length >> 1;
  const upper = sorted[mid] ?? 0;
  return sorted.length % 2 === 1 ? upper : ((sorted[mid - 1] ?? 0) + upper) / 2;
};

/** Pulls records beyond three robust sds in to that fence, so that one mis-weighed fish does not move the house. */
export const winsorise = (values: readonly number[], floorSd: number): number[] => {
  const centre = median([...values].sort((a, b) => a - b));
  const mad = median(values.map((v) => Math.abs(v - centre)).sort((a, b) => a - b));
  const fence = 3 * Math.max(1.4826 * mad, floorSd / 2);
  return values.map((v) => Math.min(centre + fence, Math.max(centre - fence, v)));
};

export interface NormalBelief {
  readonly mean: number;
  /** How many records the mean is worth. */
  readonly meanRecords: number;
  /** How many records the spread is worth. */
  readonly spreadRecords: number;
  /** Sum of squares behind the spread. */
  readonly sumSquares: number;
}

/** What a record counts: for the spread as so many records, for the mean by how sure it is against one animal's. */
export interface RecordWeight {
  readonly counts: number;
  readonly precision: number;
}
const whole = (): RecordWeight => ({ counts: 1, precision: 1 });

/**
 * Joins a belief about a normal mean and variance with records of it: the conjugate normal-inverse-gamma update.
 *
 * Shapes  records: may be empty, then the belief is the prior's. counts: what the record at an index counts; left out, one each.
 * Source  e.g. Hoff, A First Course in Bayesian Statistical Methods, 5.3; Gelman et al., Bayesian Data Analysis, ch. 3; from memory.
 */
export function updateNormal(
  prior: NormalBelief,
  records: readonly number[],
  counts: (index: number) => RecordWeight = whole,
): NormalBelief {
  const weights = records.map((_, i) => counts(i));
  const n = weights.reduce((sum, w) => sum + w.precision, 0);
  const mean = n === 0 ? prior.mean : records.reduce((a, v, i) => a + v * (weights[i]?.precision ?? 0), 0) / n;
  const squares = records.reduce((a, v, i) => a + (weights[i]?.precision ?? 0) * (v - mean) ** 2, 0);
  const meanRecords = prior.meanRecords + n;
  return {
    mean: (prior.meanRecords * prior.mean + n * mean) / meanRecords,
    meanRecords,
    spreadRecords: prior.spreadRecords + weights.reduce((sum, w) => sum + w.counts, 0),
    sumSquares: prior.sumSquares + squares + ((prior.meanRecords * n) / meanRecords) * (mean - prior.mean) ** 2,
  };
}

/** One earlier breakdown: the share a piece came to, of how many animals together, and whether they came from another supplier. */
export interface ShareRecord {
  readonly share: number;
  readonly animals: number;
  readonly otherSupplier: boolean;
}

/** How much alike the animals of one lot are in their shares: the part of the spread a lot has in common. This project's choice. */
export const LOT_IN_COMMON = 0.25;
/** The spread of the mean of a batch against one animal's, as a share of the variance. */
export const batchVariance = (animals: number): number => (1 - LOT_IN_COMMON) / Math.max(1, animals) + LOT_IN_COMMON;

/** After so many newer records an older one counts half: supply and hands change. */
const HALF_LIFE = 20;
/** What another supplier's animal tells of this one's. */
const OTHER_SUPPLIER = 0.25;

/**
 * Joins the handbook's share with the house's own records into a prediction for the next animal.
 *
 * Conjugate normal-inverse-gamma update on the logit of the share; the prediction's sd is that of the Student t it gives,
 * brought back to the share scale by the delta method. Records are winsorised at three robust sds first.
 *
 * A batch's share is the mean of its animals': it says more of the mean, and its spread is less than one animal's. Older records count
 * less, and so do another supplier's.
 *
 * Shapes  records: newest first, may be empty; a bare share is one animal's of this supplier.
 * Errors  `not_a_figure` for a prior that is none; a record that is no number is left out.
 * Keeps   with no records, the prior's mean; with many, the records' mean and spread. Never NaN: shares are held to 0.0005..0.999.
 * Source  conjugate analysis of normal data, any Bayesian text (e.g. Gelman et al., Bayesian Data Analysis, ch. 3); from memory.
 */
export function believeShare(
  prior: { readonly mean: number; readonly sd: number },
  records: readonly (number | ShareRecord)[],
): ShareBelief {
  mustBeFigures({ mean: prior.mean, sd: prior.sd });
  const p0 = clampShare(prior.mean);
  const sd0 = Math.max(prior.sd, 0.0005) / (p0 * (1 - p0));
  const known = records
    .map((r) => (typeof r === 'number' ? { share: r, animals: 1, otherSupplier: false } : r))
    .filter((r) => Number.isFinite(r.share));
  const x = winsorise(
    known.map((r) => logit(clampShare(r.share))),
    sd0,
  );
  const counts = (i: number): RecordWeight => {
    const record = known[i];
    const recent = 0.5 ** (i / HALF_LIFE) * (record?.otherSupplier === true ? OTHER_SUPPLIER : 1);
    return { counts: recent, precision: recent / batchVariance(record?.animals ?? 1) };
  };
  const posterior = updateNormal(
    {
      mean: logit(p0),
      meanRecords: PRIOR_RECORDS,
      spreadRecords: PRIOR_SPREAD_RECORDS,
      sumSquares: (PRIOR_SPREAD_RECORDS - 2) * sd0 ** 2,
    },
    x,
    counts,
  );
  const n = x.length;
  const mu = posterior.mean;
  const variance = (posterior.sumSquares / (posterior.spreadRecords - 2)) * (1 + 1 / posterior.meanRecords);
  const share = expit(mu);
  return { mean: share, sd: Math.sqrt(variance) * share * (1 - share), records: n };
}
