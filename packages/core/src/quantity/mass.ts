import { Refusal } from '../refusal.ts';

/** A mass in whole milligrams. Safe as a number up to nine million tonnes. */
export type Milligrams = number & { readonly unit: 'mg' };

export const mg = (value: number): Milligrams => Math.round(value) as Milligrams;
export const grams = (value: number): Milligrams => mg(value * 1_000);
export const kilograms = (value: number): Milligrams => mg(value * 1_000_000);
export const inGrams = (mass: number): number => mass / 1_000;
export const inKilograms = (mass: number): number => mass / 1_000_000;

/** One avoirdupois pound, exactly. Source: international yard and pound agreement 1959; NIST Handbook 44, Appendix C. */
const MG_PER_POUND_EXACT = 453_592.37;
const MG_PER_OUNCE = MG_PER_POUND_EXACT / 16;

export const pounds = (value: number): Milligrams => mg(value * MG_PER_POUND_EXACT);
export const ounces = (value: number): Milligrams => mg(value * MG_PER_OUNCE);

export type MassUnits = 'metric' | 'imperial';

/** "2,860": thousands by a comma. Written out because making one Intl formatter takes a slow tablet a tenth of a second. */
export const formatCount = (value: number, decimals = 0): string => {
  const [whole = '', rest] = value.toFixed(decimals).split('.');
  const grouped = whole.replace(/\B(?=(\d{3})+$)/g, ',');
  return rest === undefined ? grouped : `${grouped}.${rest}`;
};

/**
 * A mass in the words of a kitchen: grams to 10 kg, kilograms above, or pounds and ounces.
 *
 * Keeps   the sign; never shows "-0 g".
 * @example formatMass(grams(2860)) -> "2,860 g"; formatMass(kilograms(14.2)) -> "14.20 kg"
 * @example formatMass(pounds(6.5), 'imperial') -> "6 lb 8.0 oz"
 */
export function formatMass(mass: number, units: MassUnits = 'metric'): string {
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

const PART = /^(\d[\d.,]*)\s*(mg|g|kg|oz|lb|lbs)?/i;
const PLAIN = /^\d+(?:[.,]\d+)?$/;
const GROUPED = /^[1-9]\d{0,2}(?:,\d{3})+(?:\.\d+)?$/;
const UNIT_MG: Readonly<Record<string, number>> = {
  mg: 1,
  g: 1_000,
  kg: 1_000_000,
  oz: MG_PER_OUNCE,
  lb: MG_PER_POUND_EXACT,
  lbs: MG_PER_POUND_EXACT,
};

/**
 * A figure as people type it, or NaN. "1,372" can be either: grams in thousands, kilograms with a decimal comma. Nobody puts
 * a tonne and more on a bench, and nobody types thousandths of a gram; so the unit decides, and a figure with both signs is plain.
 */
function readNumber(text: string, unit: string): number {
  const oneComma = /^\d+,\d+$/.test(text);
  if (GROUPED.test(text) && (!oneComma || unit === 'g' || unit === 'mg')) return Number(text.replaceAll(',', ''));
  return PLAIN.test(text) ? Number(text.replace(',', '.')) : Number.NaN;
}

/**
 * Reads a mass as people type it. A bare number is in `bare` units (grams unless said otherwise).
 *
 * Errors  `not_a_mass`: empty, negative, letters it does not know, or more than 100 t.
 * @example parseMass("2860") -> 2_860_000; parseMass("2.86 kg") -> 2_860_000; parseMass("6 lb 4 oz") -> 2_834_952
 * @example parseMass("1,372") -> 1_372_000; parseMass("1,372 kg") -> 1_372_000; parseMass("0,412 kg") -> 412_000
 */
export function parseMass(text: string, bare: 'g' | 'kg' | 'lb' | 'oz' = 'g'): Milligrams {
  let rest = text.trim();
  let total = 0;
  if (rest === '') throw new Refusal('not_a_mass', { text });
  while (rest !== '') {
    const part = PART.exec(rest);
    const amount = part?.[1];
    if (part === null || amount === undefined) throw new Refusal('not_a_mass', { text });
    const unit = (part[2] ?? bare).toLowerCase();
    total += readNumber(amount, unit) * (UNIT_MG[unit] ?? Number.NaN);
    rest = rest.slice(part[0].length).trim();
  }
  if (!Number.isFinite(total) || total > 1e11) throw new Refusal('not_a_mass', { text });
  return mg(total);
}
