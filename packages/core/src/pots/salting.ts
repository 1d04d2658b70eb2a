/** Salt in water and in food: shares by mass, 0..1 of the whole. */
import { mustBeFigures, Refusal } from '../refusal.ts';

/** Grams of salt that a kilogram of water takes up at 20 °C. Source: CRC-type tables, recalled. */
export const SALT_SOLUBILITY = 359;

/** Share that a brine holds when it holds no more. */
export const SATURATED = SALT_SOLUBILITY / (1_000 + SALT_SOLUBILITY);

/**
 * Salt to make a brine of a share by mass out of so much water, kg.
 *
 * Errors  `more_than_water_holds` above saturation; `not_a_figure`.
 * @example 5 kg of water to 10 % -> 0.556 kg
 */
export function saltForBrine(waterKg: number, share: number): number {
  mustBeFigures({ waterKg, share });
  if (waterKg < 0 || share < 0) throw new Refusal('not_a_figure', { waterKg, share });
  if (share > SATURATED) throw new Refusal('more_than_water_holds', { share, most: SATURATED });
  return (waterKg * share) / (1 - share);
}

/** Share of salt in a brine made of so much salt and water. @example 100 g in 1 kg is 9.1 %, not 10 */
export const brineShare = (saltKg: number, waterKg: number): number => saltKg / (saltKg + waterKg);

/** Water that brings a brine down. @example 2 kg of 20 % to 5 % -> 6 kg */
export const waterToDilute = (kg: number, from: number, to: number): number => (kg * from) / to - kg;

/** Share of salt of a brine by the salometer: 100 degrees is saturated, taken as 26.4 % as its scale is. */
export const salometerShare = (degrees: number): number => (degrees / 100) * 0.264;

/** Salt to bring food and brine together to a share when they have settled, kg: none is poured away. */
export const saltAtRest = (foodKg: number, waterKg: number, share: number, foodShare = 0): number =>
  Math.max(0, ((foodKg + waterKg) * share - foodKg * foodShare) / (1 - share));

/** Share of salt that brine pumped into meat leaves in it. @example a tenth of 18 % -> 1.64 % */
export const pumpedShare = (pumped: number, brine: number): number => (pumped * brine) / (1 + pumped);

/** Salt of the water crustaceans are boiled in, kg: grams a litre as the sea has, 35 unless said. */
export const boilingSalt = (litres: number, gramsPerLitre = 35): number => (litres * gramsPerLitre) / 1_000;

/** Nitrite in a mix, mg per kg of it, from curing salt of a share of nitrite. @example 18 g/kg of 0.5 % -> 90 */
export const nitritePpm = (gramsPerKg: number, nitriteShare: number): number => gramsPerKg * nitriteShare * 1_000;

/** Nitrite ion in so much sodium nitrite: 46.0055 of 68.9953 by molar mass. */
export const nitriteIon = (mgSodiumNitrite: number): number => (mgSodiumNitrite * 46.0055) / 68.9953;

export type BoilSize = { readonly name: string; readonly grams: number; readonly minutes: number };

/**
 * Minutes in the boil for a crustacean of a weight, counted from the boil coming back.
 *
 * Keeps   between two known sizes of the same animal the time goes as the weight to the power two thirds (conduction); outside them it
 *         is carried on the same way.
 * Source  kitchen practice for the sizes, no single document; the core temperature decides.
 */
export function boilMinutes(sizes: readonly BoilSize[], grams: number): number | undefined {
  const sorted = [...sizes].sort((a, b) => a.grams - b.grams);
  const below = sorted.filter((s) => s.grams <= grams).at(-1);
  const above = sorted.find((s) => s.grams >= grams);
  const near = below ?? above;
  if (near === undefined) return undefined;
  if (below === undefined || above === undefined || below === above)
    return near.minutes * (grams / near.grams) ** (2 / 3);
  const share = (grams ** (2 / 3) - below.grams ** (2 / 3)) / (above.grams ** (2 / 3) - below.grams ** (2 / 3));
  return below.minutes + share * (above.minutes - below.minutes);
}
