import { describe, expect, it } from 'vitest';
import { allergenWords, carryAllergens, hasAllergen, isKnownAllergen, sayableAllergens } from './allergens.ts';

describe('an allergen', () => {
  it('is known as a group of the list, or as a kind that its group names', () => {
    for (const id of ['gluten', 'gluten/wheat', 'gluten/spelt', 'nuts/almond', 'milk', 'sulphites']) {
      if (sayableAllergens.includes(id)) expect(isKnownAllergen(id), id).toBe(true);
    }
    // of fish, crustaceans and molluscs the kind is the animal, whatever it is
    expect(isKnownAllergen('fish/hake')).toBe(true);
    expect(isKnownAllergen('molluscs/squid')).toBe(true);
    expect(isKnownAllergen('gluten/rice')).toBe(false);
    expect(isKnownAllergen('milk/goat')).toBe(false);
    expect(isKnownAllergen('dust')).toBe(false);
    for (const id of sayableAllergens) expect(isKnownAllergen(id), id).toBe(true);
  });

  it('that nobody knows is carried all the same, at the end', () => {
    expect(carryAllergens(['dust', 'milk'], ['fish/hake', 'milk'])).toEqual(['fish/hake', 'milk', 'dust']);
    expect(hasAllergen(['fish/hake'], 'fish')).toBe(true);
    expect(hasAllergen(['fish/hake'], 'hake')).toBe(false);
  });
});

describe('words of a label', () => {
  it('name each group once with its kinds, and say where one kind is known and another is not', () => {
    expect(allergenWords(['fish/cod', 'fish/hake'])).toEqual(['fish (cod, hake)']);
    expect(allergenWords(['fish', 'fish/hake'])).toEqual(['fish (hake, and another)']);
    expect(allergenWords(['dust'])).toEqual(['dust']);
    expect(allergenWords(['dust'], true)).toEqual(['dust']);
  });

  // FALCPA (21 USC 321(qq)) lists wheat, and no other cereal; spelt and kamut are wheat. Recalled
  it.each([
    [['gluten/wheat'], ['wheat']],
    [['gluten/spelt'], ['wheat']],
    [['gluten/kamut'], ['wheat']],
    [['gluten'], ['wheat']],
    [['gluten/barley'], ['cereals containing gluten (barley)']],
    [
      ['gluten/barley', 'gluten/spelt'],
      ['wheat', 'cereals containing gluten (barley)'],
    ],
    // one is barley; what the other is nobody has said, and it may be wheat
    [
      ['gluten', 'gluten/barley'],
      ['wheat', 'cereals containing gluten (barley, and another)'],
    ],
  ])('for the United States: %s is %s', (ids, words) => {
    expect(allergenWords(ids, true)).toEqual(words);
  });

  it('for the European Union all cereals stand under one name', () => {
    expect(allergenWords(['gluten/barley', 'gluten/spelt'])).toEqual(['cereals containing gluten (barley, spelt)']);
  });
});
