import type {
  CookPoints,
  CoolingSteps,
  Exposure,
  FreezeTreatment,
  LeastTemperature,
  Limit,
  MostTemperature,
  SamplingPlan,
  ShelfLife,
  TimeLimit,
  Verdict,
} from './limit.ts';

/** A temperature as the probe shows it, in its own unit. */
export type Reading = { readonly C: number } | { readonly F: number };

/** Readings over time, in order. Minutes from any beginning, degrees Celsius. */
export type TemperatureLog = readonly { readonly minute: number; readonly C: number }[];

const celsiusOf = (reading: Reading): number => ('C' in reading ? reading.C : ((reading.F - 32) * 5) / 9);

/**
 * A reading against a limit, unrounded, in the unit the probe shows where the document publishes that unit.
 *
 * `probeErrorC` is the probe's declared error: a reading nearer to the limit than that is not within.
 */
export function judgeTemperature(
  limit: MostTemperature | LeastTemperature,
  reading: Reading,
  probeErrorC = 0,
): Verdict {
  const most = limit.kind === 'max_temp';
  const inF = most ? limit.value.max_F : limit.value.min_F;
  const bound = 'F' in reading && inF !== undefined ? inF : most ? limit.value.max_C : limit.value.min_C;
  const shown = 'F' in reading && inF !== undefined ? reading.F : celsiusOf(reading);
  const error = 'F' in reading && inF !== undefined ? probeErrorC * 1.8 : probeErrorC;
  return (most ? shown + error <= bound : shown - error >= bound) ? 'within' : 'outside';
}

/** Cooked this hot for so many seconds: any one point of the table that is reached. Nothing is read between the points. */
export function judgeCooking(limit: CookPoints, reading: Reading, seconds: number): Verdict {
  const reached = limit.value.points.some(
    (p) =>
      ('F' in reading && p.T_F !== undefined ? reading.F >= p.T_F : celsiusOf(reading) >= p.T_C) && seconds >= p.t_s,
  );
  return reached ? 'within' : 'outside';
}

export interface Freezing {
  /** How cold the freezer was that froze it, and how cold it was held then; degrees Celsius. */
  readonly freezeC: number;
  readonly holdC: number;
  readonly holdHours: number;
  /** Whether someone saw that it was frozen through. */
  readonly solid: boolean;
  readonly thicknessCm?: number;
}

/** A freezing treatment against its options: colder and longer is within; thicker than the table's is not judged by it. */
export function judgeFreezing(limit: FreezeTreatment, done: Freezing): Verdict {
  const { options, thickness_max_cm: thickest } = limit.value;
  if (thickest !== undefined && (done.thicknessCm ?? 0) > thickest) return 'outside';
  const met = options.some(
    (o) =>
      done.freezeC <= o.freeze_C &&
      done.holdC <= o.hold_C &&
      done.holdHours >= o.hold_h &&
      (o.until_solid !== true || done.solid),
  );
  return met ? 'within' : 'outside';
}

export interface CoolingStep {
  readonly toC: number;
  /** When it must be there, minutes on the log's own clock. */
  readonly dueMinute: number;
  /** When it was there, straight between the two readings around it; undefined while it is not. */
  readonly metMinute: number | undefined;
  /** How far apart those readings are, minutes. Over half an hour apart, say that it was read between them. */
  readonly gapMinutes: number;
  readonly verdict: Verdict;
}

export interface CoolingProgress {
  readonly verdict: Verdict;
  /** When the clock started, minutes on the log's own clock; undefined while it is warmer than that. */
  readonly startMinute: number | undefined;
  /** The first reading was colder than where the clock starts: how long it took to get there is not known. */
  readonly startUnknown: boolean;
  readonly steps: readonly CoolingStep[];
}

/** Where a log comes down to a temperature, straight between two measured readings. */
function comesDownTo(log: TemperatureLog, C: number, from = Number.NEGATIVE_INFINITY) {
  for (const [i, b] of log.entries()) {
    if (b.C > C || b.minute < from) continue;
    const a = log[i - 1];
    if (a === undefined || a.C <= C) return { minute: Math.max(from, b.minute), gap: 0 };
    const minute = a.minute + ((a.C - C) / (a.C - b.C)) * (b.minute - a.minute);
    return { minute: Math.max(from, minute), gap: b.C === C ? 0 : b.minute - a.minute };
  }
  return undefined;
}

