import { describe, expect, it } from 'vitest';
import { believeShare } from '../breakdown/shareBelief.ts';
import { clipAtThreeMads, type Handbook, predictNext, type SeenBefore, tQuantile } from './predictNext.ts';

const seen = (values: readonly number[], other = false): SeenBefore[] =>
  values.map((value) => ({ value, variance: 1, other }));
const nothing: Handbook = { mean: 0, sd: 1e-9, worth: 1e-9, spreadWorth: 1e-9, halfLife: 1e9 };
const handbook: Handbook = { mean: 0, sd: 1, worth: 4, spreadWorth: 1.4, halfLife: 10 };

describe('records far from the others', () => {
  it('are pulled in to three robust sds, the nearer ones stay as they are', () => {
    // median 0, median deviation 1: the fence stands at 3 x 1.4826
    const values = [-2, -1, -1, 0, 0, 1, 1, 2];
    expect(clipAtThreeMads([...values, 4.44, -4.44], 0)).toEqual([...values, 4.44, -4.44]);
    const [high, low] = clipAtThreeMads([...values, 0, 100, -7], 0).slice(-2);
    expect(high).toBeCloseTo(4.4478, 9);
    expect(low).toBeCloseTo(-4.4478, 9);
  });

  it('are not pulled in closer than half the handbook’s spread allows, where all the others are alike', () => {
    expect(clipAtThreeMads([1, 1, 1, 1, 9], 2)).toEqual([1, 1, 1, 1, 4]);
    expect(clipAtThreeMads([], 1)).toEqual([]);
  });
});

