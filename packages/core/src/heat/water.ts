/** Water and its vapour between 1 and 100 °C, as the heat of a kitchen needs them. */

/**
 * Saturation pressure of water, pascals.
 *
 * Units   tempC: degrees Celsius, 1 to 100.
 * Source  Antoine equation with the usual constants for 1 to 100 °C, recalled (CRC-type tables); 101.3 kPa at 100 °C.
 */
export const saturationPressure = (tempC: number): number => 10 ** (8.071_31 - 1_730.63 / (233.426 + tempC)) * 133.322;

/** Mass of vapour in a cubic metre of saturated air, kg/m³ (ideal gas, 18.015 g/mol). */
export const vapourDensity = (tempC: number): number =>
  (saturationPressure(tempC) * 0.018_015) / (8.314_46 * (tempC + 273.15));

/** Heat it takes to evaporate a kilogram, J/kg, between 0 and 100 °C within 0.3 %. Source: linear fit to the steam tables, recalled. */
export const latentHeat = (tempC: number): number => (2_501 - 2.44 * tempC) * 1_000;

/** Latent heat at the boil under one atmosphere, J/kg. Source: steam tables, 2,256.5 kJ/kg. */
export const LATENT_AT_BOIL = 2_256_500;

/** Heat to melt a kilogram of ice, J/kg. Source: 333.55 kJ/kg, handbooks of physics. */
export const ICE_MELT = 333_550;

/** Heat of stock and other watery food, J/(kg K); of water itself 4,186. Typical 3,900 to 4,100. */
export const WATERY_HEAT = 4_000;

/** Density of air times its heat times the Lewis number to two thirds, J/(m³ K): ties the two ways a surface loses heat. */
const LEWIS = 1_100;

/**
 * Water that leaves a hot open surface that does not boil, kg/s.
 *
 * Units   surfaceC, airC: °C. humidity: 0..1. convection: W/(m² K). areaM2: m².
 * Keeps   never below nought: a cold surface gathers no dew here.
 * Source  Lewis relation, any heat and mass transfer text.
 * @example 95 °C under still air of 25 °C and 50 %, a pot 40 cm wide -> 1.0 kg an hour
 */
export function evaporationRate(o: {
  readonly surfaceC: number;
  readonly airC: number;
  readonly humidity: number;
  readonly convection: number;
  readonly areaM2: number;
}): number {
  const drive = vapourDensity(o.surfaceC) - o.humidity * vapourDensity(o.airC);
  return Math.max(0, (o.convection / LEWIS) * o.areaM2 * drive);
}

/**
 * Ice that melts in taking food down, kg; no loss to the room.
 *
 * Keeps   the melted ice warms to the end as well where `meltEndsC` is given.
 * Source  heat balance. @example 40 kg of stock from 57 to 5 °C -> 24.9 kg
 */
export const iceNeeded = (kg: number, fromC: number, toC: number, heat = WATERY_HEAT, meltEndsC = 0): number =>
  (kg * heat * (fromC - toC)) / (ICE_MELT + 4_186 * meltEndsC);
