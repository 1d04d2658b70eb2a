import { type ReadRecipe, type Recipe, slugOf } from '@zabrik/core';

/** A recipe of the house's own to begin from: empty, or what a Recipe from elsewhere says. Its largest ingredient is taken as the base. */
export function blankRecipe(read?: ReadRecipe): Recipe {
  const weighed = (read?.ingredients ?? []).filter((i) => (i.grams ?? 0) > 0);
  const [base, ...rest] = [...weighed].sort((a, b) => (b.grams ?? 0) - (a.grams ?? 0));
  const grams = base?.grams ?? 1;
  const name = read?.name ?? '';
  return {
    id: slugOf(name) || 'our-own',
    version: 1,
    kind: 'staff-dish',
    title: name.slice(0, 80) || 'Our own',
    baseName: base?.name.slice(0, 40) ?? 'pieces',
    accepts: [],
    acceptsUses: [],
    takes: 'any',
    trays: ['staff'],
    refuses: [],
    caps: [],
    ingredients: rest.map((i) => {
      const perBase = Math.round(((i.grams ?? 0) / grams) * 1_000) / 1_000;
      return {
        id: slugOf(i.name) || 'ingredient',
        name: i.name.slice(0, 60),
        perBase,
        low: perBase * 0.8,
        high: perBase * 1.2,
        allergens: [],
        // a recipe from elsewhere says nothing of them: somebody has to
        unsaid: true as const,
      };
    }),
    questions: [],
    output: { name: name.slice(0, 60) || 'our own', low: 0.8, mean: 1, high: 1.2, measure: 'mass' },
    ready: true,
    marks: [],
    vessel: 'pot',
    minutes: { low: 30, typical: 60, high: 90 },
    steps: read?.steps.slice(0, 30) ?? [{ kind: 'cook', text: 'Cook it.' }],
    cautions: [],
    keeps: [
      {
        state: 'chilled',
        as: 'chilled',
        days: 2,
        maxC: 5,
        jurisdiction: 'our own',
        source: 'The house’s own',
        provenance: 'estimate',
      },
    ],
    shelfLifeDays: 2,
    allergens: [],
    provenance: 'estimate',
    source: 'The house’s own',
  };
}
