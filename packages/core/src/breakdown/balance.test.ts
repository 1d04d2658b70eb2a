import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { grams } from '../quantity/mass.ts';
import { judgeBalance } from './balance.ts';
import {
  combinedError,
  combinedScaleError,
  maximumPermissibleError,
  minimumLoad,
  type ScaleSpec,
  scaleFor,
} from './scaleTolerance.ts';

const scale = (accuracyClass: ScaleSpec['accuracyClass'], e: number): ScaleSpec => ({
  accuracyClass,
  intervalMg: grams(e),
  maxMg: grams(e * 10_000),
});

describe('scale tolerance', () => {
  // OIML R 76-1:2006, Table 6 and 3.5.2, published figures recalled; cases written for this project
  it.each([
    ['III', 5, 2_000, false, 2.5],
    ['III', 5, 2_500, false, 2.5],
    ['III', 5, 2_501, false, 5],
    ['III', 5, 12_000, false, 7.5],
    ['III', 5, 12_000, true, 15],
    ['III', 5, 10_005, false, 7.5],
    ['III', 5, 180, true, 5],
    ['II', 0.1, 600, false, 0.1],
  ] as const)('class %s, e = %d g, %d g, in service %s: %d g', (cls, e, load, inService, expected) => {
    expect(maximumPermissibleError(scale(cls, e), grams(load), inService) / 1_000).toBeCloseTo(expected, 9);
  });

  it('knows the lightest load worth trusting', () => {
    expect(minimumLoad(scale('III', 5))).toBe(grams(100));
  });

  it('adds separate errors in quadrature', () => {
    expect(combinedScaleError(scale('III', 1), [grams(300), grams(300)])).toBeCloseTo(Math.SQRT2 * grams(1), 6);
  });
});

describe('judging a balance', () => {
  const judge = (
    startG: number,
    piecesG: readonly number[],
    missing: readonly { pieceId: string; expectedMg: number }[] = [],
  ) =>
    judgeBalance({
      startMg: grams(startG),
      startScale: scale('III', 1),
      weighed: piecesG.map((g) => ({ massMg: grams(g), scale: scale('III', 1) })),
      drip: { mean: 0.013, sd: 0.006 },
      missing,
    });

  it('knows the worked example of a yield test', () => {
    // 1800 g start, pieces 592 551 118 388 70 21 29: 31 g unaccounted (butcher's test, common practice)
    const balance = judge(1_800, [592, 551, 118, 388, 70, 21, 29]);
    expect(balance.weighedMg).toBe(grams(1_769));
    expect(balance.unaccountedMg).toBe(grams(31));
    expect(balance.verdict).toBe('balanced');
  });

  it('calls it short beyond drip and scale, and names the piece that fits the gap', () => {
    const balance = judge(
      2_860,
      [608, 72, 689, 668],
      [
        { pieceId: 'frame', expectedMg: grams(790) },
        { pieceId: 'pin', expectedMg: grams(40) },
      ],
    );
    expect(balance.verdict).toBe('short');
    expect(balance.likeliestPieceId).toBe('frame');
  });

  it('calls it a gain when the pieces outweigh the start by more than the scale explains', () => {
    expect(judge(1_000, [700, 320]).verdict).toBe('gain');
    expect(judge(1_000, [700, 301]).verdict).toBe('balanced');
  });

  it('never blames a piece when the balance holds', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 200, max: 20_000 }),
        fc.array(fc.integer({ min: 1, max: 3_000 }), { minLength: 1, maxLength: 12 }),
        (start, pieces) => {
          const balance = judge(start, pieces, [{ pieceId: 'x', expectedMg: 1 }]);
          expect(balance.unaccountedMg).toBe(grams(start) - pieces.reduce((a, b) => a + grams(b), 0));
          expect(balance.likeliestPieceId === undefined).toBe(balance.verdict !== 'short');
        },
      ),
    );
  });
});

describe('several scales in a house', () => {
  const portion = { accuracyClass: 'III', intervalMg: grams(1), maxMg: grams(15_000) } as const;
  const floor = { accuracyClass: 'III', intervalMg: grams(20), maxMg: grams(150_000) } as const;

  it('takes the smallest that can hold a load, and the largest when none can', () => {
    expect(scaleFor([floor, portion], grams(900))).toBe(portion);
    expect(scaleFor([floor, portion], grams(36_000))).toBe(floor);
    expect(scaleFor([portion, floor], grams(900_000))).toBe(floor);
  });

  it('adds each weighing’s own error', () => {
    // OIML R 76-1 class III in service: 36 kg at e = 20 g is 1800 e, so 2 e = 40 g; 300 g at e = 1 g is 300 e, so 1 e = 1 g
    const error = combinedError([
      { massMg: grams(36_000), scale: floor },
      { massMg: grams(300), scale: portion },
    ]);
    expect(error).toBeCloseTo(Math.hypot(grams(40), grams(1)), 6);
  });
});

describe('the margin of a balance, worked out by hand', () => {
  // ten kilos off a class III scale in whole grams: 3 g in service above 2,000 intervals, twice in quadrature 4.24 g; drip 1 % give or take half a per cent
  const of = (weighedG: number, missing: { pieceId: string; expectedMg: number }[] = []) =>
    judgeBalance({
      startMg: grams(10_000),
      startScale: scale('III', 1),
      weighed: [{ massMg: grams(weighedG), scale: scale('III', 1) }],
      drip: { mean: 0.01, sd: 0.005 },
      missing,
    });

  it('lets pass the usual drip, two of its spreads and the scale: 204 g, and not 205', () => {
    expect(of(9_796)).toMatchObject({ verdict: 'balanced', unaccountedMg: grams(204), allowedMg: 204_243 });
    expect(of(9_795)).toMatchObject({ verdict: 'short' });
    expect(of(10_004).verdict).toBe('balanced');
    expect(of(10_005).verdict).toBe('gain');
  });

  it('names the piece that fits what is left once the usual drip is off: of 500 g, 400', () => {
    const missing = [
      { pieceId: 'six', expectedMg: grams(600) },
      { pieceId: 'four', expectedMg: grams(400) },
    ];
    expect(of(9_500, missing).likeliestPieceId).toBe('four');
    expect(of(9_300, missing).likeliestPieceId).toBe('six');
    expect(of(9_800, missing).likeliestPieceId).toBeUndefined();
  });
});
