import { expect, it } from 'vitest';
import { cookedAt, joinBatch, overShare } from './joinBatch.ts';
import type { Recipe } from './recipe.ts';

const recipe = (over: Partial<Recipe>): Recipe =>
  ({
    ingredients: [],
    caps: [],
    output: { name: 'x', low: 0.8, mean: 0.9, high: 1, measure: 'litres' },
    ...over,
  }) as unknown as Recipe;
const water = { id: 'water', name: 'water', perBase: 1, low: 1, high: 1, allergens: [] };
const herbs = { ...water, id: 'herbs', name: 'herbs', perBase: 0.05, becomes: 'strained' as const };
const fumet = recipe({ baseStrained: true, ingredients: [water, herbs] });
const planned = {
  baseMg: 2_000_000,
  ingredients: [{ id: 'water', name: 'water', massMg: 2_000_000, fromLotsMg: 0 }],
  expectedMg: { low: 1_600_000, mean: 1_800_000, high: 2_000_000 },
};

it('bones that join a stock are strained out again and give no more of it', () => {
  expect(joinBatch(fumet, planned, 'base', 500_000)).toEqual({ ...planned, baseMg: 2_500_000 });
});

it('what stays in it comes out as the rest does: 500 g at 0.9 of what stays is 450 g', () => {
  const joined = joinBatch(fumet, planned, 'water', 500_000);
  expect(joined.expectedMg).toEqual({ low: 2_000_000, mean: 2_250_000, high: 2_500_000 });
  expect(joined.ingredients).toEqual([{ id: 'water', name: 'water', massMg: 2_500_000, fromLotsMg: 500_000 }]);
  expect(joined.baseMg).toBe(2_000_000);
});

it('an ingredient that was not in it yet stands in the list, and is gone when it is taken back', () => {
  const joined = joinBatch(fumet, planned, 'herbs', 40_000);
  expect(joined.ingredients.at(-1)).toEqual({ id: 'herbs', name: 'herbs', massMg: 40_000, fromLotsMg: 40_000 });
  expect(joined.expectedMg).toEqual(planned.expectedMg);
  expect(joinBatch(fumet, joined, 'herbs', -40_000)).toEqual(planned);
});

it('nothing gives more than goes in: cream to a mousseline of 2.06 a kilo gives its own mass', () => {
  const mousseline = recipe({
    ingredients: [{ ...water, id: 'cream', name: 'cream' }],
    output: { name: 'x', low: 2, mean: 2.06, high: 2.1, measure: 'mass' },
  });
  expect(joinBatch(mousseline, { ...planned, ingredients: [] }, 'base', 100_000).expectedMg.mean).toBe(1_900_000);
});

it('a kind of piece keeps to its share of the base also when it joins later', () => {
  const capped = recipe({ caps: [{ category: 'head', maxShare: 0.2, reason: 'Heads turn it cloudy' }] });
  const frames = { category: 'frame', massMg: 800_000 };
  expect(overShare(capped, [frames, { category: 'head', massMg: 200_000 }])).toBeUndefined();
  expect(overShare(capped, [frames, { category: 'head', massMg: 260_000 }])).toMatchObject({
    category: 'head',
    maxShare: 0.2,
    reason: 'Heads turn it cloudy',
  });
});

it('it was cooked through when such a step was done, not when it was left out', () => {
  const steps = [
    { kind: 'prepare', text: 'a' },
    { kind: 'simmer', text: 'b', kills: true },
  ] as const;
  expect(cookedAt(steps, new Map([[0, { skipped: false }]]))).toBeUndefined();
  expect(cookedAt(steps, new Map([[1, { skipped: true }]]))).toBeUndefined();
  expect(cookedAt(steps, new Map([[1, { skipped: false }]]))).toBe(1);
});
