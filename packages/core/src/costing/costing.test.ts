import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { grams, kilograms } from '../quantity/mass.ts';
import { Refusal } from '../refusal.ts';
import { costFactor, costPerKg } from './costFactor.ts';
import {
  type CostedPiece,
  costingSchools,
  shareCost,
  shareCostByCredit,
  shareCostByWeight,
  shareCostOrFallBack,
} from './shareCost.ts';

const piece = (kg: number, o: Partial<CostedPiece> = {}): CostedPiece => ({
  massMg: kilograms(kg),
  wasted: false,
  main: false,
  creditMinorPerKg: 0,
  ...o,
});

describe('the butcher’s test', () => {
  // worked example as taught in culinary cost-control courses (common practice): a fillet of 2.4 kg at 38.00, chain 216 g at 9.00,
  // fat 252 g at 0.60, silverskin 108 g at nothing; usable 1.776 kg. In pence, so credits round to 194 and 15
  const pieces = [
    piece(1.776, { main: true }),
    piece(0.216, { creditMinorPerKg: 900 }),
    piece(0.252, { creditMinorPerKg: 60 }),
    piece(0.108),
  ];

  it('credits the trim and charges the rest to the main cut', () => {
    expect(shareCostByCredit(9_120, pieces)).toEqual([8_911, 194, 15, 0]);
    expect(costPerKg(8_911, kilograms(1.776))).toBeCloseTo(5_017.5, 0);
    expect(costFactor(9_120, kilograms(2.4), 8_911, kilograms(1.776))).toBeCloseTo(1.32031, 3);
  });

  it('gives the published cost factor exactly when nothing is rounded, and carries it to a new price', () => {
    const factor = costFactor(91.2, 2.4, 89.1048, 1.776);
    expect(factor).toBeCloseTo(1.32031, 5);
    expect((factor ?? 0) * 41.5).toBeCloseTo(54.7929, 3);
  });

  it('refuses credits above the price, and a breakdown without a main cut', () => {
    const code = (act: () => unknown): string => {
      try {
        act();
      } catch (error) {
        if (error instanceof Refusal) return error.code;
      }
      return 'none';
    };
    expect(code(() => shareCostByCredit(100, pieces))).toBe('credit_exceeds_cost');
    expect(code(() => shareCostByCredit(100, [piece(1)]))).toBe('no_usable_mass');
    expect(code(() => shareCostByCredit(100, []))).toBe('no_pieces');
    expect(shareCostOrFallBack('by-product-credit', 100, pieces)).toMatchObject({ school: 'weight' });
    expect(shareCostOrFallBack('weight', 100, [piece(1, { wasted: true })])).toBeUndefined();
  });
});

describe('every school', () => {
  const pieces = fc.array(
    fc.record({
      massMg: fc.integer({ min: 1, max: 30_000 }).map(grams),
      wasted: fc.boolean(),
      main: fc.boolean(),
      creditMinorPerKg: fc.integer({ min: 0, max: 900 }),
    }),
    { minLength: 1, maxLength: 10 },
  );

  it('adds up to the invoice to the penny, and charges waste nothing', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...costingSchools),
        fc.integer({ min: 0, max: 1_000_000 }),
        pieces,
        (school, paid, all) => {
          let amounts: readonly number[];
          try {
            amounts = shareCost(school, paid, all);
          } catch (error) {
            expect(error).toBeInstanceOf(Refusal);
            return;
          }
          expect(amounts.reduce((a, b) => a + b, 0)).toBe(paid);
          all.forEach((p, i) => {
            if (p.wasted) expect(amounts[i]).toBe(0);
            expect(amounts[i]).toBeGreaterThanOrEqual(0);
          });
        },
      ),
    );
  });

  it('by weight charges every kilogram kept alike', () => {
    expect(shareCostByWeight(1_000, [piece(3), piece(1), piece(9, { wasted: true })])).toEqual([750, 250, 0]);
  });
});
