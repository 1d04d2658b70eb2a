import { describe, expect, it } from 'vitest';
import { seededRandom } from '../simulator/random.ts';
import { relativeCookTime } from './cookHint.ts';
import { meanOf, nodeWeights, observe, smoothField, varianceOf } from './field.ts';
import { heldOutError, learnShape, profileAfter } from './learnShape.ts';
import { fitProfile, learnFromPortion, massBetween, spreadBetween, upTo } from './pieceProfile.ts';
import { along, between, type PieceTemplate, usualLength } from './pieceTemplate.ts';

const plain: PieceTemplate = {
  id: 'test',
  name: 'Test piece',
  widths: [1, 1],
  thicknesses: [1, 1],
  sectionFactor: 1,
  lengthToWidth: 3,
  widthToThickness: 2,
  density: 1.05,
  shapeSd: 0.1,
  shapeReach: 0.25,
  measureAt: [0.25, 0.67],
  zones: { head: [0, 0.33], centre: [0.2, 0.75], tail: [0.6, 1] },
  ends: ['thick', 'thin'],
  acrossIsThickness: false,
  provenance: 'estimate',
  source: 'test',
};
const fillet: PieceTemplate = {
  ...plain,
  widths: [0.78, 0.98, 1, 0.85, 0.57, 0.28],
  thicknesses: [0.92, 1, 0.9, 0.68, 0.43, 0.22],
};

describe('a profile', () => {
  it('of a straight taper in one direction is the frustum of the geometry books', () => {
    // wedge: thickness falls evenly from 1 to 0.4, width stays. Volume of the part up to x: x - 0.3 x² (L = 1), of 0.7 in all
    const profile = fitProfile({ ...plain, thicknesses: [1, 0.4] }, { massMg: 700_000, lengthMm: 400 });
    for (const mm of [40, 100, 250, 399]) {
      const x = mm / 400;
      expect(upTo(profile, mm)).toBeCloseTo(1_000_000 * (x - 0.3 * x * x), 3);
    }
  });

  it('of a taper both ways is the prismoid: (A0 + 4 Am + A1) L / 6', () => {
    const both = { ...plain, widths: [1, 0.5], thicknesses: [1, 0.4] };
    const profile = fitProfile(both, { massMg: 1_000_000, lengthMm: 300 });
    const area = (x: number): number => (1 - 0.5 * x) * (1 - 0.6 * x);
    const prismoid = (a: number, b: number): number => ((b - a) * (area(a) + 4 * area((a + b) / 2) + area(b))) / 6;
    for (const [a, b] of [
      [0, 60],
      [60, 200],
      [200, 300],
    ] as const)
      expect(massBetween(profile, a, b) / 1_000_000).toBeCloseTo(prismoid(a / 300, b / 300) / prismoid(0, 1), 9);
  });

  it('keeps the mass of the scale whatever was measured, and never falls', () => {
    const profile = fitProfile(fillet, {
      massMg: 689_000,
      lengthMm: 415,
      widths: [
        { at: 0.25, mm: 92 },
        { at: 0.67, mm: 51 },
      ],
      thicknesses: [{ at: 0.25, mm: 31 }],
    });
    expect(upTo(profile, 415)).toBeCloseTo(689_000, 3);
    expect(profile.upToMg.every((mg, i) => i === 0 || mg >= (profile.upToMg[i - 1] ?? 0))).toBe(true);
    expect(profile.widthMm[104]).toBeCloseTo(92, 0);
    expect(profile.widthMm[278]).toBeCloseTo(51, 0);
  });

  it('gives back the thickness of a block from its length, width and mass', () => {
    const block = fitProfile(plain, { massMg: 1.05 * 200 * 80 * 40, lengthMm: 200, widths: [{ at: 0.5, mm: 80 }] });
    expect(block.thicknessMm[100]).toBeCloseTo(40, 6);
    expect(usualLength(plain, 1.05 * 300 * 100 * 50)).toBeCloseTo(300, 1);
  });

  it('refuses what is no piece', () => {
    expect(() => fitProfile(plain, { massMg: 0, lengthMm: 100 })).toThrow('not_a_mass');
    expect(() => fitProfile(plain, { massMg: 1, lengthMm: Number.NaN })).toThrow('not_a_length');
    expect(() => fitProfile(plain, { massMg: 1, lengthMm: 4 })).toThrow('not_a_length');
  });

  it('is surer of a portion the more was measured, and of one between marks already cut', () => {
    const least = fitProfile(fillet, { massMg: 689_000, lengthMm: 415 });
    const widths = [
      { at: 0.25, mm: 92 },
      { at: 0.67, mm: 51 },
    ];
    const some = fitProfile(fillet, { massMg: 689_000, lengthMm: 415, widths });
    const most = fitProfile(fillet, { massMg: 689_000, lengthMm: 415, widths, thicknesses: widths });
    const spread = [least, some, most].map((p) => spreadBetween(p, 171, 267));
    expect(spread[0]).toBeGreaterThan(spread[1] ?? 0);
    expect(spread[1]).toBeGreaterThan(spread[2] ?? 0);
    const cut = learnFromPortion(least, { fromMm: 0, toMm: 171, massMg: 330_000 });
    expect(spreadBetween(cut, 171, 267)).toBeLessThan(spread[0] ?? 0);
    expect(upTo(cut, 415)).toBeCloseTo(689_000, 3);
    // the first portion was as weighed, within what the knife explains
    expect(Math.abs(upTo(cut, 171) - 330_000)).toBeLessThan(2 * spreadBetween(cut, 0, 171));
  });
});

