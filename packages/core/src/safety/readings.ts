/** Readings over time: put in order, and looked at for what they leave out. */

/** Readings over time. Minutes from any beginning, degrees Celsius. */
export type TemperatureLog = readonly { readonly minute: number; readonly C: number }[];

/**
 * Hours between two readings beyond which nothing is said of what lay between them. A cold room or a freezer is looked at twice a day:
 * common practice, no single source.
 */
export const LONGEST_UNREAD_HOURS = 12;

/**
 * The log in order of time, the warmer first of two at one minute; undefined when it is empty or something in it is no number: what
 * cannot be read shows nothing.
 */
export function orderedLog(log: TemperatureLog): TemperatureLog | undefined {
  if (log.length === 0 || log.some((r) => !Number.isFinite(r.minute) || !Number.isFinite(r.C))) return undefined;
  return [...log].sort((a, b) => a.minute - b.minute || b.C - a.C);
}

/** A hundredth of a degree is what a reading is kept to: half of one is no difference. */
const KEPT_TO_C = 0.005;

const inCelsius = (F: number): number => ((F - 32) * 5) / 9;

/**
 * A figure that a document publishes in Celsius and Fahrenheit, as bounds on readings in Celsius. The two are rounded from each other: a
 * probe that shows either of them has met it.
 *
 * @example the US Food Code's 165 °F (74 °C): at least 73.89 °C; its 135 °F (57 °C): at least 57; its 40 °F (4.4 °C): at most 4.44
 */
export const leastOf = (C: number, F: number | undefined): number => (F === undefined ? C : Math.min(C, inCelsius(F)));
export const mostOf = (C: number, F: number | undefined): number => (F === undefined ? C : Math.max(C, inCelsius(F)));

/** At or below, and at or above, a bound, by readings kept to a hundredth of a degree. */
export const atMost = (C: number, bound: number): boolean => C <= bound + KEPT_TO_C;
export const atLeast = (C: number, bound: number): boolean => C >= bound - KEPT_TO_C;
