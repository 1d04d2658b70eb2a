export interface IndividualsChart {
  readonly centre: number;
  readonly lower: number;
  readonly upper: number;
  readonly meanMovingRange: number;
}

/** d2 for ranges of two. Source: NIST/SEMATECH e-Handbook of Statistical Methods, 6.3.2.2. */
const D2 = 1.128;

/**
 * Limits of an individuals chart from the mean moving range.
 *
 * Shapes  values: n >= 2, in time order. Fewer give undefined: no limits can be drawn.
 * Source  NIST/SEMATECH e-Handbook of Statistical Methods, 6.3.2.2: mean ± 3 MRbar / 1.128.
 * @example 49.6 47.6 49.9 51.3 47.8 51.2 52.6 52.4 53.6 52.1 -> 50.81, 45.8159 .. 55.8041
 */
export function individualsChart(values: readonly number[]): IndividualsChart | undefined {
  if (values.length < 2) return undefined;
  const centre = values.reduce((a, b) => a + b, 0) / values.length;
  let ranges = 0;
  for (let i = 1; i < values.length; i += 1) ranges += Math.abs((values[i] ?? 0) - (values[i - 1] ?? 0));
  const meanMovingRange = ranges / (values.length - 1);
  const reach = (3 * meanMovingRange) / D2;
  return { centre, lower: centre - reach, upper: centre + reach, meanMovingRange };
}
