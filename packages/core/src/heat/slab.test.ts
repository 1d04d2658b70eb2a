import { describe, expect, it } from 'vitest';
import { type Conduction, centreAt, secondsToCentre, secondsToFreeze, secondsUntilHot } from './slab.ts';

/** A ball with a Biot number of one: there the first root is a quarter turn and the constant 4/pi, in closed form. */
const ball: Conduction = {
  shape: 'sphere',
  halfM: 0.02,
  h: 25,
  k: 0.5,
  alpha: 1.4e-7,
  fromC: 5,
  mediumC: 65,
};
/** Seconds to a Fourier number. */
const at = (fourier: number): number => (fourier * ball.halfM ** 2) / ball.alpha;

describe('the centre of what heats or cools', () => {
  it('is where the first term of the series has it, heating', () => {
    const theta = (4 / Math.PI) * Math.exp(-((Math.PI / 2) ** 2) * 0.5);
    expect(centreAt(ball, at(0.5))).toBeCloseTo(65 - 60 * theta, 4);
  });

  it('and cooling, the same way round', () => {
    const theta = (4 / Math.PI) * Math.exp(-((Math.PI / 2) ** 2) * 0.8);
    expect(centreAt({ ...ball, fromC: 65, mediumC: 3 }, at(0.8))).toBeCloseTo(3 + 62 * theta, 4);
  });

  it('begins where it was and ends at what is around it', () => {
    expect(centreAt(ball, 0)).toBe(5);
    expect(centreAt(ball, at(20))).toBeCloseTo(65, 6);
  });

  // from memory of the tables of one-term solutions in heat transfer texts, Biot 1: slab 0.8603 and 1.1191, long cylinder 1.2558 and 1.2071
  it.each([
    ['slab', 0.8603, 1.1191],
    ['cylinder', 1.2558, 1.2071],
  ] as const)('agrees with the tables for a %s', (shape, root, constant) => {
    const theta = constant * Math.exp(-(root ** 2) * 0.6);
    expect(centreAt({ ...ball, shape }, at(0.6))).toBeCloseTo(65 - 60 * theta, 1);
  });

  it('gives back the seconds that lead there', () => {
    for (const fourier of [0.3, 0.9, 1.7])
      expect(secondsToCentre(ball, centreAt(ball, at(fourier)))).toBeCloseTo(at(fourier), 3);
  });

  it('is never brought where its surroundings are not', () => {
    expect(secondsToCentre(ball, 66)).toBeUndefined();
    expect(secondsToCentre(ball, 65)).toBeUndefined();
    expect(secondsToCentre(ball, 5)).toBe(0);
    expect(secondsToCentre({ ...ball, fromC: 65 }, 65)).toBe(0);
    expect(secondsToCentre({ ...ball, fromC: 65 }, 60)).toBeUndefined();
    expect(secondsUntilHot({ ...ball, fromC: 64.5, mediumC: 64.5 }, 74)).toBeUndefined();
    expect(secondsUntilHot({ ...ball, fromC: 64.5, mediumC: 64.5 }, 60)).toBe(0);
  });
});

describe('freezing through', () => {
  const slab = { shape: 'slab', halfM: 0.02, h: 20, airC: -25, waterShare: 0.8 } as const;

  it('takes Plank’s seconds', () => {
    // 1050 x 0.8 x 333,550 / 23.5 x (0.5 x 0.04 / 20 + 0.125 x 0.0016 / 1.6)
    expect(secondsToFreeze(slab)).toBeCloseTo(((1_050 * 0.8 * 333_550) / 23.5) * (0.001 + 0.000125), 3);
    expect(secondsToFreeze({ ...slab, shape: 'sphere' })).toBeCloseTo((secondsToFreeze(slab) ?? 0) / 3, 3);
  });

  it('never happens in air that is no colder than its freezing point', () => {
    expect(secondsToFreeze({ ...slab, airC: -1.5 })).toBeUndefined();
    expect(secondsToFreeze({ ...slab, airC: -1.6 })).toBeGreaterThan(0);
    expect(secondsToFreeze({ ...slab, airC: -3, freezesAtC: -3 })).toBeUndefined();
  });
});
