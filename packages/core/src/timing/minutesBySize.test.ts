import { expect, it } from 'vitest';
import { alikeInSize, minutesFor, sizesFault } from './minutesBySize.ts';

const boil = {
  minutes: { low: 12, typical: 12, high: 20 },
  bySize: [
    { upToG: 800, minutes: { low: 12, typical: 12, high: 14 } },
    { upToG: 1_200, minutes: { low: 14, typical: 15, high: 18 } },
  ],
};

it('a crab for one dish takes about 12 minutes, a larger one its own time', () => {
  expect(minutesFor(boil, 650_000)?.typical).toBe(12);
  expect(minutesFor(boil, 800_000)?.typical).toBe(12);
  expect(minutesFor(boil, 801_000)?.typical).toBe(15);
});

it('past the table time grows with the two-thirds power of the mass: twice 1,200 g take 15 x 1.587 = 23.8, so 24', () => {
  expect(minutesFor(boil, 2_400_000)).toEqual({ low: 23, typical: 24, high: 29 });
  expect(minutesFor(boil, 1_200_001)?.typical).toBeGreaterThanOrEqual(15);
});

it('where nobody knows the size, or it does not matter, what is said for all counts', () => {
  expect(minutesFor(boil, undefined)).toBe(boil.minutes);
  expect(minutesFor(boil, 0)).toBe(boil.minutes);
  expect(minutesFor({ minutes: boil.minutes }, 900_000)).toBe(boil.minutes);
  expect(minutesFor({}, 900_000)).toBeUndefined();
});

it('within a quarter of each other pieces are of one size', () => {
  expect(alikeInSize(1_000, 750)).toBe(true);
  expect(alikeInSize(1_000, 749)).toBe(false);
  expect(alikeInSize(749, 1_000)).toBe(false);
  expect(alikeInSize(undefined, 1_000)).toBe(false);
});

it('a table whose rows do not follow each other is told', () => {
  const row = (upToG: number, typical: number, low = typical) => ({
    upToG,
    minutes: { low, typical, high: typical + 2 },
  });
  expect(sizesFault({ bySize: [row(800, 12), row(1_200, 15)] })).toBeUndefined();
  expect(sizesFault({})).toBeUndefined();
  expect(sizesFault({ bySize: [row(800, 12), row(800, 15)] })).toBe('up to 800 g does not follow up to 800 g');
  expect(sizesFault({ bySize: [row(800, 12), row(1_200, 11)] })).toBe('up to 1200 g takes less than up to 800 g');
  expect(sizesFault({ bySize: [row(800, 12, 13)] })).toContain('from, usual, to');
});
