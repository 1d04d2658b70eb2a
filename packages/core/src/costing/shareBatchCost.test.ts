import { expect, it } from 'vitest';
import { shareBatchCost } from './shareBatchCost.ts';

const fat = { massMg: 300_000, kept: true, minorPerKg: 200 };

it('what is kept beside takes what it is worth, and what it is for the rest', () => {
  expect(shareBatchCost(500, [fat])).toEqual({ main: 440, beside: [60] });
  expect(shareBatchCost(500, [])).toEqual({ main: 500, beside: [] });
});

it('all together never more than the batch, in their order', () => {
  const liquor = { massMg: 2_000_000, kept: true, minorPerKg: 30 };
  expect(shareBatchCost(100, [fat, liquor])).toEqual({ main: 0, beside: [60, 40] });
  expect(shareBatchCost(0, [fat])).toEqual({ main: 0, beside: [0] });
});

it('what is thrown away is worth nothing', () => {
  expect(shareBatchCost(500, [{ ...fat, kept: false }])).toEqual({ main: 500, beside: [0] });
});
