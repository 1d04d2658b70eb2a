import { Refusal } from '../refusal.ts';
import { readFigure } from './number.ts';
import { formatCount, fromHouse, toHouse, unitName, unitsNow } from './units.ts';

/** Money in whole minor units (pence, cents) of the house's currency. */
export type MinorUnits = number & { readonly unit: 'minor' };

export const minor = (value: number): MinorUnits => (Math.round(value) || 0) as MinorUnits; // never minus nothing

/** A price per kilogram times a mass, rounded half away from zero to a whole minor unit. */
export const priceOf = (mass: number, minorPerKg: number): MinorUnits => minor((mass * minorPerKg) / 1_000_000);

const signs: Readonly<Record<string, string>> = { GBP: '£', EUR: '€', USD: '$' };

/** Currencies that are not counted in hundredths, as the CLDR (47) has them: by use, so a forint, whose fillér nobody has seen for long, has no decimals. */
const UNCOUNTED =
  'AFN ALL BIF CLP COP DJF GNF HUF IDR IQD IRR ISK JPY KMF KPW KRW LAK LBP MGA MMK PKR PYG RWF SLL SOS SYP UGX VND VUV XAF XOF XPF YER';
const THOUSANDTHS = 'BHD JOD KWD LYD OMR TND';
const digits: ReadonlyMap<string, number> = new Map([
  ...UNCOUNTED.split(' ').map((code) => [code, 0] as const),
  ...THOUSANDTHS.split(' ').map((code) => [code, 3] as const),
]);

/**
 * How many decimals a currency's minor unit stands for: GBP 2, JPY 0, KWD 3. A table of our own: the first amount on a screen would else wait for the
 * runtime to open its tables of all the world's money, 150 ms on a slow tablet.
 */
export const minorDigits = (currency: string): number => digits.get(currency) ?? 2;

/** What stands before an amount: "£", or the code of a currency without a mark of its own and a blank. */
export const signOf = (currency: string): string => signs[currency] ?? `${currency} `;

/** An amount in the currency's own unit, as a field shows it: 1250 of GBP is 12.5, of JPY 1250. */
export const inMajor = (amount: number, currency: string): number => amount / 10 ** minorDigits(currency);

/** The same as a field has it before somebody types: 1250 of GBP is "12.50". */
export const amountText = (amount: number, currency: string): string =>
  inMajor(amount, currency).toFixed(minorDigits(currency));

/** And back: 12.5 of GBP is 1250. */
export const fromMajor = (value: number, currency: string): MinorUnits => minor(value * 10 ** minorDigits(currency));

/**
 * "£4.18", "−£0.30": as many decimals as the currency has, the sign before the mark. A currency without a mark of its own is written out:
 * "CHF 4.18", "JPY 418".
 */
export const formatMoney = (amount: number, currency: string): string => {
  const minus = Math.round(amount) < 0 ? '−' : '';
  const decimals = minorDigits(currency);
  return `${minus}${signOf(currency)}${formatCount(Math.abs(Math.round(amount)) / 10 ** decimals, decimals)}`;
};

/** An amount a kilogram as one a kilogram or a pound, as the house weighs; not rounded. And back, in whole minor units a kilogram. */
export const perHouseMass = (minorPerKg: number): number => minorPerKg / toHouse('kg', 1);
export const fromPerHouseMass = (minorPerMass: number): MinorUnits => minor(minorPerMass / fromHouse('kg', 1));
/** "a kg", or "a lb". */
export const aMass = (): string => `a ${unitName('kg')}`;

/** What a kilogram, or a pound, costs. @example formatPerMass(1433, 'USD') -> "USD 6.50 a lb" where the house weighs in pounds */
export const formatPerMass = (minorPerKg: number, currency: string): string =>
  `${formatMoney(perHouseMass(minorPerKg), currency)} ${aMass()}`;

/**
 * Reads an amount as typed on an invoice.
 *
 * Errors  `not_a_price`: empty, negative, more decimals than the currency has, letters. `ambiguous_price` with both readings: "1,250" is twelve hundred
 *         and fifty, or one and a quarter.
 * @example parseMoney("£1,031.46", "GBP") -> 103146; parseMoney("12.5", "GBP") -> 1250; parseMoney("1 250", "JPY") -> 1250; parseMoney("0,5", "EUR") -> 50
 */
export function parseMoney(text: string, currency: string): MinorUnits {
  const decimals = minorDigits(currency);
  const read = readFigure(
    text
      .trim()
      .replace(/^(?:[£$€]|[A-Z]{3}(?=[\s\d]))\s*/, '')
      .replace(/\s*[€]$/, ''),
  );
  if (read?.kind === 'two' && (read.sign === ',' || unitsNow().decimal === 'comma'))
    throw new Refusal('ambiguous_price', {
      text,
      either: formatCount(read.thousands, 2),
      or: read.decimal.toFixed(decimals),
    });
  const value = read === undefined ? Number.NaN : read.kind === 'one' ? read.value : read.decimal;
  const inMinor = value * 10 ** decimals;
  if (!Number.isFinite(inMinor) || value >= 1e9 || Math.abs(inMinor - Math.round(inMinor)) > 1e-6)
    throw new Refusal('not_a_price', { text });
  return minor(inMinor);
}

/**
 * Shares a whole total over weights so that no unit is lost.
 *
 * Shapes  weights: n >= 1, none negative. Result: n whole numbers, same order.
 * Keeps   the shares add up to `total` exactly; each is within one unit of its exact share; ties go to the earlier.
 * Errors  `no_pieces` (n = 0); `no_usable_mass` (all weights zero).
 * Source  largest remainder method (Hamilton), as in texts on apportionment.
 *
 * @example shareOut(1000, [2, 1]) -> [667, 333]
 */
export function shareOut(total: number, weights: readonly number[]): MinorUnits[] {
  if (weights.length === 0) throw new Refusal('no_pieces');
  const sum = weights.reduce((a, b) => a + b, 0);
  if (!(sum > 0)) throw new Refusal('no_usable_mass');
  const sign = total < 0 ? -1 : 1;
  const exact = weights.map((w) => (Math.abs(total) * w) / sum);
  const floors = exact.map(Math.floor);
  let left = Math.abs(total) - floors.reduce((a, b) => a + b, 0);
  const byRemainder = exact
    .map((value, index) => ({ index, remainder: value - Math.floor(value) }))
    .sort((a, b) => b.remainder - a.remainder || a.index - b.index);
  for (const { index } of byRemainder) {
    if (left <= 0) break;
    floors[index] = (floors[index] ?? 0) + 1;
    left -= 1;
  }
  return floors.map((value) => (value === 0 ? 0 : sign * value) as MinorUnits);
}

/** The tax on what is bought, as the house calls it, and whether its prices are with it or without. Nothing is reckoned: what is typed is what counts. */
export interface TaxSaid {
  readonly name: string;
  readonly prices: 'without' | 'with';
}

/** @example { name: 'VAT', prices: 'without' } -> "without VAT"; nothing where the house says nothing of a tax */
export const taxWords = (tax: TaxSaid | null | undefined): string => (tax == null ? '' : `${tax.prices} ${tax.name}`);
