import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cutThrough, type DoneCutting, partOn } from './cutThrough.ts';
import { yieldThrough } from './yieldThrough.ts';

const made = (massMg: number, o: Partial<DoneCutting['made'][number]> = {}) => ({
  massMg,
  portion: true,
  wasted: false,
  wentOnMg: 0,
  ...o,
});

describe('cutting to weight as a stage', () => {
  it('by hand: a barrel of 0.3 of the saddle, 0.94 of it portions, is 0.282 of the saddle', () => {
    const [stage] = cutThrough([
      {
        id: 'c',
        usedMg: 1_000,
        inputs: [{ usedMg: 1_000, stage: { startMg: 4_000, startShare: 1.2 } }],
        made: [made(940), made(50, { portion: false })],
      },
    ]);
    expect(stage?.startShare).toBeCloseTo(0.3, 12);
    expect(yieldThrough(stage === undefined ? [] : [stage])).toMatchObject({
      portionShare: expect.closeTo(0.282, 12),
      recoveredShare: expect.closeTo(0.297, 12),
      lossShare: expect.closeTo(0.003, 12),
    });
  });

  it('of a roll of two purchases only the own part is this purchase’s, also when it is cut', () => {
    const stages = cutThrough([
      {
        id: 'roll',
        usedMg: 1_000,
        inputs: [{ usedMg: 400, stage: { startMg: 2_000, startShare: 1 } }],
        made: [made(1_000, { portion: false, wentOnMg: 1_000 })],
      },
      { id: 'cut', usedMg: 1_000, inputs: [{ usedMg: 1_000, stage: { cuttingId: 'roll' } }], made: [made(900)] },
    ]);
    expect(stages.map((s) => s.startShare)).toEqual([0.2, 0.2]);
    expect(yieldThrough(stages).portionShare).toBeCloseTo(0.18, 12);
  });

  it('by hand: of 0.4 a quarter went on', () => {
    expect(partOn(0.4, 0.25)).toEqual([
      { share: 0.1, wentOn: true },
      { share: expect.closeTo(0.3, 12), wentOn: false },
    ]);
    expect(partOn(0.4, 1)).toEqual([{ share: 0.4, wentOn: true }]);
  });

  it('parts of a share add up to it, whatever went on', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: -1, max: 2, noNaN: true }),
        (share, on) => {
          const parts = partOn(share, on);
          expect(parts.reduce((sum, p) => sum + p.share, 0)).toBeCloseTo(share, 12);
          expect(parts.every((p) => p.share >= 0)).toBe(true);
        },
      ),
    );
  });
});