/**
 * Cooling against its steps, each with when it was due and when it was met.
 *
 * Shapes  log in order of time, measured readings only: nothing is foretold here.
 * Keeps   a step counts as met where the straight line between two readings crosses it; open while its time runs; the minute itself
 *         is still in time.
 * Source  the limit's own document; crossings straight between readings as models of probe logs do (common practice).
 */
export function coolingProgress(limit: CoolingSteps, log: TemperatureLog): CoolingProgress {
  const { start_C: from, steps } = limit.value;
  const first = log[0];
  const last = log.at(-1);
  const start = first === undefined ? undefined : from === null ? { minute: first.minute } : comesDownTo(log, from);
  if (start === undefined || last === undefined)
    return { verdict: 'open', startMinute: undefined, startUnknown: false, steps: [] };
  const judged = steps.map((step): CoolingStep => {
    const met = comesDownTo(log, step.to_C, start.minute);
    const dueMinute = start.minute + step.within_min;
    const late = met === undefined ? last.minute > dueMinute : met.minute > dueMinute + 1e-9;
    return {
      toC: step.to_C,
      dueMinute,
      metMinute: met?.minute,
      gapMinutes: met?.gap ?? 0,
      verdict: late ? 'outside' : met === undefined ? 'open' : 'within',
    };
  });
  const worst = (['outside', 'open'] as const).find((v) => judged.some((s) => s.verdict === v)) ?? 'within';
  return {
    verdict: worst,
    startMinute: start.minute,
    startUnknown: from !== null && first !== undefined && first.C < from,
    steps: judged,
  };
}

/** Cooling against its steps, the verdict alone. */
export const judgeCooling = (limit: CoolingSteps, log: TemperatureLog): Verdict => coolingProgress(limit, log).verdict;

/**
 * Hours above a temperature, straight between readings.
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
  readonly hours: number;
  /** The hours that are allowed, given the warmest reading. */
  readonly allowedHours: number;
}

/** Cumulative time above a temperature, with the shorter time once any reading was warmer than the second one. */
export function judgeExposure(limit: Exposure, log: TemperatureLog): ExposureSoFar {
  const { above_C, max_h, if_any_above_C: second, then_max_h: shorter } = limit.value;
  const hours = hoursAbove(log, above_C);
  const warm = second !== undefined && shorter !== undefined && log.some((r) => r.C > second);
  const allowedHours = warm ? shorter : max_h;
  return { verdict: hours <= allowedHours ? 'within' : 'outside', hours, allowedHours };
}

/** Time as the control: so many hours, from a start that was cold enough, never warmer than said. */
export function judgeTime(
  limit: TimeLimit,
  done: { readonly hours: number; readonly startC?: number; readonly peakC?: number },
): Verdict {
  const { max_h, start_max_C: start, never_above_C: never } = limit.value;
  const broken =
    done.hours > max_h ||
    (start !== undefined && done.startC !== undefined && done.startC > start) ||
    (never !== undefined && done.peakC !== undefined && done.peakC > never);
  return broken ? 'outside' : 'within';
}

/** Laboratory results against a sampling plan. Fewer results than the plan asks for leave it open. */
export function judgeSamples({ value: { n, c, m, M, rule } }: SamplingPlan, results: readonly number[]): Verdict {
  const mean = results.reduce((sum, r) => sum + r, 0) / results.length;
  const above = results.filter((r) => r > m).length;
  if (above > c || results.some((r) => r > M)) return 'outside';
  if (results.length < n) return 'open';
  return rule?.startsWith('mean') === true && mean > m ? 'outside' : 'within';
}

/** A calendar day some days later; days are "YYYY-MM-DD" and know no time zone. */
export function addDays(day: string, days: number): string {
  const date = new Date(`${day}T00:00:00Z`);
  date.setUTCDate(date.getUTCDate() + days);
  return date.toISOString().slice(0, 10);
}

/**
 * The last day something may be used, counted as its document counts.
 *
 * @example 7 days with the day of making as day one, made on 28 December -> 3 January
 */
export function lastDay({ value }: ShelfLife, start: string): string {
  const first = value.day_of_preparation_is ?? value.day_of_opening_is ?? 1;
  return addDays(start, value.max_days - first);
}

/** Whether a limit may be shown as one. What we are not sure of is shown as something to look up in the house's own code. */
export const isShownAsLimit = (limit: Limit): boolean => limit.certainty !== 'low';
