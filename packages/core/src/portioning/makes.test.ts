import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { mouldMl, mouldsFor, planCase, planMould } from './moulds.ts';
import { fitProfile } from './pieceProfile.ts';
import type { PieceTemplate } from './pieceTemplate.ts';
import { layTogether, pairForRolls, planRoll } from './rolls.ts';
import { planSlices, shareSlices } from './slices.ts';

const taper: PieceTemplate = {
  id: 'loin',
  name: 'Loin',
  widths: [1, 0.4],
  thicknesses: [1, 1],
  sectionFactor: 1,
  lengthToWidth: 5,
  widthToThickness: 1.5,
  density: 1.06,
  shapeSd: 0.08,
  shapeReach: 0.3,
  measureAt: [0.25, 0.67],
  zones: { head: [0, 0.33], centre: [0.2, 0.75], tail: [0.6, 1] },
  ends: ['thick', 'thin'],
  acrossIsThickness: true,
  provenance: 'estimate',
  source: 'test',
};
const loin = (massMg: number, lengthMm = 200) => fitProfile(taper, { massMg, lengthMm });

describe('slices of a block', () => {
  const wish = { lengthMm: 200, widthMm: 60, heightMm: 40, sliceMm: 8, angleDeg: 0, bladeMm: 0, density: 1.06 };
  it('come out of straight division, and slanted ones of the cosine and two wedges', () => {
    const straight = planSlices(wish);
    expect(straight).toMatchObject({ rows: 1, perRow: 25, count: 25 });
    expect(straight.sliceMg).toBeCloseTo(8 * 60 * 40 * 1.06, 6);
    expect(straight.restMg).toBeCloseTo(0, 6);
    const slanted = planSlices({ ...wish, angleDeg: 45 });
    // 40 mm of wedge, 160 mm left, 8 / cos 45 = 11.31 mm a slice
    expect(slanted.perRow).toBe(14);
    expect(slanted.faceMm[1]).toBeCloseTo(40 * Math.SQRT2, 6);
    expect(planSlices({ ...wish, sliceMm: 300 }).count).toBe(0);
    expect(planSlices({ ...wish, heightMm: 210, angleDeg: 45 }).count).toBe(0);
    expect(() => planSlices({ ...wish, sliceMm: 0 })).toThrow('not_a_length');
  });

  it('keep the mass of the block, whatever is asked', () => {
    fc.assert(
      fc.property(
        fc.record({
          lengthMm: fc.integer({ min: 20, max: 400 }),
          widthMm: fc.integer({ min: 20, max: 200 }),
          heightMm: fc.integer({ min: 10, max: 100 }),
          sliceMm: fc.integer({ min: 1, max: 40 }),
          angleDeg: fc.integer({ min: 0, max: 60 }),
          bladeMm: fc.integer({ min: 0, max: 3 }),
          rowMm: fc.option(fc.integer({ min: 10, max: 200 })),
          density: fc.constant(1.06),
          massMg: fc.constant(900_000),
        }),
        (w) => {
          const p = planSlices(w);
          expect((p.slicesMg + p.wedgesMg + p.restMg + p.stripMg + p.lostMg) / 900_000).toBeCloseTo(1, 9);
          expect(Math.min(p.slicesMg, p.wedgesMg, p.restMg, p.stripMg, p.lostMg)).toBeGreaterThanOrEqual(-1e-6);
        },
      ),
    );
  });

  it('can be made to leave nothing, and go different ways', () => {
    const { evenMm } = planSlices({ ...wish, sliceMm: 7 });
    expect(planSlices({ ...wish, sliceMm: evenMm }).restMg).toBeCloseTo(0, 3);
    expect(
      shareSlices(25, [
        { id: 'raw', share: 0.5 },
        { id: 'seared', share: 0.3 },
        { id: 'cured', share: 0.2 },
      ]),
    ).toEqual([
      { id: 'raw', from: 0, count: 13 },
      { id: 'seared', from: 13, count: 7 },
      { id: 'cured', from: 20, count: 5 },
    ]);
    expect(shareSlices(5, [{ id: 'raw', share: 0 }])[0]?.count).toBe(0);
  });
});

