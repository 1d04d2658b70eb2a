import { Refusal } from '../refusal.ts';
import { formatCount, type Units, unitsNow } from './units.ts';

/** A temperature in hundredths of a degree Celsius. */
export type CentiCelsius = number & { readonly unit: 'c°C' };

export const celsius = (degrees: number): CentiCelsius => Math.round(degrees * 100) as CentiCelsius;
export const fahrenheit = (degrees: number): CentiCelsius => Math.round(((degrees - 32) * 500) / 9) as CentiCelsius;
export const inFahrenheit = (t: number): number => (t * 9) / 500 + 32;

/** As the house reads it: "1.4 °C" or "34.5 °F". */
export const formatTemperature = (t: number, scale: Units['temperature'] = unitsNow().temperature): string =>
  `${formatCount(scale === 'C' ? t / 100 : inFahrenheit(t), 1).replace('-', '−')} °${scale}`;

/**
 * Reads "1.4", "-18 C", "34.5F". A bare number is in the house's scale.
 *
 * Errors  `not_a_temperature`: letters it does not know, or outside -80..300 °C, where a kitchen probe has no business.
 */
export function parseTemperature(text: string): CentiCelsius {
  const match = /^([-−]?\d{1,3}(?:[.,]\d{1,2})?)\s*°?\s*([cf])?$/i.exec(text.trim());
  const value = match?.[1] === undefined ? Number.NaN : Number(match[1].replace('−', '-').replace(',', '.'));
  const scale = match?.[2]?.toUpperCase() ?? unitsNow().temperature;
  const read = scale === 'F' ? fahrenheit(value) : celsius(value);
  if (!Number.isFinite(read) || read < -8_000 || read > 30_000) throw new Refusal('not_a_temperature', { text });
  return read;
}
