import type { ListedRecipe, Lot, Tub } from '@zabrik/contract';
import { formsHistamine, type OfferedLot, type Recipe, refusalOf, roleIn, type Species } from '@zabrik/core';
import { dayName, dueWords } from '../../app/dates.ts';
import { amountIn } from '../../parts/amountIn.ts';

/** A lot that could go in a pot; of a tub, what it holds. */
export type PotLot = Lot & { readonly contents?: Tub['contents'] };

/** A lot as the core's scaling wants it. */
export const offerOf = (lot: PotLot): OfferedLot => ({
  lotId: lot.id,
  name: lot.name,
  category: lot.potKind,
  ...(lot.recipeId === null ? {} : { recipeId: lot.recipeId }),
  ...(lot.goods === null ? {} : { goods: lot.goods }),
  massMg: lot.freeMg,
  pieces: lot.freePieces,
  pastDate: dueWords(lot.useBy).tone === 'late',
  ready: lot.ready,
  ...(lot.contents === undefined ? {} : { kinds: lot.contents }),
});

/**
 * Whether a lot may go in without being asked for: it is taken, it lies in a tray the recipe empties, and nobody means it for a guest. A
 * portion never does, in whatever tray it lies but the one for this very work: it is chosen.
 */
export const goesByItself = (recipe: Recipe, lot: PotLot): boolean => {
  if (refusalOf(recipe, offerOf(lot)) !== undefined || roleIn(recipe, offerOf(lot)) !== 'base') return false;
  if (lot.kind === 'goods') return true;
  if (lot.kind === 'tub' || (lot.recipeId !== null && recipe.acceptsUses.includes(lot.recipeId))) return true;
  if (lot.destination === null || lot.destination === 'portion' || !recipe.trays.includes(lot.destination))
    return false;
  return !lot.potKind.endsWith('-portion') || lot.destination === 'filling';
};

/** What may go together unasked: white fish with white fish, meat only with its own animal. A tub or a batch goes with any. */
export function companyOf(lot: PotLot, species: readonly Species[]): string {
  if (lot.kind === 'tub' || lot.species === null) return '';
  const animal = species.find((s) => s.id === lot.species);
  const group = animal?.group ?? '';
  if (group === 'large-pelagic') return lot.species;
  if (/fish/.test(group) || /^(white-fish|oily-fish|flatfish|fish)-/.test(lot.potKind)) {
    if (/^(white|flat)/.test(lot.potKind)) return 'white fish';
    return lot.potKind.startsWith('oily') || formsHistamine(animal) ? 'oily fish' : 'white fish';
  }
  return group === 'crustacean' || group === 'mollusc' ? group : lot.species;
}

/** The lots that go in a batch before anybody has chosen: of one company, the one there is most of. */
export function preselected(recipe: Recipe, lots: readonly PotLot[], species: readonly Species[]): ReadonlySet<string> {
  const may = lots.filter((lot) => goesByItself(recipe, lot));
  const weighs = new Map<string, number>();
  for (const lot of may) {
    const company = companyOf(lot, species);
    if (company !== '') weighs.set(company, (weighs.get(company) ?? 0) + lot.freeMg);
  }
  const [most] = [...weighs].sort((a, b) => b[1] - a[1]);
  return new Set(
    may
      .filter((lot) => {
        const company = companyOf(lot, species);
        return company === '' || company === most?.[0];
      })
      .map((lot) => lot.id),
  );
}

/** What lies ready for a recipe, milligrams. */
export function readyFor(recipe: Recipe, lots: readonly PotLot[], species: readonly Species[]): number {
  const ready = preselected(recipe, lots, species);
  return lots.reduce((sum, lot) => sum + (ready.has(lot.id) ? lot.freeMg : 0), 0);
}

export interface OneTouch {
  readonly name: string;
  readonly lotIds: ReadonlySet<string>;
}

/**
 * Choices of one touch among the lots shown: one animal's kind, one supplier's, one day's. Only those that leave something out, and
 * never a guest's portion.
 */
export function oneTouches(recipe: Recipe, lots: readonly PotLot[], nameOf: (species: string) => string): OneTouch[] {
  const may = lots.filter(
    (lot) =>
      refusalOf(recipe, offerOf(lot)) === undefined &&
      roleIn(recipe, offerOf(lot)) === 'base' &&
      lot.destination !== 'portion' &&
      (!lot.potKind.endsWith('-portion') || lot.destination === 'filling'),
  );
  const by = (keyOf: (lot: PotLot) => string | null): OneTouch[] => {
    const heaps = new Map<string, Set<string>>();
    for (const lot of may) {
      const key = keyOf(lot);
      if (key !== null) heaps.set(key, (heaps.get(key) ?? new Set()).add(lot.id));
    }
    return [...heaps].flatMap(([name, lotIds]) => (lotIds.size < may.length ? [{ name, lotIds }] : []));
  };
  // yesterday's and today's; what lies frozen from September has its animal
  const days = [...new Set(may.map((lot) => lot.madeAt.slice(0, 10)))].sort().reverse().slice(0, 2).reverse();
  return [
    ...by((lot) => (lot.species === null ? null : nameOf(lot.species))),
    ...by((lot) => lot.supplierName),
    ...days.flatMap((day) => by((lot) => (lot.madeAt.slice(0, 10) === day ? `of ${dayName(day)}` : null))),
  ];
}

/** Whether a lot is shown when this recipe is chosen: it could go in, or a cook might think so and is told why not. */
export const isOffered = (recipe: Recipe, lot: PotLot): boolean =>
  roleIn(recipe, offerOf(lot)) !== undefined || recipe.refuses.some((r) => r.category === lot.potKind);

const kinds = {
  stock: 'Stocks',
  'pan-sauce': 'Pan sauces',
  reduction: 'Reductions',
  sauce: 'Sauces, finished',
  liquor: 'Liquors',
  filling: 'Fillings',
  assembly: 'Put together',
  rendering: 'Fat',
  preserve: 'Put by',
  garnish: 'Garnishes',
  'staff-dish': 'Staff dishes',
} as const;
export const kindWords = (kind: Recipe['kind']): string => kinds[kind];

/** Recipes in groups of their kind, each group in the handbook's order. */
export const byKind = (
  recipes: readonly ListedRecipe[],
): readonly (readonly [Recipe['kind'], readonly ListedRecipe[]])[] =>
  (Object.keys(kinds) as Recipe['kind'][]).flatMap((kind) => {
    const mine = recipes.filter((u) => u.recipe.kind === kind);
    return mine.length === 0 ? [] : [[kind, mine] as const];
  });

export const amountOf = (recipe: Pick<Recipe, 'output'>, mg: number): string => amountIn(recipe.output.measure, mg);
