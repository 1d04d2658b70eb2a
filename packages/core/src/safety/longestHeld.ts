import type { TemperatureLog } from './readings.ts';

/**
 * The longest time from one reading to another with every reading between them counting, minutes.
 *
 * Shapes  log in order of time. longestGap: minutes; over a longer one nothing is said, the count begins again.
 * Errors  undefined when no reading counts: held for no time is not the same as never reached.
 */
export function longestHeld(
  log: TemperatureLog,
  counts: (reading: TemperatureLog[number]) => boolean,
  longestGap = Number.POSITIVE_INFINITY,
): number | undefined {
  let longest: number | undefined;
  let since: number | undefined;
  let before: number | undefined;
  for (const reading of log) {
    if (!counts(reading)) {
      since = undefined;
      continue;
    }
    if (since === undefined || (before !== undefined && reading.minute - before > longestGap)) since = reading.minute;
    before = reading.minute;
    longest = Math.max(longest ?? 0, reading.minute - since);
  }
  return longest;
}
