import { grams, type PieceExpectation, type PlanPiece } from '@zabrik/core';
import { describe, expect, it } from 'vitest';
import { adviceWords, supplierWords, unitName } from './benchWords.ts';

const frame: PlanPiece = {
  id: 'frame',
  name: 'frame, backbone and tail',
  count: 1,
  category: 'white-fish-frame',
  share: { mean: 0.17, sd: 0.02, provenance: 'estimate', source: 'test' },
  destination: 'stock',
  alternatives: [],
  refused: [],
  main: false,
  edible: false,
  whenHeavy: 'Flesh left on it? Scrape, then weigh again.',
};
const expected = (records: number): Map<string, PieceExpectation> =>
  new Map([
    [
      'frame',
      {
        pieceId: 'frame',
        nextMg: grams(420),
        low80Mg: grams(390),
        high80Mg: grams(450),
        low95Mg: grams(370),
        high95Mg: grams(470),
        remainingMg: grams(420),
        remainingLow80Mg: grams(380),
        remainingHigh80Mg: grams(460),
        remainingLow95Mg: grams(350),
        remainingHigh95Mg: grams(490),
        openCount: 1,
        records,
      },
    ],
  ]);

describe('the bench’s words', () => {
  it('say how much more, than whose usual, and what to do', () => {
    expect(adviceWords(grams(720), { expected: expected(12) }, frame)).toBe(
      '300 g more than yours usually do. Flesh left on it? Scrape, then weigh again.',
    );
    expect(adviceWords(grams(300), { expected: expected(0) }, frame)).toBe('120 g less than the handbook expects.');
  });

  it('say nothing inside the usual range, or of a piece nothing is expected of', () => {
    expect(adviceWords(grams(430), { expected: expected(3) }, frame)).toBeUndefined();
    expect(adviceWords(grams(430), { expected: new Map() }, frame)).toBeUndefined();
  });

  it('say what a supplier’s animals give against the others’, and which is the first of one', () => {
    const of = (records: number, more: number | null) => [{ supplier: { records, others: 20, more } }];
    expect(supplierWords('Quay', of(4, -0.123))).toBe('Quay: 12 % less of it than from others, 4 cut');
    expect(supplierWords('Quay', of(4, 0.08))).toBe('Quay: 8 % more of it than from others, 4 cut');
    expect(supplierWords('Quay', of(0, null))).toBe('the first from Quay: less sure');
    expect(supplierWords('Quay', of(4, null))).toBeUndefined();
    expect(supplierWords('Quay', [{ supplier: null }])).toBeUndefined();
  });

  it('name one of several by its side, and a single piece in full', () => {
    const fillet = { ...frame, name: 'fillet, skin on', count: 2, units: ['first side', 'second side'] };
    expect(unitName(fillet, 1)).toBe('fillet, second side');
    expect(unitName(fillet, 2)).toBe('fillet, one more');
    expect(unitName(frame, 0)).toBe('frame, backbone and tail');
  });
});
