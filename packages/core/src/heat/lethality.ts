import type { TemperatureLog } from '../safety/readings.ts';

/** A target: so many minutes at a reference temperature, and what that is worth at others (z). */
export interface LethalityTarget {
  readonly refC: number;
  readonly z: number;
  readonly minutes: number;
}

/**
 * Minutes that are worth as much at another temperature.
 *
 * Source  Bigelow's model. @example 2 min at 70 °C with z 7.5 -> 17.2 min at 63 °C
 */
export const equivalentMinutes = (target: LethalityTarget, atC: number): number =>
  target.minutes * 10 ** ((target.refC - atC) / target.z);

/** The z that two points of a table imply. */
export const zOf = (a: { C: number; minutes: number }, b: { C: number; minutes: number }): number =>
  (b.C - a.C) / Math.log10(a.minutes / b.minutes);

/**
 * Equivalent minutes at the reference temperature of a log of the coldest point, straight between readings.
 *
 * Units   minutes, °C. `floorC`: nothing is credited below it (10 °C under the reference unless said). `probeErrorC` is taken off.
 * Keeps   a gap of more than `longestGap` minutes is credited at its colder end only.
 * Source  integral of 10^((T - Tref)/z), in closed form between two readings.
 */
export function lethality(
  log: TemperatureLog,
  { refC, z }: LethalityTarget,
  o: { readonly floorC?: number; readonly probeErrorC?: number; readonly longestGap?: number } = {},
): number {
  const floorC = o.floorC ?? refC - 10;
  const error = o.probeErrorC ?? 0;
  const worth = (C: number): number => 10 ** ((C - refC) / z);
  let sum = 0;
  for (const [i, next] of log.entries()) {
    const last = log[i - 1];
    if (last === undefined) continue;
    let minutes = next.minute - last.minute;
    let a = last.C - error;
    let b = next.C - error;
    if (minutes <= 0) continue;
    if (minutes > (o.longestGap ?? Number.POSITIVE_INFINITY)) a = b = Math.min(a, b);
    if (Math.max(a, b) <= floorC) continue;
    if (Math.min(a, b) < floorC) {
      // only the part of the line above the floor
      minutes *= (Math.max(a, b) - floorC) / Math.abs(b - a);
      if (a < b) a = floorC;
      else b = floorC;
    }
    sum += Math.abs(b - a) < 1e-9 ? minutes * worth(a) : (minutes * (worth(b) - worth(a)) * z) / (Math.LN10 * (b - a));
  }
  return sum;
}

/** Decimal reductions that so many equivalent minutes are. */
export const logReductions = (equivalent: number, dMinutes: number): number => equivalent / dMinutes;
