import { Refusal } from '../refusal.ts';
import { readFigure } from './number.ts';
import { formatCount, GRAMS_PER_OUNCE, GRAMS_PER_POUND, type Units, unitsNow } from './units.ts';

/** A mass in whole milligrams. Safe as a number up to nine million tonnes. */
export type Milligrams = number & { readonly unit: 'mg' };

export const mg = (value: number): Milligrams => Math.round(value) as Milligrams;
export const grams = (value: number): Milligrams => mg(value * 1_000);
export const kilograms = (value: number): Milligrams => mg(value * 1_000_000);
export const inGrams = (mass: number): number => mass / 1_000;
export const inKilograms = (mass: number): number => mass / 1_000_000;

const MG_PER_POUND_EXACT = GRAMS_PER_POUND * 1_000;
const MG_PER_OUNCE = GRAMS_PER_OUNCE * 1_000;

export const pounds = (value: number): Milligrams => mg(value * MG_PER_POUND_EXACT);
export const ounces = (value: number): Milligrams => mg(value * MG_PER_OUNCE);

/**
 * A mass in the words of the house's kitchen: grams to 10 kg, kilograms above, or pounds and ounces.
 *
 * Keeps   the sign; never shows "-0 g".
 * @example formatMass(grams(2860)) -> "2,860 g"; formatMass(kilograms(14.2)) -> "14.20 kg"
 * @example formatMass(pounds(6.5), 'imperial') -> "6 lb 8.0 oz"
 */
export function formatMass(mass: number, units: Units['mass'] = unitsNow().mass): string {
  const sign = mass < 0 ? '−' : '';
  const size = Math.abs(mass);
  if (units === 'imperial') {
    const tenths = Math.round((size / MG_PER_OUNCE) * 10);
    const lb = Math.floor(tenths / 160);
    const oz = formatCount((tenths - lb * 160) / 10, 1);
    return tenths === 0 ? '0.0 oz' : `${sign}${lb > 0 ? `${formatCount(lb)} lb ` : ''}${oz} oz`;
  }
  if (size >= 10_000_000) return `${sign}${formatCount(size / 1_000_000, 2)} kg`;
  const whole = Math.round(size / 1_000);
  return whole === 0 ? '0 g' : `${sign}${formatCount(whole)} g`;
}

const UNIT_MG: Readonly<Record<string, number>> = {
  mg: 1,
  g: 1_000,
  kg: 1_000_000,
  oz: MG_PER_OUNCE,
  lb: MG_PER_POUND_EXACT,
};
/** What a bare figure after a unit is: "1 kg 200" are grams, "2 lb 3" are ounces. */
const SMALLER: Readonly<Record<string, string>> = { kg: 'g', lb: 'oz' };

const NAMES: Readonly<Record<string, string>> = {
  gram: 'g',
  grams: 'g',
  gr: 'g',
  kilo: 'kg',
  kilos: 'kg',
  lbs: 'lb',
  pound: 'lb',
  pounds: 'lb',
  ounce: 'oz',
  ounces: 'oz',
};
const PART =
  /^((?:\d{1,3}(?:[ '’]\d{3})+(?:[.,]\d+)?(?!\d)|\d[\d.,]*|[.,]\d+)? ?[½¼¾⅓⅔⅛⅜⅝⅞]?) ?(kilograms?|kilos?|kg|mg|grams?|gr|g|ounces?|oz|pounds?|lbs?)?(?![a-z])/i;

/** A figure in a unit, milligrams. In grams the house's sign for thousands is one; its decimal sign with three figures after it may be kilograms as well. */
function inUnit(figure: string, unit: string, said: boolean, text: string): number {
  const read = readFigure(figure);
  if (read === undefined) throw new Refusal('not_a_mass', { text });
  const size = UNIT_MG[unit] ?? Number.NaN;
  const small = unit === 'g' || unit === 'mg';
  const either = (thousands: number, decimal: number): never => {
    throw new Refusal('ambiguous_mass', {
      text,
      either: `${formatCount(thousands)} g`,
      or: `${formatCount(Math.round(decimal * 1_000))} g (${decimal} kg)`,
    });
  };
  if (read.kind === 'two') {
    if (!small) return read.decimal * size;
    // 1.372 is 1,372 g where points are for thousands, and the same 1.372 kg: typed as grams nobody means thousandths of one
    if (read.sign === (unitsNow().decimal === 'comma' ? ',' : '.'))
      throw new Refusal('ambiguous_mass', {
        text,
        either: `${read.decimal} g`,
        or: `${formatCount(read.thousands)} g`,
      });
    return read.thousands * size;
  }
  // 0.412 without a unit was meant in kilograms as likely as in grams
  if (!said && small && /^0?[.,]\d{3}$/.test(figure.trim())) either(read.value * 1_000, read.value);
  return read.value * size;
}

/**
 * Reads a mass as people type it. A bare number is in `bare` units (the house's small one unless said otherwise: grams, or ounces), and after a unit in the
 * next smaller.
 *
 * Errors  `not_a_mass`: empty, negative, letters it does not know, a unit twice or out of order, or more than 100 t. `ambiguous_mass` with
 *         both readings: three figures behind a point in grams.
 * @example parseMass("2860") -> 2_860_000; parseMass("2 860") -> 2_860_000; parseMass("2.86 kg") -> 2_860_000
 * @example parseMass("6 lb 4 oz") -> 2_834_952; parseMass("1 kg 200") -> 1_200_000; parseMass("1½ lb") -> 680_389
 * @example parseMass("1,372") -> 1_372_000; parseMass("1,372 kg") -> 1_372_000; parseMass("1.372") -> ambiguous
 */
export function parseMass(
  text: string,
  bare: 'g' | 'kg' | 'lb' | 'oz' = unitsNow().mass === 'metric' ? 'g' : 'oz',
): Milligrams {
  let rest = text.trim().replace(/[\s\u00a0\u2000-\u200a\u202f\u205f]+/g, ' ');
  let total = 0;
  /** The unit before, or that there was none: after a bare figure nothing follows. */
  let before: string | undefined;
  if (rest === '') throw new Refusal('not_a_mass', { text });
  while (rest !== '') {
    const part = PART.exec(rest);
    const figure = part?.[1]?.trim() ?? '';
    if (part === null || figure === '') throw new Refusal('not_a_mass', { text });
    const named = part[2]?.toLowerCase().replace(/^kilograms?$/, 'kg');
    const unit = named === undefined ? (before === undefined ? bare : SMALLER[before]) : (NAMES[named] ?? named);
    if (unit === undefined || (before !== undefined && SMALLER[before] !== unit))
      throw new Refusal('not_a_mass', { text });
    total += inUnit(figure, unit, named !== undefined || before !== undefined, text);
    before = named === undefined && before === undefined ? 'bare' : unit;
    rest = rest.slice(part[0].length).trim();
  }
  if (!Number.isFinite(total) || total > 1e11) throw new Refusal('not_a_mass', { text });
  return mg(total);
}
