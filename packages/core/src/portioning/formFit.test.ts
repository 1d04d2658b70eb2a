import { templateById } from '@zabrik/catalogue/portioning';
import { describe, expect, it } from 'vitest';
import { grams } from '../quantity/mass.ts';
import { betterForm, fitOfForm } from './formFit.ts';
import { mixOptions } from './mixOptions.ts';
import { fitProfile, massBetween } from './pieceProfile.ts';
import type { PieceTemplate } from './pieceTemplate.ts';
import type { CutWish, PortionSize } from './planCuts.ts';

const form = (id: string): PieceTemplate => {
  const found = templateById.get(id);
  if (found === undefined) throw new Error(id);
  return found;
};
const [round, flat, barrel] = [form('fillet-round'), form('fillet-flat-upper'), form('barrel')];

describe('whether the form fits', () => {
  const measures = { massMg: grams(420), lengthMm: 360 };
  const truth = fitProfile(flat, measures);
  const cut = (n: number) =>
    Array.from({ length: n }, (_, i) => {
      const [fromMm, toMm] = [i * 60, (i + 1) * 60];
      return { fromMm, toMm, massMg: Math.round(massBetween(truth, fromMm, toMm)) };
    });

  it('a flat fillet taken for a round one is noticed from its first weights, and the flat form offered', () => {
    expect(fitOfForm(flat, measures, cut(3)).off).toBeLessThan(0.1);
    const said = betterForm(round, [round, flat, barrel], measures, cut(3));
    expect(said?.other?.id).toBe('fillet-flat-upper');
    expect(said?.off).toBeGreaterThan(1.9);
  });

  it('and a barrel taken for a fillet from its measures, before anything is cut', () => {
    const truth = fitProfile(barrel, measures);
    const measured = {
      ...measures,
      widths: [0.25, 0.75].map((at) => ({ at, mm: truth.widthMm[Math.round(at * 360)] ?? 0 })),
      thicknesses: [0.25, 0.75].map((at) => ({ at, mm: truth.thicknessMm[Math.round(at * 360)] ?? 0 })),
    };
    expect(betterForm(round, [round, flat, barrel], measured, [])?.other?.id).toBe('barrel');
    expect(betterForm(barrel, [round, flat, barrel], measured, [])).toBeUndefined();
  });

  it('another is offered when it fits much better, if not perfectly; one as far off is not', () => {
    // a barrel two grams off its form in each weight
    const whole = fitProfile(barrel, measures);
    const rough = [0, 1, 2].map((i) => ({
      fromMm: i * 60,
      toMm: (i + 1) * 60,
      massMg: massBetween(whole, i * 60, (i + 1) * 60) + (i % 2 === 0 ? 2_000 : -2_000),
    }));
    const off = fitOfForm(barrel, measures, rough).off;
    expect(off).toBeGreaterThan(0.05 * fitOfForm(round, measures, rough).off);
    expect(betterForm(round, [round, barrel], measures, rough)?.other?.id).toBe('barrel');
    const doubted = betterForm(round, [round, form('side')], measures, cut(3));
    expect(doubted).toMatchObject({ other: undefined });
  });

  it('nothing is said of the right form, nor before two figures tell', () => {
    expect(betterForm(flat, [round, barrel], measures, cut(4))).toBeUndefined();
    expect(betterForm(round, [flat], measures, cut(1))).toBeUndefined();
    expect(betterForm(round, [flat], measures, [])).toBeUndefined();
  });
});

describe('a barrel', () => {
  const main: PortionSize = {
    id: 'main',
    name: 'main course',
    targetMg: grams(180),
    toleranceShare: 0.05,
    valueMinor: 1_150,
    from: ['head', 'centre'],
  };
  const wish: CutWish = {
    sizes: [main],
    angleDeg: 0,
    squareMm: [0, 0],
    kerfMm: 0,
    clingMg: 0,
    tail: 'end',
    endMinorPerKg: 600,
  };

  it('has neither head nor centre: a size may come from all of it, and nothing is left between portions', () => {
    const piece = fitProfile(barrel, { massMg: grams(2_160), lengthMm: 400 });
    const [first] = mixOptions(piece, wish);
    expect(first?.portions).toHaveLength(12);
    expect(first?.endMg ?? 0).toBeLessThan(grams(20));
    // the same piece with a head and a tail gives fewer: the zones still count where there are any
    const loin = fitProfile({ ...barrel, alike: undefined } as unknown as PieceTemplate, {
      massMg: grams(2_160),
      lengthMm: 400,
    });
    expect(mixOptions(loin, wish).find((o) => o.kind === 'best')?.portions.length ?? 0).toBeLessThan(12);
  });

  it('the mix worth most stands first, whatever it is called', () => {
    for (const g of [690, 1_010, 1_224, 1_900]) {
      const options = mixOptions(fitProfile(round, { massMg: grams(g), lengthMm: 420 }), wish);
      const held = options.map((o) => o.portions.every((p) => p.massMg >= main.targetMg * 0.95 - 1));
      // what is lighter than promised comes after all that is not, and is worth only its weight
      expect(held).toEqual([...held].sort((a, b) => Number(b) - Number(a)));
      const worth = options.filter((_, i) => held[i]).map((o) => o.valueMinor);
      expect(worth).toEqual([...worth].sort((a, b) => b - a));
    }
  });
});