describe('a field', () => {
  it('agrees with the normal equations worked by hand for two nodes', () => {
    // prior variances 4 and 1, uncorrelated; seen: a + b = 3 with variance 1. Gain: (4, 1) / 6
    const field = { mean: [0, 0], covariance: [4, 0, 0, 1] };
    const seen = observe(field, [1, 1], 3, 1);
    expect(seen.mean[0]).toBeCloseTo(2, 12);
    expect(seen.mean[1]).toBeCloseTo(0.5, 12);
    expect(seen.covariance[0]).toBeCloseTo(4 - 16 / 6, 12);
    expect(seen.covariance[1]).toBeCloseTo(-4 / 6, 12);
    expect(seen.covariance[3]).toBeCloseTo(1 - 1 / 6, 12);
    expect(varianceOf(seen, [1, 1])).toBeCloseTo(5 - 25 / 6, 12);
  });

  it('does not depend on the order in which things were seen', () => {
    const field = smoothField(11, 0.2, 0.3);
    const [a, b] = [nodeWeights(11, 0.2), nodeWeights(11, 0.83)];
    const one = observe(observe(field, a, 0.1, 0.01), b, -0.2, 0.02);
    const other = observe(observe(field, b, -0.2, 0.02), a, 0.1, 0.01);
    expect(meanOf(one, nodeWeights(11, 0.5))).toBeCloseTo(meanOf(other, nodeWeights(11, 0.5)), 12);
    expect(observe(field, new Array(11).fill(0), 1, 0)).toBe(field);
  });

  it('draws straight lines between what it is given', () => {
    expect(along([0, 10, 0], 0.25)).toBe(5);
    expect(along([3], 0.7)).toBe(3);
    expect(
      between(
        [
          { at: 0.2, value: 1 },
          { at: 0.6, value: 3 },
        ],
        0.4,
      ),
    ).toBeCloseTo(2, 12);
    expect(
      between(
        [
          { at: 0.2, value: 1 },
          { at: 0.6, value: 3 },
        ],
        0.9,
      ),
    ).toBe(3);
    expect(between([], 0.5)).toBe(1);
  });

  it('says a slab half as thick again takes 2.25 times as long', () => {
    expect(relativeCookTime(30, 20)).toBeCloseTo(2.25, 12);
    expect(relativeCookTime(30, 0)).toBe(1);
  });
});

describe('the house’s own form', () => {
  /** Pieces whose shoulder is heavier than the handbook thinks, each a little different, cut at marks and weighed. */
  const records = Array.from({ length: 14 }, (_, k) => {
    const random = seededRandom(`fish ${k}`);
    const lean = 0.16 + 0.04 * random.normal();
    const massMg = 600_000 + 15_000 * k;
    const truth: PieceTemplate = { ...fillet, widths: fillet.widths.map((w, i) => w * (1 + lean * (1 - (2 * i) / 5))) };
    const real = fitProfile(truth, { massMg, lengthMm: 400 });
    const marks = [0, 80, 160, 250, 340];
    return {
      measures: { massMg, lengthMm: 400 },
      portions: marks.slice(0, -1).map((fromMm, i) => ({
        fromMm,
        toMm: marks[i + 1] ?? 0,
        massMg: Math.round(massBetween(real, fromMm, marks[i + 1] ?? 0)),
      })),
    };
  });

  it('is better than the handbook’s after a few pieces, foretelling each from those before it', () => {
    const error = heldOutError(fillet, records);
    expect(error.portions).toBe(13 * 4);
    expect(error.house).toBeLessThan(0.6 * error.handbook);
    expect(heldOutError(fillet, records.slice(0, 1))).toEqual({ handbook: 0, house: 0, portions: 0 });
  });

  it('is the handbook’s while nothing was cut, and surer with every piece', () => {
    const none = learnShape(fillet, []);
    expect(none.nodes.every((n) => n === 0)).toBe(true);
    expect(none.shapeSd).toBeCloseTo(fillet.shapeSd, 6);
    const learnt = learnShape(fillet, records);
    expect(learnt.shapeSd).toBeLessThan(none.shapeSd);
    expect(learnt.nodes[2]).toBeGreaterThan(0.05);
    const [first] = records;
    if (first === undefined) throw new Error('no records');
    const after = profileAfter(fillet, first.measures, learnt, first.portions.slice(0, 2));
    expect(Math.abs(massBetween(after, 160, 250) / (first.portions[2]?.massMg ?? 1) - 1)).toBeLessThan(0.03);
  });
});
