import { maximumPermissibleError, type ScaleSpec } from './scaleTolerance.ts';

/** A test weight that was laid on, and what the scale showed of it. */
export interface TestPoint {
  readonly loadMg: number;
  readonly shownMg: number;
}

/** `unsure`: the figure is rounded to the interval, and what is rounded away decides. */
export type CheckVerdict = 'within' | 'outside' | 'unsure';

export interface JudgedPoint extends TestPoint {
  readonly errorMg: number;
  /** What a scale in use may be out at this load. */
  readonly allowedMg: number;
  readonly verdict: CheckVerdict;
}

export interface ScaleCheck {
  readonly points: readonly JudgedPoint[];
  readonly verdict: CheckVerdict;
  /** Nothing is said of loads over this. */
  readonly upToMg: number;
}

/** The least weights that say something of a scale: one near what is usually weighed, one further up. */
const LEAST_POINTS = 2;

/**
 * Judges a scale by test weights. A figure stands for anything within half an interval of it, so an error counts as within only when all of
 * that is, as outside only when none of it is. Fewer than two weights say nothing.
 *
 * Units   milligrams.
 * Keeps   never better than its worst point.
 * Source  OIML R 76-1:2006, 3.5.1 Table 6 and 3.5.2 (in service, twice), A.4.4.3 (error before rounding, here bounded, no added weights). From
 *         memory.
 * @example class III, e = 1 g: 5,000 g shown as 5,001 g -> 1 g of 3 g, within; 500 g shown as 501 g -> 1 g of 1 g, unsure
 */
export function judgeScale(scale: ScaleSpec, points: readonly TestPoint[]): ScaleCheck {
  const judged = points.map((point): JudgedPoint => {
    const errorMg = point.shownMg - point.loadMg;
    const allowedMg = maximumPermissibleError(scale, point.loadMg);
    const half = scale.intervalMg / 2;
    const verdict =
      Math.abs(errorMg) - half >= allowedMg ? 'outside' : Math.abs(errorMg) + half <= allowedMg ? 'within' : 'unsure';
    return { ...point, errorMg, allowedMg, verdict };
  });
  const worst = (['outside', 'unsure'] as const).find((v) => judged.some((p) => p.verdict === v));
  return {
    points: judged,
    verdict: worst ?? (new Set(judged.map((p) => p.loadMg)).size < LEAST_POINTS ? 'unsure' : 'within'),
    upToMg: Math.max(0, ...judged.map((p) => p.loadMg)),
  };
}
