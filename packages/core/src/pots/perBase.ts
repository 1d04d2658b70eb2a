import { readDecimal } from '../quantity/number.ts';

const WEIGHT: Readonly<Record<string, number>> = { kg: 1, l: 1, g: 1e-3, ml: 1e-3, mg: 1e-6 };

/**
 * How much of an ingredient goes to one of the base, as cooks write it: grams to a kilo, a share, per cent, parts in a million, so many to so
 * many. A litre is taken as a kilogram.
 *
 * Shapes  result: mass per unit of base mass; undefined for what is none, and below nought.
 * Errors  none: undefined.
 *
 * @example "250 g" -> 0.25; "1.2 kg" -> 1.2; "25 %" -> 0.25; "150 ppm" -> 0.00015; "1:4" -> 0.25; "1/3" -> 0.3333; "0.25" -> 0.25
 */
export function readPerBase(typed: string): number | undefined {
  const text = typed.trim().toLowerCase();
  const parts = /^([^:]+)(?::| to )([^:]+)$/.exec(text);
  if (parts !== null) {
    const [some, all] = [readDecimal((parts[1] ?? '').trim()), readDecimal((parts[2] ?? '').trim())];
    return all > 0 && some >= 0 && Number.isFinite(some / all) ? some / all : undefined;
  }
  const unit = /^(.*?)\s*(kg|mg|ml|ppm|g|l|%)(?:\s*(?:\/|a|per)\s*(?:kg|kilo|l|litre))?$/.exec(text);
  const value = readDecimal((unit?.[1] ?? text).trim());
  if (!Number.isFinite(value) || value < 0) return undefined;
  switch (unit?.[2]) {
    case undefined:
      return value;
    case '%':
      return value / 100;
    case 'ppm':
      return value / 1e6;
    default:
      return value * (WEIGHT[unit?.[2] ?? ''] ?? 1);
  }
}

const figure = (value: number): string => String(Number(value.toPrecision(3)));

/**
 * The same in words: grams to a kilo of the base, kilograms from two on, parts in a million below half a gram.
 *
 * Keeps   three figures, read back by `readPerBase` as what they say.
 *
 * @example 0.25 -> "250 g"; 6 -> "6 kg"; 0.00015 -> "150 ppm"
 */
export const perBaseWords = (perBase: number): string =>
  perBase >= 2
    ? `${figure(perBase)} kg`
    : perBase >= 5e-4 || perBase === 0
      ? `${figure(perBase * 1_000)} g`
      : `${figure(perBase * 1e6)} ppm`;
