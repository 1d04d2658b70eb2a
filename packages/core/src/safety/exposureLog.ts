/** Hours above a temperature: an estimate to show, and bounds to judge by. */
import type { Exposure, Verdict } from './limit.ts';
import { atMost, LONGEST_UNREAD_HOURS, mostOf, orderedLog, type TemperatureLog } from './readings.ts';

/**
 * Hours above a temperature, straight between readings: an estimate, nothing is judged by it.
 *
 * @example hoursAbove([{ minute: 0, C: 2 }, { minute: 60, C: 22 }], 12) -> 0.5
 */
export function hoursAbove(log: TemperatureLog, aboveC: number): number {
  let minutes = 0;
  for (const [i, b] of log.entries()) {
    const a = log[i - 1];
    if (a === undefined) continue;
    const span = b.minute - a.minute;
    if (a.C > aboveC && b.C > aboveC) minutes += span;
    else if (a.C > aboveC !== b.C > aboveC) minutes += (span * (Math.max(a.C, b.C) - aboveC)) / Math.abs(b.C - a.C);
  }
  return minutes / 60;
}

export interface ExposureSoFar {
  readonly verdict: Verdict;
  /** Hours above it that the readings show at the least, and those they allow at the most. */
  readonly shownHours: number;
  readonly mostHours: number;
  /** The hours that are allowed, given the warmest reading. */
  readonly allowedHours: number;
  /** The longest time nobody read it, minutes; over LONGEST_UNREAD_HOURS nothing is said of it. */
  readonly gapMinutes: number;
}

/**
 * Cumulative time above a temperature, with the shorter time once any reading was warmer than the second one.
 *
 * Shapes  readings in any order, the first at receipt. nowMinute on their clock: what was warm at the last reading is warm since.
 * Keeps   between two warm readings it was warm; between a warm and a cold one it may have been all the while; between two cold ones it
 *         was cold while they are no more than LONGEST_UNREAD_HOURS apart, else nothing is shown. Outside only by what is shown. Open
 *         while it stands warm.
 * Errors  no reading, or one that is no number: not shown.
 */
export function judgeExposure(limit: Exposure, readings: TemperatureLog, nowMinute: number): ExposureSoFar {
  const { max_h, then_max_h: shorter } = limit.value;
  const above = mostOf(limit.value.above_C, limit.value.above_F);
  const second =
    limit.value.if_any_above_C === undefined
      ? undefined
      : mostOf(limit.value.if_any_above_C, limit.value.if_any_above_F);
  const warmerThan = (C: number, bound: number): boolean => !atMost(C, bound);
  const log = orderedLog(readings);
  const last = log?.at(-1);
  if (log === undefined || last === undefined || Number.isNaN(nowMinute))
    return { verdict: 'not-shown', shownHours: 0, mostHours: 0, allowedHours: max_h, gapMinutes: 0 };
  const allowedHours =
    second !== undefined && shorter !== undefined && log.some((r) => warmerThan(r.C, second)) ? shorter : max_h;
  let shown = 0;
  let most = 0;
  let widest = 0;
  for (const [i, a] of log.entries()) {
    const b = log[i + 1];
    const span = Math.max(0, (b?.minute ?? nowMinute) - a.minute);
    widest = Math.max(widest, span);
    const warm = Number(warmerThan(a.C, above)) + Number(warmerThan(b?.C ?? a.C, above));
    if (warm === 2 && b !== undefined) shown += span;
    if (warm > 0 || span > LONGEST_UNREAD_HOURS * 60) most += span;
  }
  const verdict =
    shown / 60 > allowedHours
      ? 'outside'
      : most / 60 > allowedHours || widest > LONGEST_UNREAD_HOURS * 60
        ? 'not-shown'
        : warmerThan(last.C, above)
          ? 'open'
          : 'within';
  return { verdict, shownHours: shown / 60, mostHours: most / 60, allowedHours, gapMinutes: widest };
}
