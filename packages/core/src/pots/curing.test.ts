import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { curingKinds, mostNitrite, withCure } from './curing.ts';
import type { Recipe } from './recipe.ts';
import { nitritePpm } from './salting.ts';

const recipe = {
  ingredients: [
    { id: 'fat', name: 'fat', perBase: 0.5, low: 0, high: 1, allergens: [] },
    { id: 'salt', name: 'fine salt', perBase: 0.028, low: 0, high: 0.1, allergens: [] },
    { id: 'curing-salt', name: 'curing salt', perBase: 0, low: 0, high: 0.1, allergens: [] },
  ],
} as unknown as Recipe;
const share = (made: Recipe, id: string): number => made.ingredients.find((i) => i.id === id)?.perBase ?? Number.NaN;
const mixOf = (made: Recipe): number => 1 + made.ingredients.reduce((sum, i) => sum + i.perBase, 0);

describe('curing salt', () => {
  it('by hand: 1.528 kg of mix to 120 ppm takes 2.93 g of 6.25 %, and 36.7 g of the 0.5 % kind would be too salty to swap', () => {
    // 120 mg/kg · 1.528 kg = 183.4 mg of nitrite; ÷ 0.0625 = 2.934 g
    const us = withCure(recipe, { nitriteShare: 0.0625, ppm: 120 });
    expect(share(us, 'curing-salt') * 1_000).toBeCloseTo(2.934, 2);
    expect(share(us, 'salt') * 1_000).toBeCloseTo(28 - 2.934 * 0.9375, 2);
    // the EU kind brings more salt than the recipe has: 1.5 kg · 120 ppm ÷ (0.5 % - 120 ppm) = 36.9 g and no plain salt
    const eu = withCure(recipe, { nitriteShare: 0.005, ppm: 120 });
    expect(share(eu, 'curing-salt') * 1_000).toBeCloseTo(36.885, 2);
    expect(share(eu, 'salt')).toBe(0);
    expect(eu.ingredients.find((i) => i.id === 'curing-salt')?.name).toBe('curing salt, 0.5 % nitrite');
  });

  it('the mix holds the nitrite aimed at, whatever the kind; the kinds are tenfold apart and never swapped', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.004, max: 0.0625, noNaN: true }),
        fc.double({ min: 20, max: 156, noNaN: true }),
        (nitriteShare, ppm) => {
          const made = withCure(recipe, { nitriteShare, ppm });
          const perKg = (share(made, 'curing-salt') / mixOf(made)) * 1_000;
          // what it weighs changes by the nitrite alone while plain salt gives way
          expect(Math.abs(nitritePpm(perKg, nitriteShare) / ppm - 1)).toBeLessThan(0.0005);
        },
      ),
    );
    const [us, eu] = curingKinds;
    expect(us.low / eu.high).toBeGreaterThan(6);
  });

  it('the most by profile; one that is not known gets the strictest', () => {
    expect(mostNitrite('us-food-code-2022')).toBe(156);
    expect(mostNitrite('uk-fsa')).toBe(150);
    // 80 mg/kg of nitrite ion is 120 of sodium nitrite: 80 · 68.9953 / 46.0055
    expect(mostNitrite('eu-852')).toBeCloseTo(119.98, 1);
    expect(mostNitrite('')).toBeCloseTo(119.98, 1);
  });

  it.each([
    [0, 120],
    [0.2, 120],
    [0.0625, 0],
    [0.0625, 201],
    [Number.NaN, 120],
    [0.005, Number.POSITIVE_INFINITY],
  ])('refuses a tin of %s and an aim of %s', (nitriteShare, ppm) => {
    expect(() => withCure(recipe, { nitriteShare, ppm })).toThrow();
  });
});