describe('predicting the next of a kind', () => {
  // Student's t, upper tail of one in ten and one in forty: any table, e.g. NIST/SEMATECH e-Handbook 1.3.6.7.2.
  it.each([
    [5, 1.476, 2.571],
    [8, 1.397, 2.306],
    [10, 1.372, 2.228],
    [30, 1.31, 2.042],
  ])('knows t with %d degrees', (freedom, tenth, fortieth) => {
    expect(tQuantile(freedom, 1.28155)).toBeCloseTo(tenth, 2);
    expect(tQuantile(freedom, 1.95996)).toBeCloseTo(fortieth, 1);
    expect(Math.abs(tQuantile(freedom, 1.95996) / fortieth - 1)).toBeLessThan(0.004);
  });

  // Hoff, A First Course in Bayesian Statistical Methods (2009), 5.3: wing lengths of nine midges; from memory.
  // Prior mean 1.9 worth one record; posterior mean 1.814.
  it('joins the mean as the textbook does while the records do not contradict', () => {
    const wings = [1.64, 1.7, 1.72, 1.74, 1.82, 1.82, 1.82, 1.9, 2.08];
    const { mean } = predictNext({ mean: 1.9, sd: 0.1, worth: 1, spreadWorth: 1, halfLife: 1e9 }, seen(wings));
    expect(mean).toBeCloseTo(1.814, 3);
  });

  // Mean 10, s 2 of nine values; 80 % prediction interval of a normal sample: 10 +/- t(.9) s sqrt(1 + 1/9). With one and a half degrees
  // more than eight, as the handbook is given: t = 1.377 between the table's 9 and 10.
  it('is the prediction interval of a normal sample where the handbook says nothing', () => {
    const raw = [-3, -2, -1.5, -0.5, 0, 0.5, 1.5, 2, 3];
    const s = Math.sqrt(raw.reduce((a, v) => a + v * v, 0) / 8);
    const { mean, sd } = predictNext({ ...nothing, sd: 1e-3 }, seen(raw.map((v) => 10 + (2 * v) / s)));
    expect(mean).toBeCloseTo(10, 4);
    expect(1.2816 * sd).toBeCloseTo(1.3775 * 2 * Math.sqrt(1 + 1 / 9), 2);
  });

  it('counts one record as one among the handbook’s four, however far off it is: it may be a slip of the scale', () => {
    expect(predictNext(handbook, seen([3])).mean).toBeCloseTo(3 / 5, 9);
    expect(predictNext(handbook, seen([3, 3])).mean).toBeGreaterThan(2);
  });

  it('is the handbook widened for how far houses stand apart, with nothing seen', () => {
    expect(predictNext(handbook, [])).toEqual({ mean: 0, sd: Math.sqrt(1.25), apart: null });
  });

  it('believes a mean more of six animals together than of one', () => {
    const one = predictNext(handbook, [{ value: 0.4, variance: 1, other: false }]);
    const six = predictNext(handbook, [{ value: 0.4, variance: 0.375, other: false }]);
    // by hand: 1 of 5 and 2.667 of 6.667
    expect(one.mean).toBeCloseTo(0.08, 6);
    expect(six.mean).toBeCloseTo(0.16, 6);
  });

  it('lets others say no more than suppliers are alike, however many they are', () => {
    const thousand = predictNext(
      { ...handbook, halfLife: 1e9 },
      seen(
        Array.from({ length: 1_000 }, (_, i) => 1 + 0.001 * (i % 2)),
        true,
      ),
    );
    // by hand: others' mean 1 counts for at most one record beside the handbook's four
    expect(thousand.mean).toBeCloseTo(1 / 5, 2);
    expect(thousand.apart).toBeNull();
  });

  it('is less sure of a supplier nobody has seen than of one with records', () => {
    const old = Array.from({ length: 20 }, (_, i) => Math.sin(i * 2.4));
    const unseen = predictNext(handbook, seen(old, true));
    const known = predictNext(handbook, seen(old));
    expect(unseen.sd).toBeGreaterThan(1.15 * known.sd);
  });

  it('lets go of the handbook and of others where its own records contradict them', () => {
    const own = Array.from({ length: 8 }, (_, i) => 3 + 0.3 * Math.sin(i * 2.4));
    const old = Array.from({ length: 20 }, (_, i) => 0.3 * Math.sin(i * 2.4));
    const { mean, apart } = predictNext(handbook, [...seen(own), ...seen(old, true)]);
    expect(mean).toBeGreaterThan(2.9);
    expect(apart?.sure).toBeGreaterThan(5);
  });

  it('counts an old record half as often as a newer by the half-life', () => {
    const { mean } = predictNext({ ...nothing, sd: 1, halfLife: 1 }, seen([1, 0]));
    expect(mean).toBeCloseTo(2 / 3, 3);
  });
});

describe('what a supplier’s animals give against the others’', () => {
  const record = (share: number, otherSupplier: boolean) => ({ share, animals: 1, otherSupplier });
  const wave = (n: number, at: number, otherSupplier: boolean) =>
    Array.from({ length: n }, (_, i) => record(at + 0.01 * Math.sin(i * 2.4), otherSupplier));
  const prior = { mean: 0.43, sd: 0.02 };

  it('is not spoken of where all are of one supplier', () => {
    expect(believeShare(prior, wave(10, 0.43, false)).supplier).toBeNull();
  });
  it('says of an unseen one that nothing is known of it', () => {
    expect(believeShare(prior, wave(10, 0.43, true)).supplier).toEqual({ records: 0, others: 10, more: null });
  });
  it('says how much less, once it is plain', () => {
    const { supplier } = believeShare(prior, [...wave(4, 0.38, false), ...wave(20, 0.44, true)]);
    expect(supplier).toMatchObject({ records: 4, others: 20 });
    expect(supplier?.more).toBeCloseTo(0.38 / 0.44 - 1, 1);
  });
  it('says nothing of two records, or of a difference chance makes', () => {
    expect(believeShare(prior, [...wave(2, 0.38, false), ...wave(20, 0.44, true)]).supplier?.more).toBeNull();
    expect(believeShare(prior, [...wave(4, 0.435, false), ...wave(20, 0.44, true)]).supplier?.more).toBeNull();
  });
});
