import type { StageFill } from '../breakdown/plan.ts';

/** What a bird gave up when it was boned, grams per millilitre: bone with marrow and cartilage, and flesh. Typical, estimate. */
const BONE_DENSITY = 1.15;
const FLESH_DENSITY = 1.05;
const STUFFING_DENSITY = 1.02;

/** What was boned out, and what came out of it, milligrams; how much filling cooks take for its own mass. */
export interface Hollow {
  readonly bonedMg: number;
  readonly bonesMg: number;
  readonly fleshOutMg: number;
  readonly low: number;
  readonly high: number;
}

/**
 * What a stage took out of the piece that is filled again.
 *
 * Shapes  massesMg: piece id to what was weighed of it in the stage.
 * Units   milligrams. `bonedMg`: so much of the piece is to be filled; what came out goes with it in proportion.
 * Errors  undefined when the plan does not say what came out, or the piece was not weighed.
 * @example a bird boned to 1,152 g, cage 342 g and limbs 108 g: filled whole, 450 g of bones came out of it
 */
export function hollowOf(
  fill: StageFill,
  massesMg: Readonly<Record<string, number>>,
  bonedMg: number,
): Hollow | undefined {
  const made = massesMg[fill.piece] ?? 0;
  if (fill.bones === undefined || made <= 0) return undefined;
  const out = (ids: readonly string[]): number =>
    Math.round((ids.reduce((sum, id) => sum + (massesMg[id] ?? 0), 0) * bonedMg) / made);
  return { bonedMg, bonesMg: out(fill.bones), fleshOutMg: out(fill.flesh ?? []), low: fill.low, high: fill.high };
}

/** A drawn bird boned out whole, where no plan says more: kitchen practice. */
export const USUAL_FILLING = { low: 0.35, high: 0.5 } as const;

/** How much the dry part of a stuffing still swells in the oven, as a share of it. Kitchen practice, no source. */
export const SWELLS = { bread: 0.05, grain: 0.15 } as const;

/**
 * Stuffing that brings a boned bird back to its form.
 *
 * Units   milligrams. `swell`: how much the dry part still swells, as a share of the stuffing.
 * Keeps   what came out by volume, less the room that the stuffing will take by itself. A drawn bird was hollow before it was boned, so
 *         this is the lean end of what cooks take.
 * Source  volumes of what came out; a twelfth is left because meat closes on it (common practice, no source). The ratio to the boned
 *         piece that cooks take stands beside it as a check.
 */
export function stuffingFor({ bonesMg, fleshOutMg, bonedMg, low, high, swell }: Hollow & { readonly swell: number }): {
  readonly massMg: number;
  readonly usualLowMg: number;
  readonly usualHighMg: number;
} {
  const volume = bonesMg / BONE_DENSITY + fleshOutMg / FLESH_DENSITY;
  return {
    massMg: Math.round(((volume * 11) / 12 / (1 + swell)) * STUFFING_DENSITY),
    usualLowMg: Math.round(low * bonedMg),
    usualHighMg: Math.round(high * bonedMg),
  };
}
