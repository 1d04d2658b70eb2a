import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { animalsNeeded } from './animalsNeeded.ts';
import { type CuttingEvent, cuttingLines, givenAway, judgeCutting, offSize, readCutting } from './cutting.ts';
import { mixOptions } from './mixOptions.ts';
import { fitProfile, massBetween, type PieceProfile } from './pieceProfile.ts';
import type { PieceTemplate } from './pieceTemplate.ts';
import { type CutWish, cutEqually, type PortionSize, planCuts, readMarks, sizeOf } from './planCuts.ts';
import { wishFaults } from './wishFaults.ts';

const template: PieceTemplate = {
  id: 'fillet',
  name: 'Fillet',
  widths: [0.78, 0.98, 1, 0.85, 0.57, 0.28],
  thicknesses: [0.92, 1, 0.9, 0.68, 0.43, 0.22],
  sectionFactor: 0.82,
  lengthToWidth: 4.4,
  widthToThickness: 3.6,
  density: 1.055,
  shapeSd: 0.1,
  shapeReach: 0.25,
  measureAt: [0.25, 0.67],
  zones: { head: [0, 0.33], centre: [0.2, 0.75], tail: [0.6, 1] },
  ends: ['shoulder', 'tail'],
  acrossIsThickness: false,
  provenance: 'estimate',
  source: 'test',
};
const block: PieceTemplate = { ...template, widths: [1, 1], thicknesses: [1, 1], sectionFactor: 1 };
const fillet = fitProfile(template, { massMg: 689_000, lengthMm: 415 });
const main: PortionSize = { id: 'main', name: 'main', targetMg: 160_000, toleranceShare: 0.05, valueMinor: 780 };
const starter: PortionSize = {
  id: 'starter',
  name: 'starter',
  targetMg: 90_000,
  toleranceShare: 0.06,
  valueMinor: 400,
};
const wish = (change: Partial<CutWish> = {}): CutWish => ({
  sizes: [main],
  angleDeg: 0,
  squareMm: [0, 0],
  kerfMm: 0,
  clingMg: 0,
  tail: 'end',
  endMinorPerKg: 0,
  ...change,
});
const adds = (profile: PieceProfile, w: CutWish): number => {
  const plan = planCuts(profile, w);
  return plan.portions.reduce((sum, p) => sum + p.massMg, 0) + plan.endMg + plan.lostMg;
};

