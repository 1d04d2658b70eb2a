import type { Lot } from '@zabrik/contract';
import { describe, expect, it } from 'vitest';
import { countedOf, linesOf, roundOf } from './stockTake.ts';

const lot = (id: string, massMg: number): Lot => ({ id, massMg }) as Lot;
const lots = [lot('a', 500_000), lot('b', 1_200_000), lot('c', 80_000)];
const typed = (o: Record<string, readonly [string, string?]>) =>
  new Map(
    Object.entries(o).map(([id, [text, reason = '']]) => {
      const seen = lots.find((l) => l.id === id) ?? lot(id, 0);
      return [id, { text, reason, seen: { massMg: seen.massMg, pieces: 1 } }];
    }),
  );

describe('a round through the larder', () => {
  it('counts what can be read, asks a reason of what differs, and adds the difference up', () => {
    expect(roundOf(lots, typed({ a: ['500'], b: ['1.15 kg'], c: ['some'] }))).toEqual({
      counted: 2,
      differing: 1,
      differenceMg: -50_000,
      unexplained: ['b'],
      unreadable: ['c'],
    });
    expect(roundOf(lots, typed({ b: ['1.15 kg', 'drip'] })).unexplained).toEqual([]);
    expect(roundOf(lots, new Map())).toMatchObject({ counted: 0, differing: 0 });
  });

  it('sends only what was counted, and no reason for what agrees', () => {
    expect(linesOf(lots, typed({ a: ['500', 'drip'], b: ['0', 'used'], c: [''] }))).toEqual([
      { lotId: 'a', countedMg: 500_000, countedPieces: null, seenMg: 500_000, seenPieces: 1, reason: null },
      { lotId: 'b', countedMg: 0, countedPieces: 0, seenMg: 1_200_000, seenPieces: 1, reason: 'used' },
    ]);
  });

  it('is held against what the book said when it was counted, not against what it says by the end', () => {
    const served = lots.map((l) => (l.id === 'a' ? lot('a', 200_000) : l));
    expect(roundOf(served, typed({ a: ['500'] }))).toMatchObject({ counted: 1, differing: 0 });
    expect(roundOf(served, typed({ a: ['450', 'drip'] }))).toMatchObject({ differing: 1, differenceMg: -50_000 });
    expect(linesOf(served, typed({ a: ['450', 'drip'] }))).toMatchObject([
      { countedMg: 450_000, seenMg: 500_000, reason: 'drip' },
    ]);
  });

  it('knows nothing from not counted', () => {
    const of = (text: string) => countedOf(text, { massMg: 3_360_000, pieces: 21 });
    expect(of('0')).toEqual({ massMg: 0, pieces: 0 });
    expect(of('19 pc')).toEqual({ massMg: 3_040_000, pieces: 19 });
    expect(of('21 pieces')).toEqual({ massMg: 3_360_000, pieces: 21 });
    expect(of('3,040')).toEqual({ massMg: 3_040_000, pieces: null });
    expect(of('')).toBeUndefined();
    expect(of('lots')).toBeUndefined();
  });
});
