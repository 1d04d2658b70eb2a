/** Days and hours as they are written on paper: by the house's clock, in its order. */
import { unitsNow } from '@zabrik/core';

const locale = (): string => (unitsNow().dates === 'month-first' ? 'en-US' : 'en-GB');

const written = (day: string, year: boolean): string =>
  new Intl.DateTimeFormat(locale(), {
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    ...(year ? { year: 'numeric' } : {}),
    timeZone: 'UTC',
  })
    .format(new Date(`${day}T00:00:00Z`))
    .replace(/^(\w+), (?=\d)/, '$1 ');

/** "Tue 1 Dec 2026", or "Tue, Dec 1, 2026". */
export const dayOnPaper = (day: string): string => written(day, true);

/** The same without its year, where the sheet says which: "Tue 1 Dec". */
export const shortDayOnPaper = (day: string): string => written(day, false);

/** The day and the hour: "Tue 1 Dec 2026, 14:30". */
export const timeOnPaper = (at: Date, timezone: string): string => {
  const day = new Intl.DateTimeFormat('en-CA', { timeZone: timezone }).format(at);
  const hour = new Intl.DateTimeFormat('en-GB', {
    ...(unitsNow().clock === '12' ? { hour: 'numeric', hour12: true } : { hour: '2-digit', hourCycle: 'h23' }),
    minute: '2-digit',
    timeZone: timezone,
  }).format(at);
  return `${dayOnPaper(day)}, ${hour}`;
};
