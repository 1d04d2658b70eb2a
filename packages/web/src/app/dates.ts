import { tz } from '@date-fns/tz';
import { unitsNow } from '@zabrik/core';
import { differenceInCalendarDays, format, parseISO } from 'date-fns';

/** The house's time zone, once it is known: a tablet may be set to another. Before, the device's own. */
let zone: string | undefined;
export const datesAreOf = (timezone: string): void => {
  zone = timezone;
};
const inHouse = () => (zone === undefined ? {} : { in: tz(zone) });
/** A day is the same everywhere; an instant has its day and hour in the house. */
const written = (iso: string, as: string): string => format(parseISO(iso), as, iso.length === 10 ? {} : inHouse());

const dayAs = (): string => (unitsNow().dates === 'day-first' ? 'EEE d MMM' : 'EEE, MMM d');
/** "Tue 24 Nov", or "Tue, Nov 24" */
export const dayName = (iso: string): string => written(iso, dayAs());
/** "Tue 24 Nov 2026": of what may be a year away. */
export const dayOfYear = (iso: string): string => written(iso, `${dayAs()} yyyy`);
/** "14:30", or "2:30 pm" */
export const clockTime = (iso: string): string => written(iso, unitsNow().clock === '24' ? 'HH:mm' : 'h:mm aaa');
/** The day it is in the house: "2026-11-24". */
export const todayIn = (now: Date = new Date()): string => format(now, 'yyyy-MM-dd', inHouse());
/** An hour of the house's clock, "14:30" as it is kept, as it is read here: "14:30", or "2:30 pm". */
export const clockTimeOf = (time: string): string =>
  format(parseISO(`2000-01-01T${time}`), unitsNow().clock === '24' ? 'HH:mm' : 'h:mm aaa');
/** The hour it is in the house, "14:30". */
export const timeIn = (now: Date = new Date()): string => format(now, 'HH:mm', inHouse());
/** "Tue 24 Nov, 14:30" */
export const dayAndTime = (iso: string): string => `${dayName(iso)}, ${clockTime(iso)}`;

/** The days of a week from Monday, 1, to Sunday, 7. */
export const weekdays = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;

/** How urgent a use-by date is, in words. */
export function dueWords(
  day: string | null,
  now: Date = new Date(),
): { readonly text: string; readonly tone: 'late' | 'now' | 'soon' | 'fine' | 'none' } {
  if (day === null) return { text: 'no date', tone: 'none' };
  const left = differenceInCalendarDays(parseISO(day), parseISO(todayIn(now)));
  if (left < 0) return { text: left === -1 ? 'was yesterday' : `${-left} days past`, tone: 'late' };
  if (left === 0) return { text: 'last day today', tone: 'now' };
  if (left === 1) return { text: 'tomorrow', tone: 'soon' };
  return { text: left < 7 ? format(parseISO(day), 'EEEE') : dayName(day), tone: 'fine' };
}

/** How long ago, as a cook says it: "20 min", "3 h", "2 days". */
export function ageWords(iso: string, now: Date = new Date()): string {
  const minutes = Math.max(0, Math.round((now.getTime() - parseISO(iso).getTime()) / 60_000));
  if (minutes < 60) return `${minutes} min`;
  if (minutes < 36 * 60) return `${Math.round(minutes / 60)} h`;
  return `${Math.round(minutes / 1440)} days`;
}
