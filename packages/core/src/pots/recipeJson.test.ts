import { describe, expect, it } from 'vitest';
import type { Recipe } from './recipe.ts';
import { looksLikeOurs, readRecipe, recipeOf } from './recipeJson.ts';

/** No recipe of anyone's: what is written out and read back. */
const recipe: Recipe = {
  id: 'frame-stock',
  version: 3,
  kind: 'stock',
  title: 'Frame stock',
  baseName: 'frames',
  accepts: ['white-fish-frame'],
  acceptsUses: [],
  trays: ['stock'],
  takes: [],
  refuses: [{ category: 'fish-gills', reason: 'bitter' }],
  caps: [],
  ingredients: [
    { id: 'water', name: 'cold water', perBase: 1.2, low: 1, high: 1.5, allergens: [] },
    { id: 'peppercorns', name: 'peppercorns', perBase: 0.0015, low: 0, high: 0.002, allergens: [] },
    { id: 'wine', name: 'wine', perBase: 0, low: 0, high: 0.1, allergens: ['sulphites'] },
  ],
  questions: [],
  output: { name: 'stock', low: 0.8, mean: 0.9, high: 1, measure: 'litres' },
  marks: [],
  vessel: 'pot',
  heatC: null,
  litresPerKg: 2,
  ready: true,
  minutes: { low: 60, typical: 95, high: 120 },
  steps: [
    { kind: 'cook', text: 'Rinse.' },
    {
      kind: 'cook',
      text: 'Simmer.',
      tempC: { low: 88, high: 92 },
      watch: 'no bubbles in the middle',
      minutes: { low: 20, typical: 25, high: 30 },
    },
    { kind: 'cook', text: 'Rest.', minutes: { low: 120, typical: 120, high: 120 } },
  ],
  cautions: [],
  keeps: [],
  shelfLifeDays: 3,
  allergens: ['fish'],
  provenance: 'estimate',
  source: 'made up',
} as unknown as Recipe;

describe('a recipe written as schema.org', () => {
  const written = recipeOf(recipe, 2_500);

  it('has its amounts for so much base, rounded as one weighs them, and leaves out what there is none of', () => {
    expect(written['recipeIngredient']).toEqual(['2500 g frames', '3000 g cold water', '3.8 g peppercorns']);
    expect(written['recipeYield']).toBe('2250 g stock');
    expect(recipeOf(recipe)['recipeIngredient']).toEqual(['1000 g frames', '1200 g cold water', '1.5 g peppercorns']);
  });

  it('has its times as ISO 8601 writes them, and its steps counted from one', () => {
    expect(written['totalTime']).toBe('PT1H35M');
    expect(written['recipeInstructions']).toEqual([
      { '@type': 'HowToStep', position: 1, text: 'Rinse.' },
      {
        '@type': 'HowToStep',
        position: 2,
        text: 'Simmer. 88 to 92 °C. Look: no bubbles in the middle.',
        timeRequired: 'PT25M',
      },
      { '@type': 'HowToStep', position: 3, text: 'Rest.', timeRequired: 'PT2H' },
    ]);
  });

  it('comes back whole', () => {
    const read = readRecipe(JSON.parse(JSON.stringify(written)));
    expect(read?.whole).toEqual(recipe);
    expect(looksLikeOurs(read?.whole)).toBe(true);
  });
});

describe('a recipe of someone else', () => {
  const read = (written: object) => readRecipe({ '@type': 'Recipe', name: 'x', ...written });

  it.each([
    ['1.2 kg frames', 'frames', 1_200],
    ['1,2 kg frames', 'frames', 1_200],
    ['1,200 g frames', 'frames', 1_200],
    ['1.250 kg frames', 'frames', 1_250],
    ['1 200 g frames', 'frames', 1_200],
    ['½ l dry cider', 'dry cider', 500],
    ['1½ kg heads, split', 'heads, split', 1_500],
    ['250ml cream', 'cream', 250],
    ['2 lb mussels', 'mussels', 907.184_74],
    ['8 oz butter', 'butter', 226.796_185],
  ])('%s', (line, name, grams) => {
    const [ingredient] = read({ recipeIngredient: [line] })?.ingredients ?? [];
    expect(ingredient?.name).toBe(name);
    expect(ingredient?.grams).toBeCloseTo(grams, 6);
  });

  it.each(['salt', '3 onions', '2 cups water', 'a little pepper', '1.2.3 kg of nothing'])(
    'keeps the line of “%s” where there is no mass in it',
    (line) => expect(read({ recipeIngredient: [line] })?.ingredients).toEqual([{ name: line, grams: undefined }]),
  );

  it('is found in a list and in a graph, by one type of several, and not where there is none', () => {
    const written = { '@type': ['Thing', 'Recipe'], name: 'Found' };
    expect(readRecipe([{ '@type': 'Person' }, written])?.name).toBe('Found');
    expect(readRecipe({ '@graph': [null, written] })?.name).toBe('Found');
    expect(readRecipe({ '@type': 'Menu' })).toBeUndefined();
    expect(readRecipe(null)).toBeUndefined();
  });

  it('has its steps from lines, from steps and from sections, with their minutes', () => {
    expect(read({ recipeInstructions: 'Rinse.\n\n Simmer. ' })?.steps.map((s) => s.text)).toEqual([
      'Rinse.',
      'Simmer.',
    ]);
    const steps = read({
      recipeInstructions: [
        {
          '@type': 'HowToSection',
          itemListElement: [{ text: 'Cure.', timeRequired: 'P1DT2H30M' }, { name: 'Rinse.' }],
        },
        { '@type': 'HowToStep', text: ' ' },
        { '@type': 'HowToStep', text: 'Hang.', timeRequired: 'soon' },
      ],
    })?.steps;
    expect(steps).toEqual([
      { kind: 'cook', text: 'Cure.', minutes: { low: 1_590, typical: 1_590, high: 1_590 } },
      { kind: 'cook', text: 'Rinse.' },
      { kind: 'cook', text: 'Hang.' },
    ]);
  });
});

describe('what has the form of a recipe', () => {
  it('has all of it', () => {
    expect(looksLikeOurs(recipe)).toBe(true);
    for (const key of [
      'id',
      'title',
      'version',
      'accepts',
      'refuses',
      'ingredients',
      'questions',
      'output',
      'minutes',
      'steps',
    ]) {
      const { [key]: _, ...without } = recipe as unknown as Record<string, unknown>;
      expect(looksLikeOurs(without), key).toBe(false);
    }
  });

  it.each([
    { version: '3' },
    { shelfLifeDays: Number.NaN },
    { accepts: [1] },
    { accepts: 'white-fish-frame' },
    { refuses: [{ category: 'x' }] },
    { ingredients: [{ ...recipe.ingredients[0], perBase: '1' }] },
    { questions: [{ id: 'a', question: 'b', ways: [{ id: 1, name: 'c' }] }] },
    { output: { ...recipe.output, mean: null } },
    { minutes: null },
    { steps: [{ kind: 'cook' }] },
  ])('and not %o', (change) => expect(looksLikeOurs({ ...recipe, ...change })).toBe(false));
});
