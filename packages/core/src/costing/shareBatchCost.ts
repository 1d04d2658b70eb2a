import { type MinorUnits, minor, priceOf } from '../quantity/money.ts';

/** Something that comes out of a batch beside what it is for. */
export interface BesideBatch {
  readonly massMg: number;
  /** Thrown away it is worth nothing. */
  readonly kept: boolean;
  /** What the house says such a thing is worth, minor units a kilogram. */
  readonly minorPerKg: number;
}

/**
 * What a batch cost, shared over what came out: what is kept beside takes what it is worth, in its order, and what it is for the rest.
 *
 * Shapes  beside: n >= 0. Result: as many, same order.
 * Units   milligrams, minor units.
 * Keeps   all shares add up to the cost; none is below nothing, and those beside are together never more than the batch cost.
 * Source  by-product credit, any cost accounting text's chapter on joint products.
 * @example 500 for 4 l of stock, 300 g of fat at 200 a kilo: the fat takes 60, the stock 440
 */
export function shareBatchCost(
  costMinor: number,
  beside: readonly BesideBatch[],
): { readonly main: MinorUnits; readonly beside: readonly MinorUnits[] } {
  let left = costMinor;
  const shares = beside.map(({ massMg, kept, minorPerKg }) => {
    const share = kept ? Math.max(0, Math.min(left, priceOf(massMg, minorPerKg))) : 0;
    left -= share;
    return minor(share);
  });
  return { main: minor(left), beside: shares };
}
