import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { grams } from '../quantity/mass.ts';
import { broughtIn, broughtTo, broughtToUnit, withoutBrought } from './brought.ts';
import type { PlanStage } from './plan.ts';

const asPlan = (id: string, count: number, accumulates: boolean): PlanStage => ({
  id: 's1',
  name: 's1',
  minutes: { low: 1, typical: 2, high: 3 },
  steps: [],
  pieces: [
    {
      id,
      name: id,
      count,
      accumulates,
      category: 'white-fish-portion',
      share: { mean: 0.9, sd: 0.02, provenance: 'estimate', source: 'test' },
      destination: 'portion',
      alternatives: [],
      refused: [],
      main: true,
      edible: true,
    },
  ],
  drip: { mean: 0.02, sd: 0.008, provenance: 'estimate', source: 'test' },
});
const said = (id: string, body: { kind: string } & Record<string, unknown>) => ({ id, body });
const bacon = { pieceId: 'roll', name: 'bacon', massMg: grams(40), lotId: 'l1', allergens: [] };

describe('what is brought to a piece', () => {
  it('is what was said and not taken back, whatever else was said', () => {
    const all = [
      said('a', { kind: 'bring-in', ...bacon }),
      said('b', { kind: 'pause' }),
      said('c', { kind: 'bring-in', ...bacon, name: 'mustard', massMg: grams(5), lotId: null, allergens: ['mustard'] }),
      said('d', { kind: 'bring-back', eventId: 'a' }),
      said('e', { kind: 'bring-in', ...bacon, massMg: grams(30) }),
    ];
    const brought = broughtIn(all);
    expect(brought.map((b) => [b.id, b.name, b.massMg])).toEqual([
      ['c', 'mustard', grams(5)],
      ['e', 'bacon', grams(30)],
    ]);
    expect([...broughtTo(brought)]).toEqual([['roll', grams(35)]]);
  });

  it('is in each unit the part that falls on it, and all in the first where nobody knows how many there will be', () => {
    const to = new Map([['roll', grams(60)]]);
    expect(broughtToUnit(asPlan('roll', 2, false), to, 3)('roll')).toBe(grams(10));
    expect(broughtToUnit(asPlan('roll', 2, true), to, 3)('roll')).toBe(grams(60));
    expect(broughtToUnit(asPlan('roll', 2, false), to, 3)('bone')).toBe(0);
  });

  it('is shared over several weights in proportion, to the milligram', () => {
    expect(withoutBrought([grams(600), grams(400)], grams(100))).toEqual([grams(540), grams(360)]);
    expect(withoutBrought([grams(600)], 0)).toEqual([grams(600)]);
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 5_000_000 }), { minLength: 1, maxLength: 9 }),
        fc.nat(),
        (masses, n) => {
          const total = masses.reduce((a, b) => a + b, 0);
          const brought = n % (total + 1);
          const own = withoutBrought(masses, brought);
          expect(own.reduce((a, b) => a + b, 0)).toBe(total - brought);
          for (const [i, mass] of masses.entries())
            expect(Math.abs((own[i] ?? 0) - mass * (1 - brought / total))).toBeLessThanOrEqual(masses.length);
        },
      ),
    );
  });
});
