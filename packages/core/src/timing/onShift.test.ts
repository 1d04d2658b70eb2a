import { expect, it } from 'vitest';
import { onShift } from './onShift.ts';

const weekdays = { days: [1, 2, 3, 4, 5], from: '07:00', until: '15:00' };
const night = { days: [6, 7], from: '18:00', until: '01:00' };

it('is at work from the first minute to before the last, on those days', () => {
  expect([1, 5, 6].map((day) => onShift([weekdays], day, '07:00'))).toEqual([true, true, false]);
  expect(['06:59', '07:00', '14:59', '15:00'].map((t) => onShift([weekdays], 3, t))).toEqual([
    false,
    true,
    true,
    false,
  ]);
  expect(onShift([], 3, '10:00')).toBe(false);
});

it('goes over midnight into the next day, from Sunday into Monday too, and into no other', () => {
  expect([6, 7, 1].map((day) => onShift([night], day, '00:59'))).toEqual([false, true, true]);
  expect([6, 7, 1].map((day) => onShift([night], day, '18:00'))).toEqual([true, true, false]);
  expect([7, 1].map((day) => onShift([night], day, '01:00'))).toEqual([false, false]);
  // round the clock
  expect(onShift([{ days: [2], from: '06:00', until: '06:00' }], 3, '05:59')).toBe(true);
  expect(onShift([{ days: [2], from: '06:00', until: '06:00' }], 3, '06:00')).toBe(false);
});
