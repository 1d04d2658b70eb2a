import type { TemperatureLog } from './judge.ts';

/**
 * The longest time from one reading to another with every reading between them counting, minutes.
 *
 * Shapes  log in order of time. Errors  undefined when no reading counts: held for no time is not the same as never reached.
 */
export function longestHeld(
  log: TemperatureLog,
  counts: (reading: TemperatureLog[number]) => boolean,
): number | undefined {
  let longest: number | undefined;
  let since: number | undefined;
  for (const reading of log) {
    if (!counts(reading)) {
      since = undefined;
      continue;
    }
    since ??= reading.minute;
    longest = Math.max(longest ?? 0, reading.minute - since);
  }
  return longest;
}
