import { Refusal } from '../refusal.ts';
import { readDecimal } from './number.ts';
import { formatCount, fromHouse, LITRES_PER_GALLON, unitsNow } from './units.ts';

/**
 * A volume in the words of a kitchen.
 *
 * @example formatLitres(12.5) -> "12.5 l"; in US units "3.3 gal"; formatLitres(0.06, 2) -> "0.06 l", "2.0 fl oz"
 */
export function formatLitres(litres: number, decimals = 1): string {
  const { volume } = unitsNow();
  if (volume === 'litres') return `${formatCount(litres, decimals)} l`;
  const gallons = litres / LITRES_PER_GALLON[volume];
  if (Math.abs(gallons) >= 1) return `${formatCount(gallons, decimals)} gal`;
  if (Math.abs(gallons) >= 0.25) return `${formatCount(gallons * 4, decimals)} qt`;
  return `${formatCount(gallons * (volume === 'us' ? 128 : 160), 1)} fl oz`;
}

/** Parts of a gallon: a pint is an eighth on either side of the ocean, a fluid ounce is not. */
const PARTS: Readonly<Record<string, number>> = { gal: 1, qt: 4, pt: 8 };

/**
 * Reads a volume as people type it; a bare number is litres, or quarts where the house measures in them. Gallons and their parts are the house's, US where it
 * measures in litres.
 *
 * Errors  `not_a_volume`: empty, nought or less, letters it does not know.
 * @example parseLitres("6,3") -> 6.3; parseLitres("2 gal") -> 7.57 (US); parseLitres("750 ml") -> 0.75
 */
export function parseLitres(text: string): number {
  const match = /^(.*?)\s*(l|litres?|liters?|ml|cl|gal(?:lons?)?|qts?|quarts?|pts?|pints?|fl\.? ?oz)?$/i.exec(
    text.trim(),
  );
  const value = readDecimal(match?.[1] ?? '');
  const unit = match?.[2]?.toLowerCase() ?? '';
  const system = unitsNow().volume === 'imperial' ? 'imperial' : 'us';
  const gallon = LITRES_PER_GALLON[system];
  const part = PARTS[unit.startsWith('gal') ? 'gal' : unit.startsWith('q') ? 'qt' : unit.startsWith('p') ? 'pt' : ''];
  const litres =
    unit === ''
      ? fromHouse('l', value)
      : unit === 'ml'
        ? value / 1_000
        : unit === 'cl'
          ? value / 100
          : unit.startsWith('l')
            ? value
            : part === undefined
              ? (value * gallon) / (system === 'us' ? 128 : 160)
              : (value * gallon) / part;
  if (!(litres > 0) || litres > 1e5) throw new Refusal('not_a_volume', { text });
  return litres;
}
