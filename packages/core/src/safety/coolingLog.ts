/** Cooling held against its steps, by the worst case that the readings allow. */
import type { CoolingSteps, Verdict } from './limit.ts';
import { atLeast, atMost, leastOf, mostOf, orderedLog, type TemperatureLog } from './readings.ts';

/** When something happened, as far as readings tell: not before one, not after the other. Minutes. */
export interface Between {
  readonly from: number;
  readonly to: number;
}

export interface CoolingStep {
  readonly toC: number;
  /** When it must be there at the latest, worked out from the earliest moment the clock can have started; minutes on the log's own clock. */
  readonly dueMinute: number;
  /** When it came down there for good; undefined while no reading shows it. */
  readonly met: Between | undefined;
  /** Where a straight line between those two readings crosses it: to be shown, nothing is judged by it. */
  readonly metAbout: number | undefined;
  /** It had been there and was warmer again later. */
  readonly warmedAgain: boolean;
  readonly verdict: Verdict;
}

export interface CoolingProgress {
  readonly verdict: Verdict;
  /** When the clock started; undefined while it is warmer than that. */
  readonly start: Between | undefined;
  /** The first reading was colder than where the clock starts: when it passed there is not known, so nothing can be shown. */
  readonly startUnknown: boolean;
  /** The widest gap between two readings of those that decide, minutes. */
  readonly gapMinutes: number;
  readonly steps: readonly CoolingStep[];
}

/** A temperature of a document: in Celsius, and as its Fahrenheit says. A reading between the two is just there. */
interface Level {
  readonly low: number;
  readonly high: number;
}
const levelAt = (C: number, F: number | undefined): Level => ({ low: leastOf(C, F), high: mostOf(C, F) });
const isDown = (C: number, level: Level): boolean => atMost(C, level.high);

/** When it passed a level at this reading, at the earliest: at the reading itself when it is just there, else after the one before. */
const passed = (log: TemperatureLog, at: number, level: Level): Between | undefined => {
  const there = log[at];
  if (there === undefined) return undefined;
  const just = atLeast(there.C, level.low);
  return { from: just ? there.minute : (log[at - 1]?.minute ?? there.minute), to: there.minute };
};

/** When it first was this cold. */
const firstDown = (log: TemperatureLog, level: Level): Between | undefined =>
  passed(
    log,
    log.findIndex((r) => isDown(r.C, level)),
    level,
  );

/** When it came down for good: after its last warmer reading. Undefined while the last reading is warmer. */
const downForGood = (log: TemperatureLog, level: Level): Between | undefined =>
  passed(log, log.findLastIndex((r) => !isDown(r.C, level)) + 1, level);

/** Where the straight line between the readings at both ends crosses a temperature. */
function straight(log: TemperatureLog, between: Between | undefined, C: number): number | undefined {
  if (between === undefined || between.from === between.to) return between?.to;
  const a = log.findLast((r) => r.minute === between.from);
  const b = log.find((r) => r.minute === between.to);
  if (a === undefined || b === undefined || a.C <= b.C) return between.to;
  return a.minute + ((a.C - C) / (a.C - b.C)) * (b.minute - a.minute);
}

const worst = (verdicts: readonly Verdict[]): Verdict =>
  (['outside', 'not-shown', 'open'] as const).find((v) => verdicts.includes(v)) ?? 'within';

/**
 * Cooling against its steps, each with when it was due and when the readings show it.
 *
 * Shapes  log: measured readings only, in any order; nothing is foretold here. nowMinute: on the log's clock, for what has not been read yet.
 * Keeps   within only where every curve that falls from reading to reading is within: the clock from the last warm reading, the step at
 *         the first cold one. Outside only where every such curve is. Between them: not shown. A step that warmed up again is met
 *         when it came down for good; what is read after the last step was due and met is storage and does not count.
 *         Open while its time runs.
 * Errors  a reading that is no number: not shown.
 * Source  the limit's own document; worst case over all monotone curves through the readings.
 */
export function coolingProgress(limit: CoolingSteps, readings: TemperatureLog, nowMinute: number): CoolingProgress {
  const { start_C, start_F, steps } = limit.value;
  const from = start_C === null ? null : levelAt(start_C, start_F);
  const none = { start: undefined, startUnknown: false, gapMinutes: 0, steps: [] };
  if (readings.length === 0) return { verdict: 'open', ...none };
  const log = orderedLog(readings);
  const first = log?.[0];
  if (log === undefined || first === undefined || Number.isNaN(nowMinute)) return { verdict: 'not-shown', ...none };
  const start = from === null ? { from: first.minute, to: first.minute } : firstDown(log, from);
  if (start === undefined) return { verdict: 'open', ...none };
  const startUnknown = from !== null && !atLeast(first.C, from.low);
  const now = Math.max(nowMinute, log.at(-1)?.minute ?? nowMinute);

  // storage begins when the last step has been reached and its time is over
  const last = steps.at(-1);
  const end = last === undefined ? now : start.from + last.within_min;
  const reachedLast =
    last !== undefined && log.some((r) => isDown(r.C, levelAt(last.to_C, last.to_F)) && r.minute <= end);
  const cooling = reachedLast ? log.filter((r) => r.minute <= end) : log;

  const judged = steps.map((step): CoolingStep => {
    const level = levelAt(step.to_C, step.to_F);
    const met = downForGood(cooling, level);
    const dueMinute = start.from + step.within_min;
    const lastDue = start.to + step.within_min;
    const once = firstDown(cooling, level);
    const warmedAgain = once !== undefined && (met === undefined || met.to > once.to);
    const warm = cooling.findLast((r) => !isDown(r.C, level));
    let verdict: Verdict;
    if (met !== undefined && met.to <= dueMinute + 1e-9) verdict = startUnknown ? 'not-shown' : 'within';
    else if (warm !== undefined && warm.minute > lastDue + 1e-9) verdict = 'outside';
    else if (met !== undefined && met.from === met.to && met.to > lastDue + 1e-9) verdict = 'outside';
    else if (met !== undefined || startUnknown || now > dueMinute + 1e-9) verdict = 'not-shown';
    else verdict = 'open';
    return { toC: step.to_C, dueMinute, met, metAbout: straight(cooling, met, step.to_C), warmedAgain, verdict };
  });
  const edges = [start, ...judged.map((s) => s.met)];
  return {
    verdict: worst(judged.map((s) => s.verdict)),
    start,
    startUnknown,
    gapMinutes: Math.max(...edges.map((b) => (b === undefined ? 0 : b.to - b.from))),
    steps: judged,
  };
}

/** Cooling against its steps, the verdict alone. */
export const judgeCooling = (limit: CoolingSteps, log: TemperatureLog, nowMinute: number): Verdict =>
  coolingProgress(limit, log, nowMinute).verdict;
