import { mean } from 'simple-statistics';
import type {
  CookPoints,
  FreezeTreatment,
  LeastTemperature,
  Limit,
  MostTemperature,
  SamplingPlan,
  ShelfLife,
  TimeLimit,
  Verdict,
} from './limit.ts';
import { atLeast, atMost, leastOf, mostOf } from './readings.ts';

/** A temperature as the probe shows it, in its own unit. */
export type Reading = { readonly C: number } | { readonly F: number };

const celsiusOf = (reading: Reading): number => ('C' in reading ? reading.C : ((reading.F - 32) * 5) / 9);

/**
 * A reading against a limit, unrounded, against the document's Celsius or its Fahrenheit where it publishes both.
 *
 * `probeErrorC` is the probe's declared error: a reading nearer to the limit than that is not within.
 * Errors  a reading that is no number: not shown.
 */
export function judgeTemperature(
  limit: MostTemperature | LeastTemperature,
  reading: Reading,
  probeErrorC = 0,
): Verdict {
  const bound =
    limit.kind === 'max_temp'
      ? mostOf(limit.value.max_C, limit.value.max_F)
      : leastOf(limit.value.min_C, limit.value.min_F);
  const shown = celsiusOf(reading);
  if (!Number.isFinite(shown) || !Number.isFinite(probeErrorC)) return 'not-shown';
  const within = limit.kind === 'max_temp' ? atMost(shown + probeErrorC, bound) : atLeast(shown - probeErrorC, bound);
  return within ? 'within' : 'outside';
}

/** Cooked this hot for so many seconds: any one point of the table that is reached. Nothing is read between the points. */
export function judgeCooking(limit: CookPoints, reading: Reading, seconds: number): Verdict {
  if (!Number.isFinite(celsiusOf(reading)) || Number.isNaN(seconds)) return 'not-shown';
  const reached = limit.value.points.some(
    (p) => atLeast(celsiusOf(reading), leastOf(p.T_C, p.T_F)) && seconds >= p.t_s,
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

/**
 * A freezing treatment as somebody states it, against its options: colder and longer is within.
 *
 * Errors  anything that is no number, or a thickness the limit asks for and nobody said: not shown. Thicker than its table: outside.
 */
export function judgeFreezing(limit: FreezeTreatment, done: Freezing): Verdict {
  const { options, thickness_max_cm: thickest } = limit.value;
  if (![done.freezeC, done.holdC, done.holdHours, done.thicknessCm ?? 0].every(Number.isFinite)) return 'not-shown';
  if (thickest !== undefined && done.thicknessCm !== undefined && done.thicknessCm > thickest) return 'outside';
  const met = options.some(
    (o) =>
      done.freezeC <= o.freeze_C &&
      done.holdC <= o.hold_C &&
      done.holdHours >= o.hold_h &&
      (o.until_solid !== true || done.solid),
  );
  if (!met) return 'outside';
  return thickest !== undefined && done.thicknessCm === undefined ? 'not-shown' : 'within';
}

/**
 * Time as the control: so many hours, from a start that was cold enough, never warmer than said.
 *
 * Errors  a start or a warmest reading that the limit asks for and nobody took, or what is no number: not shown, unless it is outside
 *         by what is known.
 */
export function judgeTime(
  limit: TimeLimit,
  done: { readonly hours: number; readonly startC?: number; readonly peakC?: number },
): Verdict {
  const { max_h, start_max_C: start, never_above_C: never } = limit.value;
  const asked: readonly (readonly [number | undefined, number])[] = [
    [done.hours, max_h],
    ...(start === undefined ? [] : [[done.startC, start] as const]),
    ...(never === undefined ? [] : [[done.peakC, never] as const]),
  ];
  if (asked.some(([is, most]) => is !== undefined && is > most)) return 'outside';
  return asked.every(([is]) => is !== undefined && Number.isFinite(is)) ? 'within' : 'not-shown';
}

/** Laboratory results against a sampling plan. Fewer results than the plan asks for leave it open; one that is no number shows nothing. */
export function judgeSamples({ value: { n, c, m, M, rule } }: SamplingPlan, results: readonly number[]): Verdict {
  const above = results.filter((r) => r > m).length;
  if (above > c || results.some((r) => r > M)) return 'outside';
  if (!results.every(Number.isFinite)) return 'not-shown';
  if (results.length < n) return 'open';
  return rule?.startsWith('mean') === true && mean([...results]) > m ? 'outside' : 'within';
}

/**
 * A calendar day some days later; days are "YYYY-MM-DD" and know no time zone.
 *
 * Errors  RangeError for a day that no calendar has, or days that are no whole number.
 */
export function addDays(day: string, days: number): string {
  const date = new Date(`${day}T00:00:00Z`);
  if (Number.isNaN(date.getTime()) || date.toISOString().slice(0, 10) !== day)
    throw new RangeError(`${day} is no day of the calendar`);
  if (!Number.isSafeInteger(days)) throw new RangeError(`${days} is no number of days`);
  date.setUTCDate(date.getUTCDate() + days);
  return date.toISOString().slice(0, 10);
}

/**
 * The last day something may be used, counted as its document counts.
 *
 * @example 7 days with the day of making as day one, made on 28 December -> 3 January
 */
export function lastDay({ value }: Pick<ShelfLife, 'value'>, start: string): string {
  const first = value.day_of_preparation_is ?? value.day_of_opening_is ?? 1;
  return addDays(start, value.max_days - first);
}

/** Whether a limit may be shown as one. What we are not sure of is shown as something to look up in the house's own code. */
export const isShownAsLimit = (limit: Limit): boolean => limit.certainty !== 'low';
