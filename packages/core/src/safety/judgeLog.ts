import { freezingProgress } from './freezingLog.ts';
import { coolingProgress, type TemperatureLog } from './judge.ts';
import type { Limit, Verdict } from './limit.ts';

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

/** What measured readings say of the limit that was selected. Anything but a limit of cooling or of freezing is not judged. */
export function judgeLog(limit: Limit | null, readings: readonly TimedReading[]): Verdict {
  if (limit?.kind === 'cooling') return coolingProgress(limit, logOf(readings)).verdict;
  if (limit?.kind === 'freeze_treatment') return freezingProgress(limit, logOf(readings)).verdict;
  return 'not-judged';
}
