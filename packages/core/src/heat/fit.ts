import type { TemperatureLog } from '../safety/readings.ts';
import { type CoolingBatch, type CoolingMedium, coolingCurve } from './cooling.ts';

/**
 * Time constant by least squares on the logarithm of the excess over the surroundings, minutes.
 *
 * Errors  undefined with fewer than two readings above the surroundings, or when it does not cool.
 */
export function fitTimeConstant(log: TemperatureLog, aroundC: number): number | undefined {
  const points = log.filter((r) => r.C > aroundC + 0.1).map((r) => ({ x: r.minute, y: Math.log(r.C - aroundC) }));
  if (points.length < 2) return undefined;
  const n = points.length;
  const mx = points.reduce((s, p) => s + p.x, 0) / n;
  const my = points.reduce((s, p) => s + p.y, 0) / n;
  const sxx = points.reduce((s, p) => s + (p.x - mx) ** 2, 0);
  const slope = points.reduce((s, p) => s + (p.x - mx) * (p.y - my), 0) / sxx;
  return slope < 0 ? -1 / slope : undefined;
}

/** What surrounds it, from three readings equally far apart; noisy: only where they are a fifth of the time constant apart. */
export const surroundingsOf = (a: number, b: number, c: number): number => (a * c - b * b) / (a + c - 2 * b);

export interface CoolingFit {
  /** Multiplies the heat the handbook's figures let go: 1 as expected, 2 twice as fast. */
  readonly scale: number;
  /** Standard deviation of the logarithm of the scale. */
  readonly logSd: number;
  readonly readings: number;
}

/** Handbook figures of heat transfer are good to a factor of two, nine times in ten. */
const PRIOR_LOG_SD = Math.log(2) / 1.645;

/**
 * How fast this batch really cools, from the readings so far: the handbook's figure, pulled by every reading.
 *
 * Shapes  log in order, its first reading is the batch's start. Result with no further reading: scale 1 and the handbook's doubt.
 * Units   a probe is good to `probeSd` degrees (0.7 unless said).
 * Source  most likely scale under a log-normal prior (golden section), doubt from the curvature there (Laplace), statistics texts.
 */
export function fitCooling(batch: CoolingBatch, medium: CoolingMedium, log: TemperatureLog, probeSd = 0.7): CoolingFit {
  const first = log[0];
  const rest = log.slice(1);
  if (first === undefined || rest.length === 0) return { scale: 1, logSd: PRIOR_LOG_SD, readings: 0 };
  const minutes = Math.ceil((log.at(-1)?.minute ?? 0) - first.minute) + 1;
  const cost = (logScale: number): number => {
    const { C } = coolingCurve({ ...batch, fromC: first.C }, medium, { minutes, scale: Math.exp(logScale) });
    let sum = (logScale / PRIOR_LOG_SD) ** 2;
    for (const r of rest) {
      const at = r.minute - first.minute;
      const i = Math.floor(at);
      const a = C[i] ?? C.at(-1) ?? 0;
      const b = C[i + 1] ?? a;
      sum += ((a + (b - a) * (at - i) - r.C) / probeSd) ** 2;
    }
    return sum / 2;
  };
  const golden = (Math.sqrt(5) - 1) / 2;
  let low = -2.5;
  let high = 2.5;
  let a = high - golden * (high - low);
  let b = low + golden * (high - low);
  let fa = cost(a);
  let fb = cost(b);
  while (high - low > 1e-3) {
    if (fa < fb) {
      [high, b, fb] = [b, a, fa];
      a = high - golden * (high - low);
      fa = cost(a);
    } else {
      [low, a, fa] = [a, b, fb];
      b = low + golden * (high - low);
      fb = cost(b);
    }
  }
  const best = (low + high) / 2;
  const d = 0.02;
  const bend = (cost(best + d) + cost(best - d) - 2 * cost(best)) / d ** 2;
  return {
    scale: Math.exp(best),
    logSd: Math.min(PRIOR_LOG_SD, 1 / Math.sqrt(Math.max(bend, 1e-9))),
    readings: rest.length,
  };
}