describe('cutting to weight', () => {
  it('gives four portions of 160 g and a tail from a fillet of 689 g, heavier ones from the thick end', () => {
    const plan = planCuts(fillet, wish());
    expect(plan.portions).toHaveLength(4);
    for (const p of plan.portions) expect(Math.abs(p.massMg / 160_000 - 1)).toBeLessThanOrEqual(0.0501);
    expect(plan.valueMinor).toBe(4 * 780);
    expect(plan.portions.every((p, i) => i === 0 || p.fromMm >= (plan.portions[i - 1]?.toMm ?? 0))).toBe(true);
    expect(plan.portions[3]?.sdMg).toBeGreaterThan(1_000);
  });

  it('accounts for the whole piece with a saw, cling, a slant and squared ends', () => {
    for (const w of [
      wish({ kerfMm: 2 }),
      wish({ clingMg: 700 }),
      wish({ angleDeg: 30 }),
      wish({ squareMm: [10, 15], angleDeg: 20 }),
      wish({ sizes: [main, starter], kerfMm: 1, clingMg: 300, locked: [120, 300] }),
    ])
      expect(adds(fillet, w)).toBeCloseTo(689_000, -1);
    expect(planCuts(fillet, wish({ squareMm: [10, 0] })).ends[0]).toMatchObject({ fromMm: 0 });
    // what is cut already is not planned again
    const rest = planCuts(fillet, wish({ fromMm: 200 }));
    expect(rest.portions[0]?.fromMm).toBe(200);
  });

  it('takes a slanted cut of an even block at the same places, and leaves wedges', () => {
    const even = fitProfile(block, { massMg: 800_000, lengthMm: 400, widths: [{ at: 0.5, mm: 60 }] });
    const straight = planCuts(even, wish());
    const slanted = planCuts(even, wish({ angleDeg: 30, squareMm: [1, 1] }));
    expect(straight.portions).toHaveLength(5);
    expect(straight.endMg).toBe(0);
    // height 31.6 mm: a wedge is 31.6 x tan 30 = 18 mm long, half of it at either end in mass
    expect(slanted.portions).toHaveLength(4);
    for (const p of slanted.portions) expect(Math.abs((p.toMm - p.fromMm) * 2_000 - p.massMg)).toBeLessThan(1_500);
    expect(planCuts(fillet, wish({ angleDeg: -25 })).portions.length).toBeGreaterThan(0);
  });

  it('holds to zones, most, lengths, thickness and locked cuts', () => {
    const tailOnly = planCuts(fillet, wish({ sizes: [{ ...starter, from: ['tail'] }] }));
    for (const p of tailOnly.portions) expect((p.fromMm + p.toMm) / 2 / 415).toBeGreaterThanOrEqual(0.6);
    expect(tailOnly.portions.length).toBeGreaterThan(0);
    const two = planCuts(
      fillet,
      wish({
        sizes: [
          { ...main, most: 2 },
          { ...starter, most: 1 },
        ],
      }),
    );
    expect(two.portions.map((p) => p.sizeId).sort()).toEqual(['main', 'main', 'starter']);
    expect(planCuts(fillet, wish({ sizes: [{ ...main, most: 0 }] })).portions).toHaveLength(0);
    for (const p of planCuts(fillet, wish({ sizes: [{ ...main, span: { min: 90, max: 120 } }] })).portions)
      expect(p.toMm - p.fromMm).toBeGreaterThanOrEqual(90);
    for (const p of planCuts(fillet, wish({ sizes: [{ ...main, body: { min: 20, max: 40 } }] })).portions)
      expect(p.bodyMm).toBeGreaterThanOrEqual(20);
    const locked = planCuts(fillet, wish({ sizes: [main, starter], locked: [150] }));
    for (const p of locked.portions) expect(p.fromMm < 150 && p.toMm > 150).toBe(false);
  });

  it('folds a thin tail under the last portion when asked to, where an end would be left otherwise', () => {
    const thick = { ...main, body: { min: 12, max: 99 }, toleranceShare: 0.12 };
    const [folded, flat] = [
      planCuts(fillet, wish({ sizes: [thick], tail: 'fold' })),
      planCuts(fillet, wish({ sizes: [thick] })),
    ];
    expect(folded.endMg).toBeLessThanOrEqual(flat.endMg);
    expect(folded.portions.at(-1)?.folded).toBe(folded.portions.at(-1)?.toMm === 415);
  });

  it('prefers fewer sizes, then the heavier portion from the thick end, where all else is the same', () => {
    const even = fitProfile(block, { massMg: 400_000, lengthMm: 400 });
    const size = (id: string, grams: number, valueMinor: number): PortionSize => ({
      id,
      name: id,
      targetMg: grams * 1_000,
      toleranceShare: 0,
      valueMinor,
    });
    // 2 x 200 or 1 x 200 + 2 x 100: same worth, no end
    expect(
      planCuts(even, wish({ sizes: [size('a', 200, 200), size('b', 100, 100)] })).portions.map((p) => p.sizeId),
    ).toEqual(['a', 'a']);
    const three = planCuts(even, wish({ sizes: [size('a', 150, 150), { ...size('b', 250, 260), most: 1 }] }));
    expect(three.portions.map((p) => p.sizeId)).toEqual(['b', 'a']);
  });

  const sumsOf = (masses: readonly number[]): number[] => {
    const sums = [0];
    for (const m of masses) sums.push((sums.at(-1) ?? 0) + m);
    return sums;
  };
  /** Every way there is to part a small piece: worth over the end's price, odd pieces, sizes out of order, left over and off target. */
  const byBruteForce = (masses: readonly number[], sizes: readonly PortionSize[], endMinorPerKg: number): number[] => {
    const n = masses.length;
    const sums = sumsOf(masses);
    let best = [-1, 0, 0, 0];
    const go = (x: number, plan: readonly [number, number, number, number], skipping: number, last: number): void => {
      const [worth, odd, turns, spoil] = plan;
      if (x === n) {
        const off = [worth - (best[0] ?? 0), ...[odd, turns, spoil].map((v, i) => (best[i + 1] ?? 0) - v)];
        if ((off.find((d) => d !== 0) ?? 0) > 0) best = [...plan];
        return;
      }
      go(x + 1, [worth, odd, turns, spoil + (masses[x] ?? 0)], 1, last);
      for (let y = x + 1; y <= n; y += 1)
        for (const size of sizes) {
          const mg = (sums[y] ?? 0) - (sums[x] ?? 0);
          if (Math.abs(mg - size.targetMg) > size.toleranceShare * size.targetMg + 0.5) continue;
          const turn = size.targetMg > last ? 1 : 0;
          const worthThen = worth + size.valueMinor * 1e6 - size.targetMg * endMinorPerKg;
          const off = Math.round((50 * (mg - size.targetMg) ** 2) / size.targetMg);
          go(y, [worthThen, odd + skipping, turns + turn, spoil + off], 0, size.targetMg);
        }
    };
    go(0, [0, 0, 0, 0], 0, Number.POSITIVE_INFINITY);
    return best;
  };

  it('finds what trying everything finds, on small pieces', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 40 }), { minLength: 10, maxLength: 13 }),
        fc.array(
          fc.record({
            target: fc.integer({ min: 20, max: 120 }),
            value: fc.integer({ min: 1, max: 9 }),
            slack: fc.integer({ min: 0, max: 30 }),
          }),
          { minLength: 1, maxLength: 3 },
        ),
        fc.integer({ min: 0, max: 50 }),
        (grams, wanted, endMinorPerKg) => {
          const masses = grams.map((g) => g * 1_000);
          const sizes = wanted.map((w, i) => ({
            id: String(i),
            name: '',
            targetMg: w.target * 1_000,
            toleranceShare: w.slack / 100,
            valueMinor: w.value,
          }));
          const sums = sumsOf(masses);
          const shape = fitProfile(block, { massMg: sums.at(-1) ?? 1, lengthMm: masses.length });
          const plan = planCuts({ ...shape, upToMg: sums }, wish({ sizes, endMinorPerKg }));
          const worth = plan.portions.reduce((sum, p) => {
            const size = sizes[Number(p.sizeId)];
            return sum + (size?.valueMinor ?? 0) * 1e6 - (size?.targetMg ?? 0) * endMinorPerKg;
          }, 0);
          const odd = plan.ends.filter((e) => e.toMm < masses.length).length;
          const targets = plan.portions.map((p) => sizes[Number(p.sizeId)]?.targetMg ?? 0);
          const turns = targets.filter((mg, i) => i > 0 && mg > (targets[i - 1] ?? 0)).length;
          const spoil = plan.portions.reduce(
            (sum, p, i) => sum + Math.round((50 * (p.massMg - (targets[i] ?? 1)) ** 2) / (targets[i] ?? 1)),
            plan.endMg,
          );
          expect([worth, odd, turns, spoil]).toEqual(byBruteForce(masses, sizes, endMinorPerKg));
        },
      ),
      { numRuns: 300 },
    );
  });

  it('cuts a piece in n alike, to the millimetre', () => {
    const cuts = [0, ...cutEqually(fillet, 5), 415];
    for (let i = 0; i < 5; i += 1) {
      const mg = massBetween(fillet, cuts[i] ?? 0, cuts[i + 1] ?? 0);
      expect(Math.abs(mg - 689_000 / 5)).toBeLessThan(2_600);
    }
  });

  it('reads marks set by hand as the sizes they come near, and the rest as ends', () => {
    const read = readMarks(fillet, wish({ sizes: [main, starter], endMinorPerKg: 500 }), [90, 175, 265, 370]);
    expect(read.portions.length + read.ends.length).toBe(5);
    const all = read.portions.reduce((sum, p) => sum + p.massMg, 0) + read.endMg;
    expect(all / 689_000).toBeCloseTo(1, 4);
    expect(sizeOf([main, starter], 152_000)?.id).toBe('main');
    expect(sizeOf([main, starter], 120_000)).toBeUndefined();
  });
});

