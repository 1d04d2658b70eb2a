import { differenceInCalendarDays, format, parseISO } from 'date-fns';

/** "Tue 24 Nov" */
export const dayName = (iso: string): string => format(parseISO(iso), 'EEE d MMM');
/** "14:30" */
export const clockTime = (iso: string): string => format(parseISO(iso), 'HH:mm');
/** "Tue 24 Nov, 14:30" */
export const dayAndTime = (iso: string): string => `${dayName(iso)}, ${clockTime(iso)}`;

/** How urgent a use-by date is, in words. */
export function dueWords(
  day: string | null,
  now: Date = new Date(),
): { readonly text: string; readonly tone: 'late' | 'now' | 'soon' | 'fine' | 'none' } {
  if (day === null) return { text: 'no date', tone: 'none' };
  const left = differenceInCalendarDays(parseISO(day), now);
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