describe('rolls', () => {
  it('of two alike tapering loins lie head to tail and are even', () => {
    const roll = layTogether([loin(300_000), loin(300_000)], [0, 1]);
    expect(roll.laid).toEqual([
      { piece: 0, turned: false },
      { piece: 1, turned: true },
    ]);
    expect(roll.unevenness).toBeLessThan(1e-9);
    expect(layTogether([loin(300_000)], [0]).unevenness).toBeGreaterThan(0.2);
  });

  it('are paired as trying every pairing would pair them', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 200, max: 420 }), { minLength: 2, maxLength: 7 }), (grams) => {
        const profiles = grams.map((g, i) => loin(g * 1_000, 180 + 10 * (i % 3)));
        const mean = (profiles.reduce((sum, p) => sum + p.massMg, 0) / profiles.length) * 2;
        const cost = (set: readonly number[]): number => {
          const roll = layTogether(profiles, set);
          return roll.unevenness ** 2 + (roll.massMg / mean - 1) ** 2;
        };
        const all = (free: readonly number[], spare: number): number => {
          const [first, ...rest] = free;
          if (first === undefined) return 0;
          const left = spare > 0 ? all(rest, spare - 1) : Number.POSITIVE_INFINITY;
          return Math.min(
            left,
            ...rest.map(
              (other) =>
                cost([first, other]) +
                all(
                  rest.filter((i) => i !== other),
                  spare,
                ),
            ),
          );
        };
        const found = pairForRolls(profiles, 2);
        expect(found).toHaveLength(Math.floor(grams.length / 2));
        const sum = found.reduce((s, roll) => s + roll.unevenness ** 2 + (roll.massMg / mean - 1) ** 2, 0);
        expect(sum).toBeCloseTo(
          all(
            grams.map((_, i) => i),
            grams.length % 2,
          ),
          9,
        );
      }),
      { numRuns: 40 },
    );
    expect(pairForRolls([loin(1_000)], 2)).toEqual([]);
    expect(pairForRolls([loin(300_000), loin(310_000), loin(305_000)], 3)[0]?.laid).toHaveLength(3);
    expect(() => pairForRolls([], 2)).toThrow('no_pieces');
    expect(() =>
      pairForRolls(
        Array.from({ length: 13 }, () => loin(1_000)),
        2,
      ),
    ).toThrow('too_many_pieces');
  });

  it('know their thickness, wrapping, ties and portions after the rest', () => {
    const wish = {
      massMg: (1_060 * 150 * Math.PI * 25 ** 2) / 1_000,
      lengthMm: 150,
      density: 1.06,
      coreMg: 0,
      wrap: { kind: 'sheet', widthMm: 50, lengthMm: 120, thicknessMm: 2 },
      overlapShare: 0.1,
      tieSpacingMm: 30,
      rest: { minHours: 6, maxHours: 24 },
      dripShare: 0.01,
      targetMg: 60_000,
      toleranceShare: 0.1,
    } as const;
    const plan = planRoll(wish);
    expect(plan.diameterMm).toBeCloseTo(50, 6);
    expect(plan.wrapLengthMm).toBeCloseTo(Math.PI * 52 * 1.1, 6);
    // 150 / 45 -> 4 across; 180 / 120 -> 2 each
    expect(plan.sheets).toEqual({ across: 4, roundEach: 2, count: 8 });
    expect(plan.ties).toEqual([15, 45, 75, 105, 135]);
    expect(plan.portions * plan.portionMg).toBeCloseTo(wish.massMg * 0.99, 3);
    const flap = planRoll({ ...wish, wrap: { kind: 'flap', widthMm: 200, lengthMm: 160 } }).flap;
    expect(flap).toMatchObject({ lengthMm: 150, enough: true });
    expect(flap?.trimShare).toBeCloseTo(1 - (Math.PI * 50 * 1.1 * 150) / (200 * 160), 6);
    expect(planRoll({ ...wish, wrap: { kind: 'flap', widthMm: 90, lengthMm: 160 } }).flap?.enough).toBe(false);
    expect(planRoll({ ...wish, wrap: { kind: 'none' } }).sheets).toBeUndefined();
    expect(() => planRoll({ ...wish, lengthMm: 0 })).toThrow('not_a_length');
    expect(() => planRoll({ ...wish, massMg: -1 })).toThrow('not_a_mass');
  });
});

