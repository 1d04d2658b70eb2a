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

/**
 * Joins a belief about a normal mean and variance with records of it: the conjugate normal-inverse-gamma update.
 *
 * Shapes  records: may be empty, then the belief is the prior's.
 * Source  e.g. Hoff, A First Course in Bayesian Statistical Methods, 5.3; Gelman et al., Bayesian Data Analysis, ch. 3; from memory.
 */
export function updateNormal(prior: NormalBelief, records: readonly number[]): NormalBelief {
  const n = records.length;
  const mean = n === 0 ? prior.mean : records.reduce((a, b) => a + b, 0) / n;
  const squares = records.reduce((a, v) => a + (v - mean) ** 2, 0);
  const meanRecords = prior.meanRecords + n;
  return {
    mean: (prior.meanRecords * prior.mean + n * mean) / meanRecords,
    meanRecords,
    spreadRecords: prior.spreadRecords + n,
    sumSquares: prior.sumSquares + squares + ((prior.meanRecords * n) / meanRecords) * (mean - prior.mean) ** 2,
  };
}

/**
 * Joins the handbook's share with the house's own records into a prediction for the next animal.
 *
 * Conjugate normal-inverse-gamma update on the logit of the share; the prediction's sd is that of the Student t it gives,
 * brought back to the share scale by the delta method. Records are winsorised at three robust sds first.
 *
 * Shapes  records: shares 0..1, any order, may be empty.
 * Errors  `not_a_figure` for a prior that is none; a record that is no number is left out.
 * Keeps   with no records, the prior's mean; with many, the records' mean and spread. Never NaN: shares are held to 0.0005..0.999.
 * Source  conjugate analysis of normal data, any Bayesian text (e.g. Gelman et al., Bayesian Data Analysis, ch. 3); from memory.
 */
export function believeShare(
  prior: { readonly mean: number; readonly sd: number },
  records: readonly number[],
): ShareBelief {
  mustBeFigures({ mean: prior.mean, sd: prior.sd });
  const p0 = clampShare(prior.mean);
  const sd0 = Math.max(prior.sd, 0.0005) / (p0 * (1 - p0));
  const x = winsorise(
    records.filter(Number.isFinite).map((r) => logit(clampShare(r))),
    sd0,
  );
  const posterior = updateNormal(
    {
      mean: logit(p0),
      meanRecords: PRIOR_RECORDS,
      spreadRecords: PRIOR_SPREAD_RECORDS,
      sumSquares: (PRIOR_SPREAD_RECORDS - 2) * sd0 ** 2,
    },
    x,
  );
  const n = x.length;
  const mu = posterior.mean;
  const variance = (posterior.sumSquares / (posterior.spreadRecords - 2)) * (1 + 1 / posterior.meanRecords);
  const share = expit(mu);
  return { mean: share, sd: Math.sqrt(variance) * share * (1 - share), records: n };
}
