/** Where the mass of a batch went: into what it is for, beside it, strained out, poured away, or into the air. */
import type { Recipe } from './recipe.ts';

export interface BatchIn {
  readonly baseMg: number;
  readonly ingredients: readonly { readonly id: string; readonly massMg: number }[];
}

export interface BatchOut {
  readonly outputMg: number;
  /** By-products that were weighed, kept or thrown away. */
  readonly besideMg: number;
  /** Bones and solids strained out; null: nobody weighed them. */
  readonly spentMg: number | null;
}

export interface BatchBalance {
  readonly inMg: number;
  /** Solids strained out: as weighed, else as they went in, as far as that is missing. */
  readonly strainedMg: number;
  /** Liquid it was cooked in and that is no part of it. */
  readonly pouredMg: number;
  /** What is left to have gone into the air; below zero: more came out than went in. */
  readonly evaporatedMg: number;
}

/**
 * Splits what is missing from a batch. What was strained out is first, then what was poured away; only the rest boiled off, and only that
 * is paid for as steam.
 *
 * Keeps   output + beside + strained + poured + evaporated = in.
 * @example 3.6 kg of crab in 28.8 l of water with 0.7 kg of salt, 3.4 kg of boiled crab: 29.5 kg poured away, 0.2 kg into the air
 */
export function batchBalance(recipe: Recipe, went: BatchIn, came: BatchOut): BatchBalance {
  const of = (becomes: 'strained' | 'poured'): number =>
    went.ingredients.reduce(
      (sum, i) => sum + (recipe.ingredients.find((u) => u.id === i.id)?.becomes === becomes ? i.massMg : 0),
      0,
    );
  const inMg = went.baseMg + went.ingredients.reduce((sum, i) => sum + i.massMg, 0);
  const missingMg = inMg - came.outputMg - came.besideMg;
  const solidsMg = of('strained') + (recipe.baseStrained === true ? went.baseMg : 0);
  const strainedMg = came.spentMg ?? Math.max(0, Math.min(missingMg, solidsMg));
  const pouredMg = Math.max(0, Math.min(missingMg - strainedMg, of('poured') - came.besideMg));
  return { inMg, strainedMg, pouredMg, evaporatedMg: missingMg - strainedMg - pouredMg };
}

/** The whole mass that a strength is a share of: what goes into a reduction, what comes out of a stock. Milligrams. */
export const markOf = (recipe: Recipe, went: BatchIn, expectedMg: number, factor: number): number =>
  factor *
  (recipe.kind === 'reduction' ? went.baseMg + went.ingredients.reduce((sum, i) => sum + i.massMg, 0) : expectedMg);
