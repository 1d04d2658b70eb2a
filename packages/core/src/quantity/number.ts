/** Figures as people type them, read in one way for the whole app. */
import { Refusal } from '../refusal.ts';
import { unitsNow } from './units.ts';

/** What a figure can be: one number, or two when nobody can tell a decimal sign from thousands. */
export type NumberRead =
  | { readonly kind: 'one'; readonly value: number }
  | { readonly kind: 'two'; readonly sign: ',' | '.'; readonly decimal: number; readonly thousands: number };

const one = (value: number): NumberRead | undefined => (Number.isFinite(value) ? { kind: 'one', value } : undefined);

/** Spaces of every width that printing and copying leave in a figure. */
const SPACES = /[\s\u00a0\u2000-\u200a\u202f\u205f]+/g;
const FRACTIONS: Readonly<Record<string, number>> = {
  '½': 1 / 2,
  '¼': 1 / 4,
  '¾': 3 / 4,
  '⅓': 1 / 3,
  '⅔': 2 / 3,
  '⅛': 1 / 8,
  '⅜': 3 / 8,
  '⅝': 5 / 8,
  '⅞': 7 / 8,
};

/**
 * Reads a figure, never below nought; undefined when it is none.
 *
 * Thousands may stand apart by a space of any width or an apostrophe; halves and quarters may be signs; with both a comma and a point the
 * last of them is the decimal sign. One comma or one point with three figures after it can be either: both are given.
 *
 * @example "2 860" -> 2860; "1½" -> 1.5; ".5" -> 0.5; "1.234,5" -> 1234.5; "1,250" -> two: 1.25 or 1250; "0,500" -> 0.5
 */
export function readFigure(typed: string): NumberRead | undefined {
  const text = typed.trim().replace(SPACES, ' ');
  const mixed = /^(\d*) ?([½¼¾⅓⅔⅛⅜⅝⅞])$/.exec(text);
  if (mixed !== null) return one(Number(mixed[1] ?? 0) + (FRACTIONS[mixed[2] ?? ''] ?? Number.NaN));
  const slash = /^(?:(\d+) )?(\d{1,2})\/(\d{1,2})$/.exec(text);
  if (slash !== null)
    return Number(slash[3]) === 0 ? undefined : one(Number(slash[1] ?? 0) + Number(slash[2]) / Number(slash[3]));
  if (/^\d{1,3}(?:[ '’]\d{3})+(?:[.,]\d+)?$/.test(text))
    return one(Number(text.replace(/[ '’]/g, '').replace(',', '.')));
  if (/^[1-9]\d{0,2}(?:,\d{3})+\.\d+$/.test(text)) return one(Number(text.replaceAll(',', '')));
  if (/^[1-9]\d{0,2}(?:\.\d{3})+,\d+$/.test(text)) return one(Number(text.replaceAll('.', '').replace(',', '.')));
  if (/^[1-9]\d{0,2}(?:,\d{3}){2,}$/.test(text)) return one(Number(text.replaceAll(',', '')));
  const either = /^([1-9]\d{0,2})([.,])(\d{3})$/.exec(text);
  if (either !== null)
    return {
      kind: 'two',
      sign: either[2] as ',' | '.',
      decimal: Number(`${either[1]}.${either[3]}`),
      thousands: Number(`${either[1]}${either[3]}`),
    };
  return /^(?:\d+(?:[.,]\d*)?|[.,]\d+)$/.test(text) ? one(Number(text.replace(',', '.'))) : undefined;
}

/**
 * Reads a figure where the house's decimal sign is always one: centimetres, per cent, litres. NaN for what is none, and for the other sign where it may
 * as well be thousands.
 *
 * @example "1,5" -> 1.5; "1.250" -> 1.25; "1,250" -> NaN; "" -> NaN
 */
export function readDecimal(text: string): number {
  const minus = /^\s*[-−]/.test(text);
  const read = readFigure(minus ? text.replace(/[-−]/, '') : text);
  if (read === undefined || (read.kind === 'two' && read.sign === (unitsNow().decimal === 'comma' ? '.' : ',')))
    return Number.NaN;
  const value = read.kind === 'one' ? read.value : read.decimal;
  return minus ? -value : value;
}

/** What to say of a figure that was refused: for one that can be two, both of them. */
export function figureWords(error: unknown, otherwise: string): string {
  if (!(error instanceof Refusal) || !error.code.startsWith('ambiguous')) return otherwise;
  const { either, or } = error.data as { readonly either?: string; readonly or?: string };
  return `Is that ${either} or ${or}? Type it so that it can only be one.`;
}
