import { describe, expect, it } from 'vitest';
import { bathIce, minutesTo } from './cooling.ts';

describe('when a curve comes down', () => {
  const curve = [90, 80, 60, 50, 50, 20];

  it('is read straight between its minutes', () => {
    expect(minutesTo(curve, 70)).toBe(1.5);
    expect(minutesTo(curve, 80)).toBe(1);
    expect(minutesTo(curve, 35)).toBe(4.5);
  });

  it('is counted from where it passes the mark the clock starts at', () => {
    expect(minutesTo(curve, 50, 70)).toBe(1.5);
    expect(minutesTo(curve, 20, 80)).toBe(4);
    // it was below the mark from the first
    expect(minutesTo(curve, 60, 95)).toBe(2);
  });

  it('is never where the curve does not come', () => {
    expect(minutesTo(curve, 19)).toBeUndefined();
    expect(minutesTo(curve, 20, 19)).toBeUndefined();
    expect(minutesTo([], 20)).toBeUndefined();
    expect(minutesTo(curve, 90)).toBe(0);
    expect(minutesTo([60, 61, 62], 59)).toBeUndefined();
  });
});

it('a bath takes a quarter more ice than melts', () => {
  // 1 kg of ice takes 333.55 kJ
  expect(bathIce(333_550)).toBeCloseTo(1.25, 2);
});
