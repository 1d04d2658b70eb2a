/** Days of the week, Monday 1 to Sunday 7, with the hours on each, HH:MM; an end that is not after its begin is on the next day. */
export interface WeeklyShift {
  readonly days: readonly number[];
  readonly from: string;
  readonly until: string;
}

/**
 * Whether somebody is at work by their usual shifts.
 *
 * @param weekday Monday 1 to Sunday 7, of the house
 * @param time HH:MM, of the house
 * @example Saturday 18:00 to 01:00: on Saturday 18:00 and Sunday 00:59, not on Sunday 01:00
 */
export const onShift = (shifts: readonly WeeklyShift[], weekday: number, time: string): boolean =>
  shifts.some(({ days, from, until }) => {
    const today = days.includes(weekday);
    if (until > from) return today && from <= time && time < until;
    const yesterday = days.includes(weekday === 1 ? 7 : weekday - 1);
    return (today && from <= time) || (yesterday && time < until);
  });
