import { describe, expect, it } from 'vitest';
import { figureOf, isLooser, withFigure } from './houseLimit.ts';
import type { Limit, MostTemperature } from './limit.ts';
import { limitsFor, receivingLimit, storageLimit, strictestMost } from './limitsFor.ts';

const base = {
  id: 'x',
  product: 'fresh fish',
  action: '',
  citation: { document: 'A document', section: '1' },
  status: 'law',
  recall: 'sure',
};
const most = (max_C: number, o: object = {}): MostTemperature =>
  ({ ...base, id: `most-${max_C}`, kind: 'max_temp', value: { max_C }, ...o }) as unknown as MostTemperature;
const of = (kind: string, value: object): Limit => ({ ...base, kind, value }) as unknown as Limit;

describe('the one figure of a limit that a house may set', () => {
  it.each([
    ['max_temp', { max_C: 5 }, 5],
    ['min_temp', { min_C: 63 }, 63],
    ['shelf_life', { max_days: 3 }, 3],
    ['time_limit', { max_h: 4 }, 4],
    ['exposure', { max_h: 2, then_max_h: 1 }, 2],
  ])('of %s', (kind, value, figure) => {
    expect(figureOf(of(kind, value))).toBe(figure);
  });

  it('is none where a limit is more than one figure', () => {
    const samples = of('sampling', { n: 5, c: 2, m: 100, M: 1_000 });
    expect(figureOf(samples)).toBeUndefined();
    expect(isLooser(samples, 1)).toBe(false);
    expect(withFigure(samples, 1)).toBe(samples);
  });

  it('takes the document’s place, in whole days where it is days', () => {
    expect(figureOf(withFigure(of('shelf_life', { max_days: 3 }), 2.4))).toBe(2);
    expect(withFigure(of('max_temp', { max_C: 5, max_F: 41 }), 4).value).toEqual({ max_C: 4 });
    expect(withFigure(of('exposure', { max_h: 4, then_max_h: 2 }), 1).value).toEqual({ max_h: 1, then_max_h: 1 });
    expect(withFigure(of('exposure', { max_h: 4, then_max_h: 2 }), 3).value).toEqual({ max_h: 3, then_max_h: 2 });
  });

  it('is looser where it lets through more: warmer, longer, or not so hot', () => {
    expect([isLooser(most(5), 6), isLooser(most(5), 5), isLooser(most(5), 4)]).toEqual([true, false, false]);
    const hot = of('min_temp', { min_C: 63 });
    expect([isLooser(hot, 62), isLooser(hot, 63), isLooser(hot, 64)]).toEqual([true, false, false]);
  });
});

describe('the limits that cover something', () => {
  const fish = { covers: [{ task: 'receive', foods: ['fish'] }] };
  const limits = [
    most(5, fish),
    most(3, { covers: [{ task: 'receive', foods: ['fish', 'poultry'] }] }),
    most(1, { covers: [{ task: 'store', foods: ['fish'] }] }),
    most(-18, { covers: [{ task: 'receive-frozen', foods: ['fish'] }] }),
    most(2, { id: 'no-cover' }),
    of('min_temp', { min_C: 63 }),
  ];

  it('are of its kind, its task and its food', () => {
    const found = (task: 'receive' | 'store', food: string) =>
      limitsFor(limits, 'max_temp', task, food as never).map((l) => l.value.max_C);
    expect(found('receive', 'fish')).toEqual([5, 3]);
    expect(found('receive', 'poultry')).toEqual([3]);
    expect(found('store', 'fish')).toEqual([1]);
    expect(found('store', 'poultry')).toEqual([]);
    expect(limitsFor(limits, 'min_temp', 'receive', 'fish' as never)).toEqual([]);
  });

  it('are held to how it comes, where they ask that', () => {
    const raw = most(4, { covers: [{ task: 'receive', foods: ['fish'], as: ['frozen'] }] });
    const found = (as?: 'fresh' | 'frozen') => limitsFor([raw], 'max_temp', 'receive', 'fish' as never, as).length;
    expect([found(), found('fresh'), found('frozen')]).toEqual([0, 0, 1]);
  });

  it('are judged by only where we are sure of them', () => {
    const unsure = most(1, { ...fish, certainty: 'low' });
    expect(limitsFor([unsure, ...limits], 'max_temp', 'receive', 'fish' as never)).toHaveLength(2);
    expect(receivingLimit([unsure], 'fish' as never, false)).toBeUndefined();
  });

  it('the stricter of two counts, whichever stands first', () => {
    expect(strictestMost([most(5), most(3), most(4)])?.value.max_C).toBe(3);
    expect(strictestMost([most(3), most(5)])?.value.max_C).toBe(3);
    const [first, second] = [most(3, { id: 'a' }), most(3, { id: 'b' })];
    expect(strictestMost([first, second])?.id).toBe('a');
    expect(strictestMost([])).toBeUndefined();
    expect(receivingLimit(limits, 'fish' as never, false)?.value.max_C).toBe(3);
    expect(receivingLimit(limits, 'fish' as never, true)?.value.max_C).toBe(-18);
    expect(storageLimit(limits, 'fish' as never)?.value.max_C).toBe(1);
  });
});
