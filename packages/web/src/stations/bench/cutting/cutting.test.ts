import { formOfPiece, templateById } from '@zabrik/catalogue/portioning';
import type { CutWish, PortionSize, WishFault } from '@zabrik/core';
import { describe, expect, it } from 'vitest';
import { cm, endWords, faultWords, mixWords, thicknessWords } from './cutWords.ts';
import { countAnimals, planPiece } from './planner.ts';
import { figured } from './rulerMarks.ts';

const main: PortionSize = { id: 'main', name: 'main course', targetMg: 160_000, toleranceShare: 0.05, valueMinor: 780 };
const starter: PortionSize = {
  id: 'starter',
  name: 'starter',
  targetMg: 90_000,
  toleranceShare: 0.06,
  valueMinor: 400,
};
const wish = (sizes: readonly PortionSize[]): CutWish => ({
  sizes,
  angleDeg: 0,
  squareMm: [0, 0],
  kerfMm: 0,
  clingMg: 0,
  tail: 'end',
  endMinorPerKg: 600,
});
const template = (() => {
  const found = templateById.get('fillet-round');
  if (found === undefined) throw new Error('no fillet');
  return found;
})();
const ask = (sizes: readonly PortionSize[], cut: { fromMm: number; toMm: number; massMg: number }[] = []) =>
  planPiece({
    template,
    measures: { massMg: 689_000, lengthMm: 415 },
    shape: undefined,
    cut,
    wish: { ...wish(sizes), fromMm: cut.at(-1)?.toMm ?? 0 },
  });

describe('what the ruler asks for', () => {
  it('aims at the inner half of the tolerance, so that the knife has the other half', () => {
    const [best] = ask([main]).options;
    expect(best?.portions).toHaveLength(4);
    for (const p of best?.portions ?? []) expect(Math.abs(p.massMg / 160_000 - 1)).toBeLessThanOrEqual(0.0251);
  });

  it('moves the marks that are not cut yet when the first portion comes out heavier than thought', () => {
    const before = ask([main]).options[0]?.portions ?? [];
    const heavy = ask([main], [{ fromMm: 0, toMm: before[0]?.toMm ?? 0, massMg: 172_000 }]).options[0]?.portions ?? [];
    // a thicker piece than thought: the next cut comes sooner
    const width = (p: { fromMm: number; toMm: number } | undefined): number => (p?.toMm ?? 0) - (p?.fromMm ?? 0);
    expect(width(heavy[0])).toBeLessThan(width(before[1]));
  });

  it('says of a wish what stands in its way, and nothing of one that can be', () => {
    expect(ask([main, starter]).faults).toEqual([]);
    expect(ask([{ ...main, targetMg: 2_000_000 }]).faults[0]?.code).toBe('target_above_piece');
    // alike portions with nothing left are always possible, and no answer to a tolerance of nothing
    expect(ask([{ ...main, toleranceShare: 0 }]).faults[0]?.code).toBe('tolerance_nothing');
    expect(ask([]).faults).toEqual([{ code: 'no_sizes' }]);
  });

  it('counts animals by grade', () => {
    const grades = [{ id: '2 to 3 kg', minMg: 2_000_000, maxMg: 3_000_000 }];
    const [need] = countAnimals({ template, grades, share: 0.43, pieces: 2, wish: wish([main]), wanted: 24 });
    expect((need?.animals ?? 0) * (need?.portionsEach ?? 0)).toBeGreaterThanOrEqual(24 - 1e-9);
  });
});

describe('the ruler’s words', () => {
  it('say a mix, its end, and how unlike its portions will cook', () => {
    const [best] = ask([main]).options;
    if (best === undefined) throw new Error('no plan');
    expect(mixWords(best, [main])).toBe('4 × 160 g');
    expect(endWords(best, ['shoulder', 'tail'])).toMatch(/^\d+ g tail left, \d+ g over target$/);
    expect(endWords({ ends: [], endMg: 0, giveAwayMg: 1_400 }, ['a', 'b'])).toBe('nothing left, 1 g over target');
    expect(thicknessWords(best, false)).toMatch(
      /^\d+, \d+, \d+, \d+ mm thick; the thickest takes about \d\.\d × as long$/,
    );
    expect(mixWords({ portions: [] }, [main])).toBe('no portion');
    expect(cm(83)).toBe('8.3');
  });

  it('say every fault with the nearest that can be', () => {
    const faults: readonly WishFault[] = [
      { code: 'no_sizes' },
      { code: 'target_above_piece', sizeId: 'main', targetMg: 1, leftMg: 1 },
      { code: 'tolerance_nothing', sizeId: 'main', nearestShare: 0.01 },
      { code: 'min_over_max', sizeId: 'main', min: 60, max: 20 },
      { code: 'too_thin', sizeId: 'main', nearestMm: 31 },
      { code: 'too_thick', sizeId: 'main', nearestMm: 9 },
      { code: 'nothing_fits', sizeId: 'main', nearestTargetMg: 96_000 },
      { code: 'nothing_fits', sizeId: 'gone', nearestTargetMg: null },
    ];
    const said = faults.map((f) => faultWords(f, [main]));
    expect(new Set(said).size).toBe(faults.length);
    expect(said[2]).toContain('within 1 %');
    expect(said[6]).toContain('96 g');
    for (const words of said) expect(words).toMatch(/\.$/);
  });
});

describe('the ruler’s figures', () => {
  it.each([2, 8, 16, 40])('%i marks: none touches another, and the one in hand always stands there', (n) => {
    const marks = Array.from({ length: n }, (_, i) => 20 + i * Math.floor(400 / n));
    const scale = 2.6;
    for (const selected of [0, Math.floor(n / 2), n - 1]) {
      const shown = marks.flatMap((mm, i) => (figured(marks, i, selected, scale) ? [{ mm, i }] : []));
      expect(shown.some((s) => s.i === selected)).toBe(true);
      const crowded = Math.floor(400 / n) * scale < 72;
      for (const row of crowded ? [0, 1] : [0]) {
        const at = shown.filter((s) => !crowded || s.i % 2 === row).map((s) => s.mm * scale);
        for (let k = 1; k < at.length; k += 1) expect((at[k] ?? 0) - (at[k - 1] ?? 0)).toBeGreaterThanOrEqual(72);
      }
    }
  });
});

describe('the form of a piece', () => {
  it('is what the plan made, and by its animal', () => {
    expect(formOfPiece('barrel', 'roe-deer', 'furred-game')?.id).toBe('barrel');
    expect(formOfPiece('roll', null, null)?.id).toBe('barrel');
    expect(formOfPiece('barrel', 'tuna', 'large-pelagic')?.id).toBe('barrel');
    expect(formOfPiece('fillet', 'brill', 'flatfish')?.id).toBe('fillet-flat-upper');
    expect(formOfPiece('fillet', 'mackerel', 'round-fish')?.id).toBe('fillet-round');
    expect(formOfPiece('loin', 'monkfish', 'round-fish')?.id).toBe('tail-loin');
    expect(formOfPiece('loin', 'tuna', 'large-pelagic')?.id).toBe('loin-pelagic');
    expect(formOfPiece(null, 'salmon', 'round-fish')).toBeUndefined();
  });
});
