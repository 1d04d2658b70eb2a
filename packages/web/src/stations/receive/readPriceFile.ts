/** Reads a price list as a file: what it is, where its columns are, and what is wrong with it, all in words. */
import { matchColumns, type PriceFault, type PriceMatching, type PriceReading, readPriceRows } from '@zabrik/core';
import Papa from 'papaparse';

export const MOST_BYTES = 5_000_000;
const MOST_ROWS = 20_000;

export interface PriceFile {
  readonly name: string;
  readonly headings: readonly string[];
  /** Columns with their place: two may have one heading, or none. */
  readonly columns: readonly { readonly at: number; readonly name: string }[];
  readonly cells: readonly (readonly string[])[];
  readonly guess: ReturnType<typeof matchColumns>;
}

export const faultWords: Readonly<Record<PriceFault, string>> = {
  ragged: 'has more or fewer columns than the heading',
  'no-item': 'names nothing',
  formula: 'has a cell that a spreadsheet would run',
  'item-too-long': 'has a name of over 120 letters',
  'no-price': 'has no price',
  'not-a-price': 'has a price that cannot be read',
  'ambiguous-price':
    'has a price that can be two: a comma with three figures after it may be thousands or a decimal. Put it right in the file',
  'unknown-unit': 'has a unit that is not known here',
  twice: 'names an item that stands above it already',
};

/** UTF-8 or nothing: a list in another encoding would turn names into rubbish without a word. */
function decode(bytes: ArrayBuffer): string | undefined {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return undefined;
  }
}

/** Reads the file as far as its columns. What it is not is said in a sentence. */
export function readPriceFile(name: string, bytes: ArrayBuffer): PriceFile | string {
  if (bytes.byteLength > MOST_BYTES)
    return `${name} has ${(bytes.byteLength / 1e6).toFixed(0)} MB. A price list is 5 MB at most: is it the right file?`;
  const text = decode(bytes);
  if (text === undefined)
    return `${name} is not written in UTF-8: its letters would come out wrong. Save it again as “CSV UTF-8”.`;
  if (text.includes('\u0000')) return `${name} is no text file. Save the list as CSV.`;
  const read = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { skipEmptyLines: 'greedy' });
  const broken = read.errors.find((e) => e.type === 'Quotes');
  if (broken !== undefined) return `${name}: a quotation mark is not closed on line ${(broken.row ?? 0) + 1}.`;
  const [headings, ...cells] = read.data;
  if (headings === undefined || cells.length === 0) return `${name} is empty.`;
  if (headings.length < 2) return `${name} has one column only. Columns are parted by commas, semicolons or tabs.`;
  if (cells.length > MOST_ROWS) return `${name} has ${cells.length} rows. A list is ${MOST_ROWS} at most: part it.`;
  return {
    name,
    headings,
    columns: headings.map((h, at) => ({ at, name: h.trim() === '' ? `column ${at + 1}` : h })),
    cells,
    guess: matchColumns(headings),
  };
}

export const readWith = (file: PriceFile, match: PriceMatching, currency: string): PriceReading =>
  readPriceRows(file.cells, file.headings.length, match, currency);
