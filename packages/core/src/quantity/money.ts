import { Refusal } from '../refusal.ts';
import { formatCount } from './mass.ts';

/** Money in whole minor units (pence, cents) of the house's currency. */
export type MinorUnits = number & { readonly unit: 'minor' };

export const minor = (value: number): MinorUnits => (Math.round(value) || 0) as MinorUnits; // never minus nothing

/** A price per kilogram times a mass, rounded half away from zero to a whole minor unit. */
export const priceOf = (mass: number, minorPerKg: number): MinorUnits => minor((mass * minorPerKg) / 1_000_000);

const signs: Readonly<Record<string, string>> = { GBP: '£', EUR: '€', USD: '$' };

/** "£4.18", "-£0.30": two decimals, the sign before the mark. A currency without a mark of its own is written out: "CHF 4.18". */
export const formatMoney = (amount: number, currency = 'GBP'): string => {
  const minus = Math.round(amount) < 0 ? '-' : '';
  return `${minus}${signs[currency] ?? `${currency} `}${formatCount(Math.abs(Math.round(amount)) / 100, 2)}`;
};

/**
 * Reads an amount as typed on an invoice.
 *
 * Errors  `not_a_price`: empty, negative, more than two decimals, letters.
 * @example parseMoney("£1,031.46") -> 103146; parseMoney("12.5") -> 1250
 */
export function parseMoney(text: string): MinorUnits {
  const plain = text
    .trim()
    .replace(/^[£$€]\s*/, '')
    .replace(/,(?=\d{3}(\D|$))/g, '')
    .replace(',', '.');
  if (!/^\d{1,9}(\.\d{1,2})?$/.test(plain)) throw new Refusal('not_a_price', { text });
  return minor(Number(plain) * 100);
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
