import { expect, it } from 'vitest';
import { unitGrams } from './priceRows.ts';

it.each([
  ['kg', 1_000],
  ['per kg', 1_000],
  ['£/kg', 1_000],
  ['a kilo', 1_000],
  ['100g', 100],
  ['100 g', 100],
  ['5 kg', 5_000],
  ['2.5kg', 2_500],
  ['2,5 kg', 2_500],
  ['bag of 25kg', 25_000],
  ['Case 12 x 500 g', 6_000],
  ['6x75cl', 4_500],
  ['bottle 70 cl', 700],
  ['l', 1_000],
  ['10 litres', 10_000],
  ['lbs', 453.592_37],
  ['10 lb', 4_535.923_7],
  ['oz.', 28.349_523_125],
  ['pint', 568.261_25],
])('%s is %d g', (unit, grams) => expect(unitGrams(unit)).toBeCloseTo(grams, 6));

// a comma with three figures after it may be thousands or a decimal; a count has no mass
it.each(['each', '', '1,500 g', '0 kg', 'dozen', '6 x', 'kgm', 'x'])('%s is nothing that is known', (unit) =>
  expect(unitGrams(unit)).toBeUndefined(),
);
