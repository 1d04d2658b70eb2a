import { coolingProgress } from './coolingLog.ts';
import { freezingProgress } from './freezingLog.ts';
import type { Limit, Verdict } from './limit.ts';
import type { TemperatureLog } from './readings.ts';

/** A temperature as it was read, and when. */
export interface TimedReading {
  /** RFC 3339, UTC. */
  readonly at: string;
  readonly C: number;
}

/** Readings as a log: minutes since the first. */
export function logOf(readings: readonly TimedReading[]): TemperatureLog {
  const start = Date.parse(readings[0]?.at ?? '');
  return readings.map((r) => ({ minute: (Date.parse(r.at) - start) / 60_000, C: r.C }));
}

/** A moment on the clock of a log that begins with this reading; minutes. */
export const minuteOf = (readings: readonly TimedReading[], at: string): number =>
  (Date.parse(at) - Date.parse(readings[0]?.at ?? at)) / 60_000;

/**
 * What measured readings say of the limit that was selected, as of now. Anything but a limit of cooling or of freezing is not judged.
 *
 * Shapes  now: RFC 3339, UTC; for a log that was closed, when it was.
 */
export function judgeLog(limit: Limit | null, readings: readonly TimedReading[], now: string): Verdict {
  if (limit?.kind === 'cooling') return coolingProgress(limit, logOf(readings), minuteOf(readings, now)).verdict;
  if (limit?.kind === 'freeze_treatment') return freezingProgress(limit, logOf(readings)).verdict;
  return 'not-judged';
}
