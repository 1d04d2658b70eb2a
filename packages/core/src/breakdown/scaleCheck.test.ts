import { describe, expect, it } from 'vitest';
import { grams } from '../quantity/mass.ts';
import { judgeScale } from './scaleCheck.ts';

const bench = { accuracyClass: 'III', intervalMg: 1_000, maxMg: 15_000_000 } as const;
const at = (loadG: number, shownG: number) => ({ loadMg: grams(loadG), shownMg: grams(shownG) });

describe('a scale is checked with weights', () => {
  // OIML R 76-1:2006, Table 6, class III in service: 1 e to 500 e, 2 e to 2,000 e, 3 e above
  it.each([
    [500, 500, 1, 'within'],
    [500, 501, 1, 'unsure'],
    [500, 502, 1, 'outside'],
    [2_000, 2_001, 2, 'within'],
    [2_000, 1_998, 2, 'unsure'],
    [2_000, 1_997, 2, 'outside'],
    [10_000, 10_002, 3, 'within'],
    [10_000, 10_003, 3, 'unsure'],
    [10_000, 9_996, 3, 'outside'],
  ] as const)('%i g shown as %i g, of %i g allowed: %s', (load, shown, allowed, verdict) => {
    const [point] = judgeScale(bench, [at(load, shown)]).points;
    expect(point).toMatchObject({ allowedMg: grams(allowed), errorMg: grams(1) * (shown - load), verdict });
  });

  it('is no better than its worst weight, and says up to which load', () => {
    expect(judgeScale(bench, [at(500, 500), at(5_000, 5_001)])).toMatchObject({
      verdict: 'within',
      upToMg: grams(5_000),
    });
    expect(judgeScale(bench, [at(500, 500), at(5_000, 5_003)]).verdict).toBe('unsure');
    expect(judgeScale(bench, [at(500, 503), at(5_000, 5_003)]).verdict).toBe('outside');
  });

  it('one weight, or the same one twice, says too little', () => {
    expect(judgeScale(bench, [at(500, 500)]).verdict).toBe('unsure');
    expect(judgeScale(bench, [at(500, 500), at(500, 500)]).verdict).toBe('unsure');
    expect(judgeScale(bench, [])).toEqual({ points: [], verdict: 'unsure', upToMg: 0 });
  });

  it('a coarse scale may be out by more', () => {
    const floor = { accuracyClass: 'III', intervalMg: 20_000, maxMg: 150_000_000 } as const;
    expect(judgeScale(floor, [at(5_000, 5_000), at(20_000, 20_020)]).verdict).toBe('within');
    expect(judgeScale(floor, [at(5_000, 5_040), at(20_000, 20_020)]).verdict).toBe('outside');
  });
});
