import { predictNext, Z80 } from '../yields/predictNext.ts';
import type { Recipe } from './recipe.ts';

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
/** Half of the handbook's spread is taken to be from house to house, half within one: so its mean is worth one batch. */
const WITHIN_HOUSE = 0.5;
const HANDBOOK_BATCHES = 1;
/** What half of the handbook's spread is worth in batches, a guess. */
const HANDBOOK_SPREAD_BATCHES = 0.3;
/** After so many newer batches an older one counts half: pots, burners and hands drift more than animals do. */
const HALF_LIFE = 2.5;

/**
 * What the next batch of a recipe will give, from the handbook and the house's own batches by the same ways: predictNext on the logarithm
 * of the ratio.
 *
 * Shapes  ratios: output over base of each batch done, newest first; may be empty.
 * Keeps   with none, the handbook's mean and its range narrowed to eight in ten; with many, the house's own.
 */
export function believeYield(
  output: Pick<Recipe['output'], 'low' | 'mean' | 'high'>,
  ratios: readonly number[],
): YieldBelief {
  const range = Math.max(0.01, Math.log(output.high / output.low) / RANGE_Z);
  const known = ratios.filter((r) => Number.isFinite(r) && r > 0);
  const { mean, sd } = predictNext(
    {
      mean: Math.log(output.mean),
      sd: range * Math.sqrt(WITHIN_HOUSE),
      worth: HANDBOOK_BATCHES,
      spreadWorth: HANDBOOK_SPREAD_BATCHES,
      halfLife: HALF_LIFE,
    },
    known.map((ratio) => ({ value: Math.log(ratio), variance: 1, other: false })),
  );
  return {
    low: Math.exp(mean - Z80 * sd),
    mean: Math.exp(mean),
    high: Math.exp(mean + Z80 * sd),
    batches: known.length,
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

/** A recipe with the output this house may expect of it, by the ways chosen. */
export function asMadeHere(
  recipe: Recipe,
  ways: readonly string[],
  batches: readonly { readonly ways: readonly string[]; readonly ratio: number }[],
): Recipe {
  const { low, mean, high } = believeYield(
    recipe.output,
    madeBy(batches, ways).map((b) => b.ratio),
  );
  return { ...recipe, output: { ...recipe.output, low, mean, high } };
}
