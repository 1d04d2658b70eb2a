import { describe, expect, it } from 'vitest';
import { believeRate } from './reduction.ts';

describe('how fast it boils away', () => {
  // by hand: 10 kg, half an hour later 8.5: 3 kg an hour. A reading is good to 0.3 kg, sum of squared hours 0.125, variance 0.72; the
  // burner's 4 kg an hour are good to 1.2, variance 1.44. Two thirds of the way from 4 to 3, spread the root of 0.48
  it('lies between the burner’s figure and the readings, by what each is good for', () => {
    const belief = believeRate(4, [
      { minute: 0, kg: 10 },
      { minute: 30, kg: 8.5 },
    ]);
    expect(belief.kgPerHour).toBeCloseTo(4 - 2 / 3, 9);
    expect(belief.sd).toBeCloseTo(Math.sqrt(0.48), 9);
    expect(belief.readings).toBe(2);
  });

  it('is the burner’s figure give or take 30 % until there are two readings at two times', () => {
    expect(believeRate(4, [])).toEqual({ kgPerHour: 4, sd: 1.2, readings: 0 });
    expect(believeRate(4, [{ minute: 5, kg: 9 }])).toMatchObject({ kgPerHour: 4, readings: 0 });
    expect(
      believeRate(4, [
        { minute: 5, kg: 9 },
        { minute: 5, kg: 8 },
      ]),
    ).toMatchObject({ kgPerHour: 4, readings: 0 });
  });

  it('follows the readings the more of them there are, and never runs backwards', () => {
    const steady = Array.from({ length: 12 }, (_, i) => ({ minute: i * 10, kg: 10 - 0.4 * i }));
    expect(believeRate(5, steady).kgPerHour).toBeCloseTo(2.4, 1);
    const filled = Array.from({ length: 12 }, (_, i) => ({ minute: i * 10, kg: 5 + i }));
    expect(believeRate(1, filled).kgPerHour).toBe(0);
    // a reading off the scale counts for more than one off a stick
    const two = [
      { minute: 0, kg: 10 },
      { minute: 30, kg: 8.5 },
    ];
    expect(believeRate(4, two, 0.01).kgPerHour).toBeCloseTo(3, 2);
  });
});
