import { type MinorUnits, minor, priceOf, shareOut } from '../quantity/money.ts';
import { Refusal } from '../refusal.ts';

export const costingSchools = ['weight', 'by-product-credit'] as const;
export type CostingSchool = (typeof costingSchools)[number];

export interface CostedPiece {
  readonly massMg: number;
  /** Thrown away: carries no cost under either school. */
  readonly wasted: boolean;
  readonly main: boolean;
  /** Market value of this by-product, minor units per kilogram; 0 where it has none. */
  readonly creditMinorPerKg: number;
}

/**
 * Cost by physical weight: every kilogram kept costs the same, whatever it is.
 *
 * Shapes  pieces: n >= 1. Result: n amounts, same order.
 * Keeps   the amounts add up to `paid` exactly (largest remainder).
 * Errors  `no_pieces`; `no_usable_mass` when everything was thrown away.
 * Source  physical units method, cost accounting texts, chapter on joint products.
 */
export function shareCostByWeight(paid: number, pieces: readonly CostedPiece[]): MinorUnits[] {
  return shareOut(
    paid,
    pieces.map((piece) => (piece.wasted ? 0 : piece.massMg)),
  );
}

/**
 * The butcher's test: by-products are credited at market value, the main cut carries the rest by weight.
 *
 * Shapes  pieces: n >= 1. Result: n amounts, same order.
 * Keeps   the amounts add up to `paid` exactly. A wasted piece costs 0.
 * Errors  `no_pieces`; `no_usable_mass` (no main cut kept); `credit_exceeds_cost` (by-products worth more than was paid).
 * Source  butcher's yield test as taught in culinary cost-control courses; common practice.
 */
export function shareCostByCredit(paid: number, pieces: readonly CostedPiece[]): MinorUnits[] {
  if (pieces.length === 0) throw new Refusal('no_pieces');
  const credits = pieces.map((piece) =>
    piece.main || piece.wasted ? minor(0) : priceOf(piece.massMg, piece.creditMinorPerKg),
  );
  const credit = credits.reduce<number>((a, b) => a + b, 0);
  if (credit > paid) throw new Refusal('credit_exceeds_cost', { credit, paid });
  const mains = shareOut(
    paid - credit,
    pieces.map((piece) => (piece.main && !piece.wasted ? piece.massMg : 0)),
  );
  return pieces.map((_, i) => minor((credits[i] ?? 0) + (mains[i] ?? 0)));
}

/** Cost under the named school. See the two functions for what each keeps and refuses. */
export function shareCost(school: CostingSchool, paid: number, pieces: readonly CostedPiece[]): MinorUnits[] {
  switch (school) {
    case 'weight':
      return shareCostByWeight(paid, pieces);
    case 'by-product-credit':
      return shareCostByCredit(paid, pieces);
  }
}

/**
 * Cost under the house's school, falling back where that school cannot answer: by-product credit without a main cut, or with
 * credits above the price, becomes weight; nothing kept at all returns undefined and the whole cost goes with the waste.
 */
export function shareCostOrFallBack(
  school: CostingSchool,
  paid: number,
  pieces: readonly CostedPiece[],
): { readonly school: CostingSchool; readonly amounts: MinorUnits[] } | undefined {
  if (pieces.every((piece) => piece.wasted || piece.massMg === 0)) return undefined;
  try {
    return { school, amounts: shareCost(school, paid, pieces) };
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    return { school: 'weight', amounts: shareCostByWeight(paid, pieces) };
  }
}
