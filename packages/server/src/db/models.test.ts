/** The models say what the database is, column by column; and rows are asked for with their house or not at all. */
import { type Sequelize, Transaction } from 'sequelize';
import { v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openTestKitchen, type TestKitchen } from '../testing/openTestKitchen.ts';
import { allTables } from './models/index.ts';
import { PersonTable } from './models/person.ts';
import { PostingTable } from './models/posting.ts';
import { SessionTable } from './models/session.ts';
import { SupplierTable } from './models/supplier.ts';
import { rowsOf } from './rows.ts';
import { select } from './select.ts';

let kitchen: TestKitchen;
let db: Sequelize;
beforeAll(async () => {
  kitchen = await openTestKitchen();
  ({ db } = kitchen.services);
});
afterAll(() => kitchen.stop());

interface ColumnRow {
  readonly table: string;
  readonly column: string;
  readonly type: string;
  readonly nullable: boolean;
  readonly filled: boolean;
  readonly key: boolean;
}

const inDatabase = (): Promise<ColumnRow[]> =>
  select<ColumnRow>(
    db,
    `select c.relname as table, a.attname as column, format_type(a.atttypid, null) as type, not a.attnotnull as nullable,
            a.atthasdef or a.attidentity <> '' as filled,
            coalesce(a.attnum = any((select i.indkey from pg_index i where i.indrelid = c.oid and i.indisprimary)::int2[]), false) as key
     from pg_class c join pg_namespace n on n.oid = c.relnamespace and n.nspname = 'public'
     join pg_attribute a on a.attrelid = c.oid and a.attnum > 0 and not a.attisdropped
     where c.relkind in ('r', 'p') order by 1, a.attnum`,
    [],
  );

/** What a column of the database reads as: several of its types are one to us. */
const readsAs: Readonly<Record<string, string>> = {
  uuid: 'UUID',
  text: 'TEXT',
  character: 'TEXT',
  'character varying': 'TEXT',
  integer: 'INTEGER',
  bigint: 'BIGINT',
  'double precision': 'DOUBLE PRECISION',
  boolean: 'BOOLEAN',
  'timestamp with time zone': 'TIMESTAMP WITH TIME ZONE',
  date: 'DATE',
  bytea: 'BYTEA',
  jsonb: 'JSONB',
  json: 'JSONB',
  'text[]': 'TEXT[]',
};

describe('the models', () => {
  it('are the tables of the database, every column of them as it is there', async () => {
    const said = allTables.flatMap((table) =>
      Object.entries(db.model(table.name).getAttributes()).map(([name, { field, type }]) => {
        const of = table.columns[name];
        return {
          table: table.name,
          column: field,
          type: String(type instanceof Object && 'toSql' in type ? type.toSql() : type),
          nullable: of?.nullable,
          key: of?.key,
        };
      }),
    );
    const rows = (await inDatabase()).map(({ filled: _, type, ...row }) => ({ ...row, type: readsAs[type] ?? type }));
    const inOrder = <R extends { table: string; column: string | undefined }>(list: readonly R[]): R[] =>
      [...list].sort((a, b) => `${a.table} ${a.column}`.localeCompare(`${b.table} ${b.column}`));
    expect(inOrder(said)).toEqual(inOrder(rows));
  });

  it('ask for every column that the database does not fill itself', async () => {
    const mustGive = allTables.flatMap((table) => {
      const model = db.model(table.name).getAttributes();
      return Object.entries(table.columns).flatMap(([name, { given }]) =>
        given ? [`${table.name}.${model[name]?.field}`] : [],
      );
    });
    const bare = (await inDatabase()).filter((c) => !c.nullable && !c.filled).map((c) => `${c.table}.${c.column}`);
    expect(mustGive.sort()).toEqual(bare.sort());
  });
});

describe('rows', () => {
  const [home, other] = [
    () => ({ houseId: kitchen.home?.houseId ?? '' }),
    () => ({ houseId: kitchen.other?.houseId ?? '' }),
  ];

  it('of another house are neither read, changed nor removed, though the line is the server’s own', async () => {
    const [foreign] = await rowsOf(db, SupplierTable, other()).all({}, { order: ['name'], limit: 1 });
    const mine = rowsOf(db, SupplierTable, home());
    const id = foreign?.id ?? '';
    expect(await mine.one({ id })).toBeUndefined();
    expect(await mine.count({ id })).toBe(0);
    expect(await mine.change({ id }, { name: 'Taken over' })).toBe(0);
    expect(await mine.remove({ id })).toBe(0);
    expect(await rowsOf(db, SupplierTable, other()).one({ id })).toEqual(foreign);
  });

  it('are added to the house that asks, whatever else was meant', async () => {
    const id = uuidv7();
    const row = { id, name: 'Tern & Daughters', houseId: other().houseId };
    await rowsOf(db, SupplierTable, home()).add(row);
    expect(await rowsOf(db, SupplierTable, home()).one({ id })).toMatchObject({ ...row, houseId: home().houseId });
  });

  it('are found by value, by one of several and by nothing, in the order asked, as many as asked', async () => {
    const suppliers = rowsOf(db, SupplierTable, home());
    const names = (await suppliers.all({}, { order: ['name'] })).map((s) => s.name);
    expect(names).toEqual([...names].sort());
    expect((await suppliers.all({}, { order: ['-name'], limit: 2 })).map((s) => s.name)).toEqual(
      [...names].reverse().slice(0, 2),
    );
    const few = await suppliers.all({ name: names.slice(1, 3) }, { order: ['name'] });
    expect(few.map((s) => s.name)).toEqual(names.slice(1, 3));
    expect(await suppliers.all({ name: [] })).toEqual([]);
    const people = rowsOf(db, PersonTable, home());
    const without = await people.count({ passwordHash: null });
    expect(without).toBeGreaterThan(0);
    expect(without).toBeLessThan(await people.count({}));
  });

  it('that are there already are left as they are', async () => {
    const suppliers = rowsOf(db, SupplierTable, home());
    const first = await suppliers.one({}, { order: ['name'] });
    const id = uuidv7();
    await suppliers.addMissing([
      { id: first?.id ?? '', name: 'Another' },
      { id, name: 'New to us' },
    ]);
    expect(await suppliers.one({ id: first?.id ?? '' })).toEqual(first);
    expect(await suppliers.one({ id })).toMatchObject({ name: 'New to us' });
  });

  it('are held until the transaction ends', async () => {
    const first = await rowsOf(db, SupplierTable, home()).one({}, { order: ['name'] });
    const id = first?.id ?? '';
    const transaction = await db.transaction();
    await rowsOf(db, SupplierTable, { ...home(), transaction }).one({ id }, { lock: 'update' });
    const second = await db.transaction({ isolationLevel: Transaction.ISOLATION_LEVELS.READ_COMMITTED });
    const skipped = await select(db, 'select 1 from supplier where id = $1 for update skip locked', [id], second);
    expect(skipped).toEqual([]);
    await transaction.rollback();
    await second.rollback();
  });

  it('of what is the server’s own are no house’s to ask for', () => {
    expect(() => rowsOf(db, SessionTable, home())).toThrow(/server’s own/);
    expect(PostingTable.houseColumn).toBe('houseId');
  });
});
