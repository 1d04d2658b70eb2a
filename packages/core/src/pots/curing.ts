/** Curing salt in a batch: grams by the kind in the tin and the nitrite that is aimed at, never by habit. */
import { mustBeFigures, Refusal } from '../refusal.ts';
import { type Recipe, waysOf } from './recipe.ts';
import { nitriteIon } from './salting.ts';

/** The ingredient that is worked out here. */
export const CURING_SALT = 'curing-salt';

/** What is in the tin, and how much sodium nitrite is aimed at. */
export interface Cure {
  /** Share of sodium nitrite in the curing salt, 0..1, by its label. */
  readonly nitriteShare: number;
  /** Sodium nitrite aimed at, mg per kg of the mix. */
  readonly ppm: number;
}

/**
 * Kinds of curing salt by their share of sodium nitrite. Tenfold apart: the same spoon of the other kind is a poisoning.
 *
 * Source  US no. 1: 6.25 % by trade standard; EU and UK: 0.4 to 0.9 % by label. Both from memory; the label decides.
 */
export const curingKinds = [
  { id: 'us-1', name: 'US kind, pink', low: 0.0625, high: 0.0625 },
  { id: 'eu', name: 'EU and UK kind, nitrite salt', low: 0.004, high: 0.009 },
] as const;

/**
 * The most sodium nitrite that may be added to a cooked, comminuted product, mg/kg, in a profile.
 *
 * Source  US: 9 CFR 424.21(c), 156 ppm. EU: (EC) 1333/2008 Annex II as changed by (EU) 2023/2108, 80 mg/kg as nitrite ion since
 *         9 October 2025. UK: 150 mg/kg in retained 1333/2008. From memory; where a profile is not known the strictest holds.
 */
export function mostNitrite(profile: string): number {
  if (profile.startsWith('us')) return 156;
  return profile.startsWith('uk') ? 150 : 80 / nitriteIon(1);
}

/** Whether curing salt goes in with these ways, so that its kind and aim must be said. */
export const asksForCure = (recipe: Recipe, chosen: readonly string[]): boolean =>
  waysOf(recipe, chosen).some((w) => w.cures === true);

/**
 * The recipe with its curing salt weighed in: so much that the whole mix holds the aim, and so much less plain salt that it is no saltier.
 *
 * Shapes  recipe: with its ways chosen. Result: the same recipe, its shares of curing salt and salt changed.
 * Keeps   nitrite in the mix = aim; salt in all as before, unless the curing salt alone brings more.
 * Errors  `not_a_figure`: no figure, a share outside 0..0.1, an aim that is not above 0 and at most 200.
 * @example 1 kg of meat in a mix of 1.788, 120 ppm: 3.4 g of 6.25 %, but 42.9 g of 0.5 %
 */
export function withCure(recipe: Recipe, cure: Cure): Recipe {
  mustBeFigures({ nitriteShare: cure.nitriteShare, ppm: cure.ppm });
  const { nitriteShare, ppm } = cure;
  if (nitriteShare <= 0 || nitriteShare > 0.1 || ppm <= 0 || ppm > 200)
    throw new Refusal('not_a_figure', { nitriteShare, ppm });
  const mix = 1 + recipe.ingredients.reduce((sum, i) => sum + (i.id === CURING_SALT ? 0 : i.perBase), 0);
  const salt = recipe.ingredients.find((i) => i.id === 'salt')?.perBase ?? 0;
  // while plain salt gives way to it gram for gram the mix stays as heavy; what it brings beyond that makes it heavier
  const swapped = (ppm * 1e-6 * mix) / nitriteShare;
  const of = swapped * (1 - nitriteShare) <= salt ? swapped : (ppm * 1e-6 * (mix - salt)) / (nitriteShare - ppm * 1e-6);
  return {
    ...recipe,
    ingredients: recipe.ingredients.map((i) => {
      if (i.id === CURING_SALT)
        return { ...i, name: `curing salt, ${Number((nitriteShare * 100).toFixed(2))} % nitrite`, perBase: of };
      return i.id === 'salt' ? { ...i, perBase: Math.max(0, salt - of * (1 - nitriteShare)) } : i;
    }),
  };
}
