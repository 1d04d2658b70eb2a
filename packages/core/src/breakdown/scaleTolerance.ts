/** A kitchen scale as the verification plate states it. Masses in milligrams. */
export interface ScaleSpec {
  readonly accuracyClass: 'II' | 'III' | 'IIII';
  /** Verification scale interval e. */
  readonly intervalMg: number;
  readonly maxMg: number;
}

/** The name of the scale that exists only for practice: no scale of a house is called so, and a weight that names it is never booked. */
export const PRACTICE_SCALE = 'practice';
/** Why a stage is not closed with one of its weights. */
export const PRACTICE_REFUSED =
  'Some of these weights are from the practice scale. Weigh those pieces on a real one, or put the animal back.';

const STEPS: Readonly<Record<ScaleSpec['accuracyClass'], readonly [number, number]>> = {
  II: [5_000, 20_000],
  III: [500, 2_000],
  IIII: [50, 200],
};

/**
 * The largest error a verified scale may show at a load.
 *
 * Units   milligrams in and out. `inService` doubles the initial-verification limit.
 * Source  OIML R 76-1:2006, Table 6 (0.5 e, 1 e, 1.5 e by number of intervals) and 3.5.2 (in service: twice). From memory.
 * @example class III, e = 5 g, 2 kg -> 2.5 g; in service 5 g
 */
export function maximumPermissibleError(scale: ScaleSpec, loadMg: number, inService = true): number {
  const [first, second] = STEPS[scale.accuracyClass];
  const intervals = Math.abs(loadMg) / scale.intervalMg;
  const factor = intervals <= first ? 0.5 : intervals <= second ? 1 : 1.5;
  return factor * scale.intervalMg * (inService ? 2 : 1);
}

/** The lightest load worth trusting: 20 e in class III, 20 e in II, 10 e in IIII. Source: OIML R 76-1:2006, Table 3. */
export const minimumLoad = (scale: ScaleSpec): number => scale.intervalMg * (scale.accuracyClass === 'IIII' ? 10 : 20);

/**
 * How far a sum of weighings may be out: errors of separate weighings add in quadrature.
 * Source  JCGM 100:2008 (GUM), combination of uncorrelated components.
 */
export const combinedScaleError = (scale: ScaleSpec, loadsMg: readonly number[]): number =>
  combinedError(loadsMg.map((massMg) => ({ massMg, scale })));

/** The same for weighings on different scales, each with its own error. */
export const combinedError = (weighings: readonly { readonly massMg: number; readonly scale: ScaleSpec }[]): number =>
  Math.sqrt(weighings.reduce((sum, w) => sum + maximumPermissibleError(w.scale, w.massMg) ** 2, 0));

/** The scale that would be used for a load nobody noted the scale of: the smallest that can hold it, or the largest there is. */
export function scaleFor(scales: readonly [ScaleSpec, ...ScaleSpec[]], loadMg: number): ScaleSpec {
  const bySize = [...scales].sort((a, b) => a.maxMg - b.maxMg);
  return bySize.find((s) => loadMg <= s.maxMg) ?? bySize.at(-1) ?? scales[0];
}