describe('mixes side by side', () => {
  it('are different, the most worth first, and say what each leaves', () => {
    const options = mixOptions(fillet, wish({ sizes: [main, starter], endMinorPerKg: 600 }));
    expect(options.length).toBeGreaterThanOrEqual(3);
    expect(options[0]?.kind).toBe('best');
    const light = (o: (typeof options)[number]): boolean =>
      o.portions.some((p) => p.massMg < (p.sizeId === main.id ? main : starter).targetMg * 0.94);
    const held = options.filter((o) => !light(o));
    expect(options.slice(0, held.length)).toEqual(held);
    expect(held.every((o, i) => i === 0 || o.valueMinor <= (held[i - 1]?.valueMinor ?? 0))).toBe(true);
    expect(options.some((o) => o.ends.length === 0)).toBe(true);
    const keys = options.map((o) =>
      o.portions
        .map((p) => p.sizeId)
        .sort()
        .join(),
    );
    expect(new Set(options.map((o, i) => `${keys[i]}/${o.ends.length === 0}`)).size).toBe(options.length);
  });
});

describe('wishes that cannot be', () => {
  it('are told apart, with the nearest that can', () => {
    const small = fitProfile(template, { massMg: 120_000, lengthMm: 200 });
    expect(wishFaults(small, wish())).toEqual([
      { code: 'target_above_piece', sizeId: 'main', targetMg: 160_000, leftMg: 120_000 },
    ]);
    expect(wishFaults(fillet, wish({ sizes: [] }))).toEqual([{ code: 'no_sizes' }]);
    expect(wishFaults(fillet, wish({ sizes: [{ ...main, span: { min: 90, max: 60 } }] }))[0]).toMatchObject({
      code: 'min_over_max',
      min: 90,
    });
    const exact = wishFaults(fillet, wish({ sizes: [{ ...main, toleranceShare: 0, span: { min: 80, max: 80 } }] }))[0];
    expect(exact?.code === 'tolerance_nothing' || exact?.code === 'nothing_fits').toBe(true);
    const slab = wishFaults(fillet, wish({ sizes: [{ ...main, body: { min: 60, max: 80 } }] }))[0];
    expect(slab).toMatchObject({ code: 'too_thin' });
    const long = wishFaults(fillet, wish({ sizes: [{ ...main, span: { min: 20, max: 40 } }] }))[0];
    expect(long).toMatchObject({ code: 'nothing_fits' });
    if (long?.code !== 'nothing_fits' || long.nearestTargetMg === null) throw new Error('no way out');
    expect(
      wishFaults(fillet, wish({ sizes: [{ ...main, span: { min: 20, max: 40 }, targetMg: long.nearestTargetMg }] })),
    ).toEqual([]);
    expect(wishFaults(fillet, wish({ sizes: [main, starter] }))).toEqual([]);
  });
});

