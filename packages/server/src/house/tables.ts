/** Every table of a house for a spreadsheet or another's program: one workbook with a sheet a table, or a CSV a table in one archive. */
import { PassThrough } from 'node:stream';
import ExcelJS from 'exceljs';
import { Zip, ZipDeflate } from 'fflate';
import Papa from 'papaparse';
import { type Sequelize, Transaction } from 'sequelize';
import { allTables } from '../db/models/index.ts';
import type { Table } from '../db/table.ts';
import { tablesOfAHouse } from './houseFile.ts';
import { readThrough } from './readThrough.ts';

/** What a cell of a workbook can hold, and how many rows a sheet. */
const MOST_IN_CELL = 32_767;
const MOST_ROWS = 1_048_576;
const LONGER = ' … (longer: all of it is in the CSV)';
const PAGE = 1_000;
/** Waits while so much is made and not fetched away yet. */
const MOST_UNREAD = 1_048_576;

type Cell = string | number | boolean | null;
interface Page {
  readonly table: string;
  readonly columns: readonly string[];
  readonly rows: readonly (readonly Cell[])[];
  /** It is the first of its table. */
  readonly first: boolean;
}

/** Secrets, and what is only true in this database; pictures are no cells. */
const leftOut = ({ file, columns }: Table): ReadonlySet<string> =>
  new Set([
    ...('inFile' in file ? (file.inFile.drop ?? []) : []),
    ...Object.entries(columns).flatMap(([name, { type }]) => (String(type) === 'BLOB' ? [snake(name)] : [])),
  ]);
const snake = (name: string): string => name.replace(/[A-Z]/g, (c) => `_${c.toLowerCase()}`);

const tables = allTables
  .filter(({ name }) => tablesOfAHouse.includes(name))
  .sort((a, b) => a.name.localeCompare(b.name))
  .map((t) => {
    const out = leftOut(t);
    const columns = Object.keys(t.columns)
      .map(snake)
      .filter((c) => !out.has(c) && c !== 'house_id');
    return { name: t.name, columns, order: 'inFile' in t.file ? t.file.inFile.order : 'id' };
  });
/** Their names and headings, in the order of the sheets. */
export const exportedTables: readonly { readonly name: string; readonly columns: readonly string[] }[] = tables;

/** The rows of every table as they stood at one moment, a page at a time. Masses, money and times as in the API; lists and shapes as JSON. */
async function* pagesOf(db: Sequelize, houseId: string, tell: (ratio: number) => void): AsyncGenerator<Page> {
  const transaction = await db.transaction({ isolationLevel: Transaction.ISOLATION_LEVELS.REPEATABLE_READ });
  try {
    for (const [i, { name, columns, order }] of tables.entries()) {
      tell(i / tables.length);
      const pages = readThrough<{ row: Readonly<Record<string, unknown>> }>(
        db,
        transaction,
        `select to_jsonb(t) as row from ${name} t where house_id = $1 order by ${order}`,
        [houseId],
        PAGE,
      );
      let first = true;
      for await (const rows of pages) {
        yield { table: name, columns, first, rows: rows.map(({ row }) => columns.map((c) => cellOf(row[c]))) };
        first = false;
      }
    }
  } finally {
    await transaction.rollback();
  }
}

const cellOf = (value: unknown): Cell => {
  if (value === null || value === undefined) return null;
  return typeof value === 'object' ? JSON.stringify(value) : (value as Cell);
};

/** One workbook. What a cell cannot hold is cut, and says so there; what a sheet cannot hold goes on in the next one. */
export async function* tablesXlsx(
  db: Sequelize,
  houseId: string,
  tell: (ratio: number) => void,
): AsyncGenerator<Uint8Array> {
  const out = new PassThrough();
  const book = new ExcelJS.stream.xlsx.WorkbookWriter({ stream: out, useSharedStrings: false, useStyles: false });
  const writing = (async () => {
    let sheet: ExcelJS.Worksheet | undefined;
    let [rows, part] = [0, 1];
    const next = ({ table, columns }: Page): ExcelJS.Worksheet => {
      sheet?.commit();
      const named = book.addWorksheet(part === 1 ? table : `${table} ${part}`, {
        views: [{ state: 'frozen', ySplit: 1 }],
      });
      named.addRow([...columns]).commit();
      rows = 1;
      return named;
    };
    for await (const page of pagesOf(db, houseId, tell)) {
      if (page.first) part = 1;
      if (page.first || sheet === undefined) sheet = next(page);
      for (const row of page.rows) {
        if (rows >= MOST_ROWS) {
          part += 1;
          sheet = next(page);
        }
        sheet
          .addRow(
            row.map((cell) =>
              typeof cell === 'string' && cell.length > MOST_IN_CELL
                ? `${cell.slice(0, MOST_IN_CELL - LONGER.length)}${LONGER}`
                : cell,
            ),
          )
          .commit();
        rows += 1;
      }
      while (out.readableLength > MOST_UNREAD) await new Promise((resolve) => setTimeout(resolve, 20));
    }
    sheet?.commit();
    await book.commit();
  })();
  // what breaks in the writing breaks the reading: half a file is none
  writing.catch((error: unknown) => out.destroy(error instanceof Error ? error : new Error(String(error))));
  yield* out as AsyncIterable<Uint8Array>;
  await writing;
}

/** A CSV a table (RFC 4180, UTF-8) in one ZIP. Text that a spreadsheet would run gets an apostrophe before it. */
export async function* tablesCsv(
  db: Sequelize,
  houseId: string,
  tell: (ratio: number) => void,
): AsyncGenerator<Uint8Array> {
  const made: Uint8Array[] = [];
  const zip = new Zip((error, part) => {
    if (error !== null) throw error;
    made.push(part);
  });
  const utf8 = new TextEncoder();
  const lines = (rows: readonly (readonly Cell[])[]): Uint8Array =>
    utf8.encode(
      `${Papa.unparse(rows as unknown[][], { newline: '\r\n', escapeFormulae: /^[=+@\t\r]|^-(?!\d+(?:\.\d+)?$)/ })}\r\n`,
    );
  let entry: ZipDeflate | undefined;
  for await (const { table, columns, rows, first } of pagesOf(db, houseId, tell)) {
    if (first) {
      entry?.push(new Uint8Array(), true);
      entry = new ZipDeflate(`${table}.csv`, { level: 6 });
      zip.add(entry);
      entry.push(lines([columns]));
    }
    if (rows.length > 0) entry?.push(lines(rows));
    yield* made.splice(0);
  }
  entry?.push(new Uint8Array(), true);
  zip.end();
  yield* made.splice(0);
}
