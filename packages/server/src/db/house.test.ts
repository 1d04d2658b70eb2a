import { describe, expect, it } from 'vitest';
import { lastDayAfter } from './house.ts';

// clocks in Great Britain go forward on the last Sunday of March and back on the last of October: The Summer Time Order 2002
describe('days over a change of the clocks', () => {
  it.each([
    ['2027-03-27T23:30:00Z', 24, '2027-03-28'],
    ['2027-03-27T23:30:00Z', 48, '2027-03-29'],
    ['2027-10-30T22:30:00Z', 24, '2027-10-31'],
    ['2027-10-30T23:15:00Z', 24, '2027-11-01'],
    ['2027-06-01T10:00:00Z', 36, '2027-06-02'],
    ['2027-06-01T14:00:00Z', 36, '2027-06-03'],
  ])('%s and %d hours in London is %s', (at, hours, day) => {
    expect(lastDayAfter('Europe/London', new Date(at), hours, null)).toBe(day);
  });

  it('is never beyond the latest, in any zone', () => {
    expect(lastDayAfter('Pacific/Auckland', new Date('2027-04-03T12:00:00Z'), 240, '2027-04-05')).toBe('2027-04-05');
  });
});
