import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { destinations } from '../breakdown/plan.ts';
import { grams } from '../quantity/mass.ts';
import { individualsChart } from './individualsChart.ts';
import { yieldShares } from './yieldSheet.ts';

describe('an individuals chart', () => {
  it('knows the NIST worked example', () => {
    // NIST/SEMATECH e-Handbook of Statistical Methods, 6.3.2.2: mean 50.81, mean moving range 1.8778, 45.8159 to 55.8041; recalled
    const chart = individualsChart([49.6, 47.6, 49.9, 51.3, 47.8, 51.2, 52.6, 52.4, 53.6, 52.1]);
    expect(chart?.centre).toBeCloseTo(50.81, 4);
    expect(chart?.meanMovingRange).toBeCloseTo(1.8778, 4);
    expect(chart?.upper).toBeCloseTo(55.8041, 3);
    expect(chart?.lower).toBeCloseTo(45.8159, 3);
  });

  it('draws no limits from fewer than two', () => {
    expect(individualsChart([0.4])).toBeUndefined();
  });
});

describe('yield shares', () => {
  it('always add up: recovered, waste and unaccounted are the whole', () => {
    const piece = fc.record({
      pieceId: fc.string(),
      destination: fc.constantFrom(...destinations),
      massMg: fc.integer({ min: 1, max: 5_000 }).map(grams),
      edible: fc.boolean(),
      main: fc.boolean(),
    });
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 40_000 }).map(grams),
        fc.array(piece, { maxLength: 9 }),
        (startMg, pieces) => {
          const shares = yieldShares(startMg, pieces);
          expect(shares.recoveredShare + shares.wasteShare + shares.unaccountedShare).toBeCloseTo(1, 9);
          expect(shares.edibleShare).toBeLessThanOrEqual(shares.recoveredShare + 1e-9);
        },
      ),
    );
  });

  it('gives zeros for a start of nothing', () => {
    expect(yieldShares(0, []).mainShare).toBe(0);
  });
});