describe('how many animals', () => {
  it('come to, grade by grade, the one with least odd ends first', () => {
    const grades = [
      { id: 'small', minMg: 1_000_000, maxMg: 1_500_000 },
      { id: 'medium', minMg: 2_000_000, maxMg: 3_000_000 },
      { id: 'tiny', minMg: 100_000, maxMg: 150_000 },
    ];
    const needs = animalsNeeded(template, grades, 0.43, 2, wish(), 24);
    expect(needs.map((n) => n.gradeId).sort()).toEqual(['medium', 'small']);
    for (const n of needs) expect(n.animals * n.portionsEach).toBeGreaterThanOrEqual(24 - 1e-9);
    expect(
      needs.every(
        (n, i) =>
          i === 0 || n.endShare + n.giveAwayShare >= (needs[i - 1]?.endShare ?? 0) + (needs[i - 1]?.giveAwayShare ?? 0),
      ),
    ).toBe(true);
    expect(animalsNeeded(template, grades, 0.43, 2, wish({ sizes: [] }), 24)).toEqual([]);
  });
});

describe('a cutting at work', () => {
  const at = '2026-11-25T09:00:00.000Z';
  const event = (id: string, body: CuttingEvent['body']): CuttingEvent => ({ id, at, by: 'Ines', body });
  const weigh = (id: string, line: string, massMg: number, replaces: string | null = null): CuttingEvent =>
    event(id, {
      kind: 'weigh',
      piece: 1,
      line,
      name: line,
      destination: line === 'end' ? 'filling' : 'portion',
      massMg,
      count: 1,
      predictedMg: null,
      fromMm: null,
      toMm: null,
      replaces,
    });

  it('is what its events leave standing', () => {
    const state = readCutting([
      event('m', { kind: 'piece', no: 1, measures: { massMg: 689_000, lengthMm: 410 } }),
      event('n', { kind: 'piece', no: 1, measures: { massMg: 689_000, lengthMm: 415 } }),
      weigh('a', 'main', 171_000),
      weigh('b', 'main', 158_000),
      weigh('c', 'main', 163_000, 'a'),
      weigh('d', 'end', 8_000),
      event('e', { kind: 'back', eventId: 'b' }),
    ]);
    expect(state.pieces.get(1)?.lengthMm).toBe(415);
    expect(state.weights.map((w) => w.id)).toEqual(['c', 'd']);
    expect(state.weighedMg).toBe(171_000);
    expect(cuttingLines(state.weights)).toEqual([
      { line: 'main', name: 'main', destination: 'portion', count: 1, massMg: 163_000 },
      { line: 'end', name: 'end', destination: 'filling', count: 1, massMg: 8_000 },
    ]);
    expect(givenAway(state.weights, [main])).toBe(3_000);
  });

  it('says which portions are off, and what is not accounted for', () => {
    expect(offSize({ line: 'main', massMg: 151_000, count: 1 }, [main])).toBe('light');
    expect(offSize({ line: 'main', massMg: 152_000, count: 1 }, [main])).toBeUndefined();
    expect(offSize({ line: 'main', massMg: 338_000, count: 2 }, [main])).toBe('heavy');
    expect(offSize({ line: 'end', massMg: 1, count: 1 }, [main])).toBeUndefined();
    const scale = { accuracyClass: 'III', intervalMg: 1_000, maxMg: 15_000_000 } as const;
    const four = [161_000, 160_000, 163_000, 156_000, 46_000].map((massMg) => ({ massMg, count: 1 }));
    expect(judgeCutting(689_000, 0, four, [scale], 0).verdict).toBe('balanced');
    expect(judgeCutting(689_000, 0, four.slice(0, 4), [scale], 0)).toMatchObject({
      verdict: 'short',
      unaccountedMg: 49_000,
    });
    expect(judgeCutting(689_000, 46_000, four.slice(0, 4), [scale], 0).verdict).toBe('balanced');
    expect(judgeCutting(600_000, 0, four, [scale], 0).verdict).toBe('gain');
  });
});
