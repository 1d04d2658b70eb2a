/** Every table as a workbook and as CSV: read back by other libraries than wrote them, held against the database, and nothing secret in it. */

import { api } from '@zabrik/contract';
import { strFromU8, unzipSync } from 'fflate';
import Papa from 'papaparse';
import readXlsxFile from 'read-excel-file/node';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { forHouse } from '../db/houseScope.ts';
import { select } from '../db/select.ts';
import { openTestKitchen, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { must, received } from '../testing/work.ts';
import { exportedTables, tablesCsv, tablesXlsx } from './tables.ts';

let kitchen: TestKitchen;
let maren: Tablet;
let houseId: string;
const DANGEROUS = '=HYPERLINK("http://away.invalid")';
const LONG = `long ${'ö'.repeat(40_000)}`;
beforeAll(async () => {
  kitchen = await openTestKitchen();
  maren = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
  houseId = kitchen.home?.houseId ?? '';
  await received(kitchen, maren, { note: 'Ælfgår’s “own”, said\nin two lines; half' });
  await must(maren, api.receive.addSupplier, { body: { name: DANGEROUS } });
  await kitchen.services.db.query('update supplier set terms = $2 where house_id = $1 and name = $3', {
    bind: [houseId, JSON.stringify({ note: LONG }), DANGEROUS],
  });
});
afterAll(() => kitchen.stop());

async function whole(parts: AsyncIterable<Uint8Array>): Promise<Buffer> {
  const all: Uint8Array[] = [];
  for await (const part of parts) all.push(part);
  return Buffer.concat(all);
}
const made = (of: typeof tablesCsv): Promise<Buffer> =>
  forHouse(houseId, () => whole(of(kitchen.services.longReads, houseId, () => undefined)));
const counts = async (): Promise<Map<string, number>> =>
  new Map(
    await Promise.all(
      exportedTables.map(async ({ name }): Promise<[string, number]> => {
        const [row] = await select<{ n: number }>(
          kitchen.services.db,
          `select count(*)::int as n from ${name} where house_id = $1`,
          [houseId],
        );
        return [name, row?.n ?? -1];
      }),
    ),
  );

describe('every table', () => {
  it('as CSV: a file each, all rows of this house, none of another', async () => {
    const files = unzipSync(new Uint8Array(await made(tablesCsv)));
    const expected = await counts();
    expect(Object.keys(files).sort()).toEqual(exportedTables.map((t) => `${t.name}.csv`).sort());
    const read = (name: string): string[][] =>
      Papa.parse<string[]>(strFromU8(files[`${name}.csv`] ?? new Uint8Array()), { skipEmptyLines: true }).data;
    for (const { name, columns } of exportedTables) {
      const [head, ...rows] = read(name);
      expect(head).toEqual(columns);
      expect([name, rows.length]).toEqual([name, expected.get(name)]);
    }
    const [head = [], ...suppliers] = read('supplier');
    const names = suppliers.map((row) => row[head.indexOf('name')]);
    expect(names).toContain(`'${DANGEROUS}`);
    expect(suppliers.some((row) => row.some((cell) => cell.includes(LONG)))).toBe(true);
    const [lineHead = [], line = []] = read('delivery_line');
    expect(line[lineHead.indexOf('note')]).toBe('Ælfgår’s “own”, said\nin two lines; half');
    expect(Number(line[lineHead.indexOf('gross_mg')])).toBe(3_272_000);
    expect(strFromU8(files['person.csv'] ?? new Uint8Array())).not.toMatch(/argon|_hash/);
  });

  it('as a workbook: a sheet each, numbers as numbers, what no cell can hold cut and said to be', async () => {
    const file = await made(tablesXlsx);
    const expected = await counts();
    const sheets = await readXlsxFile(file, { trim: false });
    expect(sheets.map((s) => s.sheet)).toEqual(exportedTables.map((t) => t.name));
    const rowsOf = (name: string) => sheets.find((s) => s.sheet === name)?.data ?? [];
    for (const { name, columns } of exportedTables) {
      const [head, ...rows] = rowsOf(name);
      expect(head).toEqual(columns);
      expect([name, rows.length]).toEqual([name, expected.get(name)]);
    }
    const [head = [], line = []] = rowsOf('delivery_line');
    expect(line[head.indexOf('gross_mg')]).toBe(3_272_000);
    const suppliers = rowsOf('supplier');
    const cells = suppliers.flat().map(String);
    expect(cells).toContain(DANGEROUS);
    const long = cells.find((c) => c.includes('long ööö')) ?? '';
    expect(long).toHaveLength(32_767);
    expect(long).toMatch(/all of it is in the CSV\)$/);
  });

  it('leaves out nothing that a house file has but secrets, places in a sequence and pictures', async () => {
    const rows = await select<{ table: string; column: string }>(
      kitchen.services.db,
      `select table_name as table, column_name as column from information_schema.columns where table_schema = 'public'`,
      [],
    );
    const out = rows.filter(({ table, column }) => {
      const exported = exportedTables.find((t) => t.name === table);
      return exported !== undefined && column !== 'house_id' && !exported.columns.includes(column);
    });
    expect(out.map((o) => `${o.table}.${o.column}`).sort()).toMatchInlineSnapshot(`
      [
        "batch_event.seq",
        "bench_event.seq",
        "cooling_reading.seq",
        "cutting_event.seq",
        "house_limits.seq",
        "lot_event.seq",
        "person.password_hash",
        "person.pin_hash",
        "photograph.bytes",
        "posting.id",
        "weighing.seq",
      ]
    `);
  });

  it('is the head chef’s alone to ask for', async () => {
    const tobin = await kitchen.signIn(kitchen.personOf('Tobin Arkwell'));
    const asked = await tobin.ask(api.jobs.ask, { body: { kind: 'tables', format: 'xlsx' } });
    expect(asked.body).toMatchObject({ code: 'not_your_role' });
    expect((await maren.ask(api.jobs.ask, { body: { kind: 'tables', format: 'csv' } })).status).toBe(200);
  });
});
