/** A supplier's price list as read from a file: which column is what, and what is wrong with which row. */
import { parseMoney } from '../quantity/money.ts';
import { Refusal } from '../refusal.ts';

export const priceColumns = ['item', 'price', 'unit'] as const;
export type PriceColumn = (typeof priceColumns)[number];

/** The place of each column in a row; a list without units is by the kilogram. */
export interface PriceMatching {
  readonly item: number;
  readonly price: number;
  readonly unit: number | null;
}

export interface PriceRow {
  /** The line of the file, the heading is 1. */
  readonly line: number;
  readonly item: string;
  readonly minorPerKg: number;
  /** As the list says it: kg, 100 g, lb, ... */
  readonly unit: string;
}

export type PriceFault =
  | 'ragged'
  | 'no-item'
  | 'formula'
  | 'item-too-long'
  | 'no-price'
  | 'not-a-price'
  | 'ambiguous-price'
  | 'unknown-unit'
  | 'twice';

export interface PriceReading {
  readonly rows: readonly PriceRow[];
  readonly faults: readonly { readonly line: number; readonly fault: PriceFault; readonly cell: string }[];
}

const GRAMS_PER_POUND = 453.592_37;
const gramsOf: Readonly<Record<string, number>> = {
  kg: 1_000,
  kilo: 1_000,
  kilogram: 1_000,
  g: 1,
  lb: GRAMS_PER_POUND,
  pound: GRAMS_PER_POUND,
  oz: GRAMS_PER_POUND / 16,
  stone: GRAMS_PER_POUND * 14,
};
/** Volumes, in the grams of as much water: what a litre of oil or cream weighs less, a list of prices does not say. */
const gramsAsWater: Readonly<Record<string, number>> = {
  l: 1_000,
  lt: 1_000,
  ltr: 1_000,
  litre: 1_000,
  liter: 1_000,
  cl: 10,
  ml: 1,
  pint: 568.261_25,
  gallon: 4_546.09,
};
const PACK = /^(?:(\d{1,4})\s*[x×*]\s*)?(\d{1,6}(?:\.\d{1,3}|,\d{1,2})?)?\s*([a-z]+)$/;
const WRAPPED = /^(?:bags?|box|boxes|case|cases|tubs?|tins?|bottles?|packs?|tray|sack|drum|carton)\s*(?:of\s*)?/;

/**
 * How many grams a price of a list is for: a unit, so many of a unit, or a pack of several. A pint and a gallon are imperial.
 *
 * @example "kg" -> 1000; "5 kg" -> 5000; "case 6 x 75cl" -> 4500; "each" -> undefined
 */
export function unitGrams(unit: string): number | undefined {
  const said = unit
    .toLowerCase()
    .trim()
    .replace(/^(?:per|an?|\/|£\/|\$\/|€\/)\s*(?=[a-z\d])/, '')
    .replace(WRAPPED, '')
    .replace(/(?<=[a-z])[.\s]+$/, '');
  const [, times = '1', amount = '1', name = ''] = PACK.exec(said) ?? [];
  const grams =
    gramsOf[name] ?? gramsOf[name.replace(/s$/, '')] ?? gramsAsWater[name] ?? gramsAsWater[name.replace(/s$/, '')];
  const many = Number(times) * Number(amount.replace(',', '.'));
  return grams === undefined || many <= 0 ? undefined : grams * many;
}

const names: Readonly<Record<PriceColumn, RegExp>> = {
  item: /^(item|product|name|description|article|species|what|goods)\b/i,
  price: /^(price|cost|rate|amount|£|\$|€)/i,
  unit: /^(unit|uom|per|measure)\b/i,
};

/** Guesses which column is what from the headings; null where nothing fits, and the person says. */
export function matchColumns(headings: readonly string[]): { readonly [C in PriceColumn]: number | null } {
  const find = (column: PriceColumn): number | null => {
    const at = headings.findIndex((h) => names[column].test(h.trim()));
    return at < 0 ? null : at;
  };
  return { item: find('item'), price: find('price'), unit: find('unit') };
}

/** A cell that a spreadsheet would run: it is refused, never cleaned in silence. */
const isFormula = (cell: string): boolean => /^[=+\-@\t\r]/.test(cell);

/**
 * Reads the rows of a price list. A row that cannot be read is left out and told of by its line; none is dropped in silence.
 *
 * Shapes  cells: the rows after the heading, as the file has them; `width`: columns of the heading. Every row gives a price or a fault. currency: the house's, ISO 4217.
 * Units   minor units per kilogram, whatever unit the list has; a pound is 453.59237 g.
 * @example "Hake, gutted"; "4.20"; "lb" -> 926 a kg
 */
export function readPriceRows(
  cells: readonly (readonly string[])[],
  width: number,
  match: PriceMatching,
  currency: string,
): PriceReading {
  const rows: PriceRow[] = [];
  const faults: { line: number; fault: PriceFault; cell: string }[] = [];
  const seen = new Set<string>();
  for (const [i, row] of cells.entries()) {
    const line = i + 2;
    const item = (row[match.item] ?? '').trim();
    const price = (row[match.price] ?? '').trim();
    const unit = match.unit === null ? 'kg' : (row[match.unit] ?? '').trim();
    const perGrams = unitGrams(unit);
    const bad = (fault: PriceFault, cell: string): void => void faults.push({ line, fault, cell: cell.slice(0, 60) });
    if (row.length !== width) bad('ragged', row.join(' | '));
    else if (item === '') bad('no-item', row.join(' | '));
    else if (row.some(isFormula)) bad('formula', row.find(isFormula) ?? '');
    else if (item.length > 120) bad('item-too-long', item);
    else if (price === '') bad('no-price', item);
    else if (perGrams === undefined) bad('unknown-unit', unit);
    else if (seen.has(item.toLowerCase())) bad('twice', item);
    else {
      let minor: number;
      try {
        minor = parseMoney(price, currency);
      } catch (error) {
        bad(error instanceof Refusal && error.code === 'ambiguous_price' ? 'ambiguous-price' : 'not-a-price', price);
        continue;
      }
      const minorPerKg = Math.round((minor * 1_000) / perGrams);
      if (minorPerKg <= 0 || minorPerKg > 100_000_000) {
        bad('not-a-price', price);
        continue;
      }
      seen.add(item.toLowerCase());
      rows.push({ line, item, minorPerKg, unit });
    }
  }
  return { rows, faults };
}
