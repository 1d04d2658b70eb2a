import type { Recipe, RecipeStep } from './recipe.ts';
import type { ScaledRecipe } from './scaleRecipe.ts';

/** A batch as it was planned, as far as what joins it later moves it. */
export interface PlannedBatch {
  readonly baseMg: number;
  readonly ingredients: ScaledRecipe['ingredients'];
  readonly expectedMg: { readonly low: number; readonly mean: number; readonly high: number };
}

/**
 * A batch after a lot has joined it while it was on, or was taken back out of the reckoning.
 *
 * Shapes  as: "base", or the ingredient the lot is. massMg: below nothing when it is taken back.
 * Keeps   what joins comes on top of what was planned: nothing else is scaled after it. What is strained out or poured away gives nothing more;
 *         of all else so much comes out as of the rest of the batch, and never more than went in.
 * @example fumet of 2 kg of frames and 2 kg of water that gives 0.9 a kilo: 500 g of frames more give nothing, 500 g of wine of a lot 450 g
 * @example cream sauce that gives all it takes: 200 g of stock of a lot give 200 g
 */
export function joinBatch(recipe: Recipe, batch: PlannedBatch, as: string, massMg: number): PlannedBatch {
  const ingredient = recipe.ingredients.find((i) => i.id === as);
  const stays = as === 'base' ? recipe.baseStrained !== true : ingredient?.becomes === undefined;
  const staying =
    (recipe.baseStrained === true ? 0 : 1) +
    recipe.ingredients.reduce((sum, i) => sum + (i.becomes === undefined ? i.perBase : 0), 0);
  const more = (ratio: number): number =>
    stays && staying > 0 ? Math.round(massMg * Math.min(1, ratio / staying)) : 0;
  const known = batch.ingredients.find((i) => i.id === as);
  return {
    baseMg: batch.baseMg + (as === 'base' ? massMg : 0),
    ingredients:
      as === 'base'
        ? batch.ingredients
        : known === undefined
          ? [...batch.ingredients, { id: as, name: ingredient?.name ?? as, massMg, fromLotsMg: massMg }]
          : batch.ingredients
              .map((i) => (i === known ? { ...i, massMg: i.massMg + massMg, fromLotsMg: i.fromLotsMg + massMg } : i))
              .filter((i) => i.massMg > 0),
    expectedMg: {
      low: batch.expectedMg.low + more(recipe.output.low),
      mean: batch.expectedMg.mean + more(recipe.output.mean),
      high: batch.expectedMg.high + more(recipe.output.high),
    },
  };
}

/**
 * The kind of piece that is now more than its share of the base, with how much may be in it; undefined while every kind keeps to its share.
 *
 * Shapes  base: what the base is made of, by kind.
 */
export function overShare(
  recipe: Recipe,
  base: readonly { readonly category: string; readonly massMg: number }[],
):
  | { readonly category: string; readonly share: number; readonly maxShare: number; readonly reason: string }
  | undefined {
  const all = base.reduce((sum, b) => sum + b.massMg, 0);
  for (const cap of recipe.caps) {
    const own = base.reduce((sum, b) => sum + (b.category === cap.category ? b.massMg : 0), 0);
    // a gram of rounding is no head too many
    if (own > all * cap.maxShare + 1_000) return { ...cap, share: own / all };
  }
  return undefined;
}

/** The step that has cooked through what is in it already, by its place; undefined while none has: what joins raw would not be cooked with it. */
export function cookedAt(
  steps: readonly RecipeStep[],
  done: ReadonlyMap<number, { readonly skipped: boolean }>,
): number | undefined {
  const at = steps.findIndex((step, i) => step.kills === true && done.get(i)?.skipped === false);
  return at === -1 ? undefined : at;
}
