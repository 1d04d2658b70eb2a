import { updateNormal, winsorise } from '../breakdown/shareBelief.ts';
import type { Use } from './use.ts';

export interface YieldBelief {
  /** Finished mass per base mass. `low` to `high` holds the next batch eight times in ten. */
  readonly low: number;
  readonly mean: number;
  readonly high: number;
  /** The house's own batches behind it; nought means the handbook alone. */
  readonly batches: number;
}

/** The handbook's range is taken to hold nine batches in ten. */
const RANGE_Z = 2 * 1.644_854;
/** How many batches the handbook's mean and its spread are worth: less than for pieces, pots differ more from house to house. */
const PRIOR_MEAN_BATCHES = 2;
const PRIOR_SPREAD_BATCHES = 6;

/**
 * Upper tenth of Student's t, by the Cornish-Fisher expansion about the normal; within 0.3 % from 5 degrees of freedom on.
 * Source  Abramowitz and Stegun, Handbook of Mathematical Functions, 26.7.5.
 */
const tenthOfT = (freedom: number): number => {
  const z = 1.281_551_565_545;
  const g1 = (z ** 3 + z) / 4;
  const g2 = (5 * z ** 5 + 16 * z ** 3 + 3 * z) / 96;
  const g3 = (3 * z ** 7 + 19 * z ** 5 + 17 * z ** 3 - 15 * z) / 384;
  return z + g1 / freedom + g2 / freedom ** 2 + g3 / freedom ** 3;
};

/**
 * What the next batch of a use will give, from the handbook and the house's own batches by the same ways.
 *
 * Shapes  ratios: output over base of each batch done; any order, may be empty.
 * Keeps   with none, the handbook's mean and its range narrowed to eight in ten; with many, the house's own. Batches beyond three
 *         robust sds are pulled in.
 * Source  normal-inverse-gamma update on the logarithm of the ratio, predictive Student t: any Bayesian text (Gelman et al., ch. 3).
 */
export function believeYield(
  output: Pick<Use['output'], 'low' | 'mean' | 'high'>,
  ratios: readonly number[],
): YieldBelief {
  const sd = Math.max(0.01, Math.log(output.high / output.low) / RANGE_Z);
  const x = winsorise(
    ratios.filter((r) => r > 0).map((r) => Math.log(r)),
    sd,
  );
  const { mean, meanRecords, spreadRecords, sumSquares } = updateNormal(
    {
      mean: Math.log(output.mean),
      meanRecords: PRIOR_MEAN_BATCHES,
      spreadRecords: PRIOR_SPREAD_BATCHES,
      // half of the handbook's spread is from house to house, half within one
      sumSquares: (PRIOR_SPREAD_BATCHES * sd ** 2) / 2,
    },
    x,
  );
  const reach = tenthOfT(spreadRecords) * Math.sqrt((sumSquares / spreadRecords) * (1 + 1 / meanRecords));
  return {
    low: Math.exp(mean - reach),
    mean: Math.exp(mean),
    high: Math.exp(mean + reach),
    batches: x.length,
  };
}

/** Batches made by just these ways. */
export const madeBy = <T extends { readonly ways: readonly string[] }>(
  batches: readonly T[],
  ways: readonly string[],
): readonly T[] => {
  const key = (w: readonly string[]): string => [...w].sort().join(' ');
  return batches.filter((b) => key(b.ways) === key(ways));
};

/** A use with the output this house may expect of it, by the ways chosen. */
export function asMadeHere(
  use: Use,
  ways: readonly string[],
  batches: readonly { readonly ways: readonly string[]; readonly ratio: number }[],
): Use {
  const { low, mean, high } = believeYield(
    use.output,
    madeBy(batches, ways).map((b) => b.ratio),
  );
  return { ...use, output: { ...use.output, low, mean, high } };
}
