/** What a bird gave up when it was boned, grams per millilitre: bone with marrow and cartilage, and flesh. Typical, estimate. */
const BONE_DENSITY = 1.15;
const FLESH_DENSITY = 1.05;
const STUFFING_DENSITY = 1.02;

/**
 * Stuffing that brings a boned bird back to its form.
 *
 * Units   milligrams. `swell`: how much the dry part still swells in the oven, as a share of the stuffing (grain 0.15, soaked bread 0.05).
 * Keeps   what came out by volume, less the room that the stuffing will take by itself.
 * Source  volumes of what came out; a twelfth is left because meat closes on it (common practice, no source). The handbook's ratio, 0.35
 *         to 0.5 of the boned bird, stands beside it as a check.
 */
export function stuffingFor(o: {
  readonly bonesMg: number;
  readonly fleshOutMg: number;
  readonly bonedMg: number;
  readonly swell: number;
}): { readonly massMg: number; readonly usualLowMg: number; readonly usualHighMg: number } {
  const volume = o.bonesMg / BONE_DENSITY + o.fleshOutMg / FLESH_DENSITY;
  return {
    massMg: Math.round(((volume * 11) / 12 / (1 + o.swell)) * STUFFING_DENSITY),
    usualLowMg: Math.round(0.35 * o.bonedMg),
    usualHighMg: Math.round(0.5 * o.bonedMg),
  };
}
