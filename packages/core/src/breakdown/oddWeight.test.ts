import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { oddWeight } from './oddWeight.ts';

const g = (n: number): number => n * 1_000;
const about = { leftMg: g(400), mostMg: g(34), errorMg: g(4), intervalMg: g(1), lastMg: undefined };

describe('a weight', () => {
  it('several times what it should be is asked about: a piece still on the pan is no portion', () => {
    expect(oddWeight(g(266), about)).toMatchObject({ kind: 'many-times', mostMg: g(34) });
    expect(oddWeight(g(80), about)).toBeUndefined();
    expect(oddWeight(g(266), { ...about, mostMg: undefined })).toBeUndefined();
  });

  it('heavier than all that is left is asked about, within what the scale may be off by it is not', () => {
    expect(oddWeight(g(410), { ...about, mostMg: undefined })).toEqual({ kind: 'more-than-left', leftMg: g(400) });
    expect(oddWeight(g(403), { ...about, mostMg: undefined })).toBeUndefined();
    expect(oddWeight(g(5), { ...about, leftMg: g(-10) })).toEqual({ kind: 'more-than-left', leftMg: 0 });
  });

  it('that lies on the pan since the last one was taken is the same load', () => {
    expect(oddWeight(g(32), { ...about, lastMg: g(33) })).toEqual({ kind: 'same-load', tookMg: g(33) });
    expect(oddWeight(g(36), { ...about, lastMg: g(33) })).toBeUndefined();
  });

  it('of a piece that weighs what it should is never asked about', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 5_000 }), fc.double({ min: 0.2, max: 2.4, noNaN: true }), (most, times) => {
        const odd = oddWeight(g(most * times), { ...about, leftMg: g(most * 3), mostMg: g(most) });
        expect(odd).toBeUndefined();
      }),
    );
  });
});