describe('moulds and cases', () => {
  it('hold what the geometry books say', () => {
    expect(mouldMl({ kind: 'ring', diameterMm: 100, heightMm: 50 })).toBeCloseTo((Math.PI * 2_500 * 50) / 1_000, 9);
    expect(mouldMl({ kind: 'terrine', lengthMm: 290, topMm: 95, bottomMm: 80, heightMm: 75 })).toBeCloseTo(
      1_903.125,
      6,
    );
    // a frustum whose two ends are alike is a cylinder; one that comes to a point is a cone
    expect(mouldMl({ kind: 'dariole', topMm: 100, bottomMm: 100, heightMm: 50 })).toBeCloseTo(
      (Math.PI * 2_500 * 50) / 1_000,
      9,
    );
    expect(mouldMl({ kind: 'dariole', topMm: 100, bottomMm: 0, heightMm: 60 })).toBeCloseTo(
      (Math.PI * 2_500 * 60) / 3_000,
      9,
    );
    expect(mouldMl({ kind: 'dome', diameterMm: 70 })).toBeCloseTo(((2 / 3) * Math.PI * 35 ** 3) / 1_000, 9);
    expect(mouldMl({ kind: 'gutter', lengthMm: 300, diameterMm: 80 })).toBeCloseTo(
      (Math.PI * 40 ** 2 * 300) / 2_000,
      9,
    );
    expect(mouldMl({ kind: 'ring', diameterMm: 100, heightMm: 50 }, 60)).toBe(0);
  });

  it('give lining, heart and covers', () => {
    const wish = {
      mould: { kind: 'terrine', lengthMm: 290, topMm: 95, bottomMm: 80, heightMm: 75 },
      moulds: 2,
      density: 1,
      fillShare: 0.95,
      liningMm: 5,
      liningDensity: 1.05,
      cookLossShare: 0.04,
      courses: [
        { id: 'main', name: 'main', grams: 150 },
        { id: 'starter', name: 'starter', grams: 75 },
        { id: 'feast', name: 'feast', grams: 5_000 },
      ],
    } as const;
    const plan = planMould(wish);
    expect(plan.liningMg + plan.heartMg).toBeCloseTo(plan.filledMg, 6);
    expect(plan.heartMg / 2_000).toBeCloseTo((280 * 77.5 * 70 * 0.95) / 1_000, 6);
    const starter = plan.courses[1];
    expect(starter?.covers).toBe(2 * (starter?.perMould ?? 0));
    expect(starter?.sliceMm).toBeCloseTo(290 / (starter?.perMould ?? 1), 9);
    expect(plan.courses[2]).toMatchObject({ covers: 0, sliceMm: null });
    const { moulds: _, ...one } = wish;
    const needed = mouldsFor(one, 'starter', 60) ?? 0;
    expect(planMould({ ...wish, moulds: needed }).courses[1]?.covers).toBeGreaterThanOrEqual(60);
    expect(planMould({ ...wish, moulds: needed - 1 }).courses[1]?.covers).toBeLessThan(60);
    expect(mouldsFor(one, 'feast', 1)).toBeNull();
    expect(() => planMould({ ...wish, fillShare: 0 })).toThrow('not_a_length');
  });

  it('fit a case to the piece, or the piece to the sheet', () => {
    const piece = { lengthMm: 300, widthMm: 100, heightMm: 50 };
    const one = planCase({ piece, sheet: { lengthMm: 600, widthMm: 400 }, sealMm: 20 });
    expect(one).toMatchObject({ bottomMm: [340, 140], lidMm: [440, 240], sheets: 1, pieces: 1, longestMm: 460 });
    expect(planCase({ piece, sheet: { lengthMm: 400, widthMm: 260 }, sealMm: 20 })).toMatchObject({
      pieces: 2,
      sheets: 4,
      longestMm: 260,
    });
    expect(planCase({ piece, sheet: { lengthMm: 200, widthMm: 200 }, sealMm: 20 })).toMatchObject({
      pieces: null,
      sheets: 0,
    });
  });
});
