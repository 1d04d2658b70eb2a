import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { grams } from '../quantity/mass.ts';
import { acrossAnimals } from './perAnimal.ts';
import { shareOfPurchase, yieldThrough } from './yieldThrough.ts';

describe('the share of a purchase a stage stands for', () => {
  it('is all of it for a delivery, whole or in part', () => {
    expect(shareOfPurchase([{ usedMg: grams(700), from: null, madeMg: grams(2_000) }])).toBe(1);
    expect(shareOfPurchase([])).toBe(1);
  });

  // worked example, common practice: a cod of 3 kg, fillets 50 % of it, loins 52 % of the fillets: 26 % of the fish
  it('multiplies through the stages, whether all of the piece goes on or half of it', () => {
    const fillet = { from: 'cod', madeMg: grams(1_500), parentStartMg: grams(3_000), parentShare: 1 };
    for (const usedMg of [grams(1_500), grams(750)])
      expect(shareOfPurchase([{ ...fillet, usedMg }]) * 0.52).toBeCloseTo(0.26, 12);
  });

  it('counts from what the parent stage itself stood for: half of four fifths is two fifths', () => {
    const input = {
      from: 'hare',
      usedMg: grams(500),
      madeMg: grams(500),
      parentStartMg: grams(1_000),
      parentShare: 0.8,
    };
    expect(shareOfPurchase([input])).toBeCloseTo(0.4, 12);
    expect(shareOfPurchase([input, { ...input, from: 'other', parentShare: 0.4 }])).toBeCloseTo(
      1_000 / (500 / 0.4 + 500 / 0.2),
      12,
    );
  });

  it('adds up the pieces of one purchase, and joins lots of several by what each stands for', () => {
    const of = (from: string, madeMg: number, parentStartMg: number) => ({
      usedMg: madeMg,
      from,
      madeMg,
      parentStartMg,
      parentShare: 1,
    });
    expect(shareOfPurchase([of('a', 200, 1_000), of('a', 100, 1_000)])).toBeCloseTo(0.3, 12);
    // 300 of 1000 and 100 of 1000: 400 of 2000
    expect(shareOfPurchase([of('a', 300, 1_000), of('b', 100, 1_000)])).toBeCloseTo(0.2, 12);
  });
});

describe('a purchase through all its stages', () => {
  const piece = (
    share: number,
    o: { wasted?: boolean; edible?: boolean; portion?: boolean; wentOn?: boolean } = {},
  ) => ({
    share,
    wasted: false,
    edible: false,
    portion: false,
    wentOn: false,
    ...o,
  });

  it('counts what a piece became, not the piece', () => {
    const through = yieldThrough([
      {
        startShare: 1,
        pieces: [piece(0.5, { wentOn: true, edible: true }), piece(0.3), piece(0.18, { wasted: true })],
      },
      { startShare: 0.5, pieces: [piece(0.8, { portion: true, edible: true }), piece(0.18, { edible: true })] },
    ]);
    expect(through.portionShare).toBeCloseTo(0.4, 12);
    expect(through.edibleShare).toBeCloseTo(0.49, 12);
    expect(through.recoveredShare).toBeCloseTo(0.79, 12);
    expect(through.wasteShare).toBeCloseTo(0.18, 12);
    expect(through.lossShare).toBeCloseTo(0.03, 12);
  });

  it('keeps the mass: recovered, waste and loss are the purchase', () => {
    const share = fc.double({ min: 0.02, max: 0.4, noNaN: true });
    fc.assert(
      fc.property(share, share, share, fc.boolean(), (a, b, c, wasted) => {
        const through = yieldThrough([
          { startShare: 1, pieces: [piece(a, { wentOn: true }), piece(b, { wasted })] },
          { startShare: a, pieces: [piece(c, { portion: true })] },
        ]);
        expect(through.recoveredShare + through.wasteShare + through.lossShare).toBeCloseTo(1, 9);
      }),
    );
  });
});

describe('a piece across the animals of a batch', () => {
  // NIST/SEMATECH e-Handbook 1.3.5.1 and 1.3.6.6: sample mean and standard deviation with n - 1; from memory. 4, 7, 10 -> 7 and 3
  it('has the sample mean and spread', () => {
    const w = (animal: number | null, g: number, pieceId = 'leg') => ({ animal, pieceId, massMg: grams(g) });
    const [leg] = acrossAnimals([w(1, 2), w(1, 2), w(2, 7), w(3, 10), w(null, 99)]);
    expect(leg).toMatchObject({ pieceId: 'leg', animals: 3, meanMg: grams(7), sdMg: grams(3), lowMg: grams(4) });
  });

  it('has no spread of one, and is not there when nobody said which animal', () => {
    expect(acrossAnimals([{ animal: 4, pieceId: 'leg', massMg: 5 }])[0]?.sdMg).toBeNull();
    expect(acrossAnimals([{ animal: null, pieceId: 'leg', massMg: 5 }])).toEqual([]);
  });
});
