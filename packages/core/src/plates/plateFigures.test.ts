import { expect, it } from 'vitest';
import { type Plate, plateFigures } from './plateFigures.ts';

const hake: Plate = {
  id: 'hake-brown-butter',
  version: 1,
  title: 'Hake, brown butter',
  components: [
    { name: 'portion', of: { kind: 'pieces', category: 'white-fish-portion', species: 'hake' }, count: 1, grams: 160 },
    { name: 'sauce', of: { kind: 'batch', recipeId: 'fish-cream-sauce' }, count: null, grams: 60 },
    { name: 'strips of carrot', of: { kind: 'goods', goods: 'carrot' }, count: 4, grams: 4 },
  ],
};
const portions = { massMg: 14 * 162_000, pieces: 14, costMinor: 5_600 };
const sauce = { massMg: 2_000_000, pieces: 1, costMinor: 800 };
const carrot = { massMg: 100_000, pieces: 1, costMinor: 12 };

it('so many plates as the scarcest component allows: 100 g of carrot at four strips of 4 g are six', () => {
  const figures = plateFigures(hake, [[portions], [sauce], [carrot]]);
  expect(figures.components.map((c) => c.covers)).toEqual([14, 33, 6]);
  expect(figures.covers).toBe(6);
  expect(figures.limiting).toEqual(['strips of carrot']);
});

it('a plate costs what its portion, its sauce and its strips cost: 400 + 24 + 2', () => {
  const figures = plateFigures(hake, [[portions], [sauce], [carrot]]);
  expect(figures.components.map((c) => c.perCoverMinor)).toEqual([400, 24, 2]);
  expect(figures.costMinor).toBe(426);
  expect(figures.unknownCost).toEqual([]);
});

it('what does not lie there costs nobody knows what, and there is no plate', () => {
  const figures = plateFigures(hake, [[portions], [], [carrot]]);
  expect(figures).toMatchObject({ covers: 0, limiting: ['sauce'], costMinor: 402, unknownCost: ['sauce'] });
});

it('a portion of another size is no such portion: 190 g is not 160 g, 184 g is', () => {
  const large = { massMg: 3 * 190_000, pieces: 3, costMinor: 1_500 };
  const fits = { massMg: 184_000, pieces: 1, costMinor: 460 };
  const [first] = plateFigures(hake, [[portions, large, fits], [sauce], [carrot]]).components;
  expect(first).toMatchObject({ covers: 15, otherSize: 3, perCoverMinor: Math.round(6_060 / 15) });
});

it('two components of one source share it: 100 g of carrot, 16 g beside and 24 g in the purée, are two plates', () => {
  const twice: Plate = {
    ...hake,
    components: [
      ...hake.components.slice(2),
      { name: 'purée', of: { kind: 'goods', goods: 'carrot' }, count: null, grams: 24 },
    ],
  };
  const figures = plateFigures(twice, [[carrot], [carrot]]);
  expect(figures.covers).toBe(2);
  expect(figures.components.map((c) => c.perCoverMinor)).toEqual([2, 3]);
});

it('what its components cost adds up to the plate: nine of 1.25 are 11 and not 9', () => {
  const leek = { name: 'leek', of: { kind: 'goods', goods: 'leek' }, count: null, grams: 5 } as const;
  const nine = { ...hake, components: Array.from({ length: 9 }, () => leek) };
  const stock = nine.components.map(() => [{ massMg: 1_000_000, pieces: 1, costMinor: 250 }]);
  const figures = plateFigures(nine, stock);
  expect(figures.costMinor).toBe(11);
  expect(figures.components.reduce((sum, c) => sum + (c.perCoverMinor ?? 0), 0)).toBe(11);
});

it('a plate of nothing is none', () => {
  expect(plateFigures({ ...hake, components: [] }, [])).toMatchObject({ covers: 0, costMinor: 0, limiting: [] });
});
