import { unitsComeFrom, usualUnits } from '@zabrik/core';
import { afterEach, expect, it } from 'vitest';
import { clockTime, datesAreOf, dayAndTime, dayName, dueWords, todayIn } from './dates.ts';

const own = Intl.DateTimeFormat().resolvedOptions().timeZone;
afterEach(() => datesAreOf(own));

it('says days and hours of the house, wherever the tablet thinks it is', () => {
  const late = new Date('2026-11-24T23:30:00Z');
  datesAreOf('Europe/London');
  expect(todayIn(late)).toBe('2026-11-24');
  expect(dayAndTime(late.toISOString())).toBe('Tue 24 Nov, 23:30');
  expect(dueWords('2026-11-24', late)).toMatchObject({ text: 'last day today', tone: 'now' });
  datesAreOf('Asia/Tokyo');
  expect(todayIn(late)).toBe('2026-11-25');
  expect(clockTime(late.toISOString())).toBe('08:30');
  expect(dueWords('2026-11-24', late)).toMatchObject({ text: 'was yesterday', tone: 'late' });
  datesAreOf('America/Los_Angeles');
  expect(dueWords('2026-11-25', late)).toMatchObject({ text: 'tomorrow' });
  // a day is the same everywhere
  for (const zone of ['Pacific/Kiritimati', 'Pacific/Pago_Pago']) {
    datesAreOf(zone);
    expect(dayName('2026-11-24')).toBe('Tue 24 Nov');
  }
  // over the change of the clocks: 01:30 comes twice, 24 October has 25 hours after it
  datesAreOf('Europe/London');
  expect(clockTime('2026-10-25T00:30:00Z')).toBe('01:30');
  expect(clockTime('2026-10-25T01:30:00Z')).toBe('01:30');
  expect(dueWords('2026-10-26', new Date('2026-10-24T23:00:00Z'))).toMatchObject({ text: 'tomorrow' });
});

it('writes hours and days as the house does', () => {
  datesAreOf('Europe/London');
  unitsComeFrom(() => ({ ...usualUnits, clock: '12', dates: 'month-first' }));
  expect(dayAndTime('2026-11-24T14:30:00Z')).toBe('Tue, Nov 24, 2:30 pm');
  expect(clockTime('2026-11-24T00:05:00Z')).toBe('12:05 am');
  unitsComeFrom(() => usualUnits);
  expect(dayAndTime('2026-11-24T14:30:00Z')).toBe('Tue 24 Nov, 14:30');
});
