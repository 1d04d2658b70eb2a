/** Everything of one house as a JSON file, and back into another database: the open way out of this program and into it. */
import type { Sequelize } from 'sequelize';
import { Transaction } from 'sequelize';
import { z } from 'zod';
import { hashSecret } from '../access/secrets.ts';
import { allTables } from '../db/models/index.ts';
import { select, selectOne } from '../db/select.ts';
import { eachAfterItsOwn, type Filed } from './eachAfterItsOwn.ts';
import { readThrough } from './readThrough.ts';
import { upgradedTo } from './upgrades.ts';

const filed = allTables.flatMap(({ name, file }): Filed[] =>
  'inFile' in file ? [{ name, order: file.inFile.order, drop: file.inFile.drop ?? [], after: file.inFile.after }] : [],
);
const follows = new Map(
  allTables.flatMap(({ name, file }) =>
    'follows' in file && file.follows !== undefined ? [[name, file.follows]] : [],
  ),
);
export const tablesOfAHouse = filed.map((t) => t.name);

/** The tables of a house's file, each after what it points at: the database knows. */
async function inOrder(db: Sequelize, transaction: Transaction): Promise<Filed[]> {
  const points = await select<{ table: string; at: string }>(
    db,
    `select distinct a.relname as table, b.relname as at from pg_constraint c
     join pg_class a on a.oid = c.conrelid join pg_class b on b.oid = c.confrelid
     where c.contype = 'f' and a.oid <> b.oid`,
    [],
    transaction,
  );
  return eachAfterItsOwn(
    filed,
    points.map(({ table, at }) => ({ table, at: follows.get(at) ?? at })),
  );
}

/** Rows read at once; of what is large, fewer. */
const PAGE = 1_000;
const PAGE_OF: Readonly<Record<string, number>> = { photograph: 4, command: 200, batch: 200, breakdown: 200 };
const FORMAT = 'zabrik-house';

const newestMigration = async (db: Sequelize, transaction: Transaction): Promise<string> =>
  (await selectOne<{ name: string }>(db, 'select name from migration order by name desc limit 1', [], transaction))
    ?.name ?? '';

/** The file, line by line, as the house stood at one moment. `tell` hears how far it is, by the tables done. */
export async function* writeHouseFile(
  db: Sequelize,
  houseId: string,
  at: Date,
  tell: (ratio: number) => void = () => undefined,
): AsyncGenerator<string> {
  const transaction = await db.transaction({ isolationLevel: Transaction.ISOLATION_LEVELS.REPEATABLE_READ });
  try {
    const house = await selectOne<{ row: object }>(
      db,
      "select to_jsonb(h) - 'recovery_hash' as row from house h where id = $1",
      [houseId],
      transaction,
    );
    const head = {
      format: FORMAT,
      version: 1,
      at: at.toISOString(),
      shape: await newestMigration(db, transaction),
      house: house?.row,
    };
    yield `${JSON.stringify(head).slice(0, -1)},"tables":{\n`;
    const tables = await inOrder(db, transaction);
    for (const [i, { name, order, drop }] of tables.entries()) {
      tell(i / tables.length);
      yield `${JSON.stringify(name)}:[\n`;
      // read once from beginning to end, and written as the database says it: nothing of it is taken apart here
      const pages = readThrough<{ row: string }>(
        db,
        transaction,
        `select (to_jsonb(t) - $2::text[])::text as row from ${name} t where house_id = $1 order by ${order}`,
        [houseId, drop],
        PAGE_OF[name] ?? PAGE,
      );
      let first = true;
      for await (const rows of pages) {
        if (rows.length === 0) continue;
        const text = rows.map((r) => r.row).join(',\n');
        yield first ? text : `,\n${text}`;
        first = false;
      }
      yield `\n]${i === tables.length - 1 ? '' : ','}\n`;
    }
    yield '}}\n';
  } finally {
    await transaction.rollback();
  }
}

const whole = z.strictObject(Object.fromEntries(tablesOfAHouse.map((name) => [name, z.array(z.unknown())])));
const row = z.record(z.string(), z.unknown());
const fileSchema = z.strictObject({
  format: z.literal(FORMAT),
  version: z.literal(1),
  at: z.iso.datetime(),
  shape: z.string(),
  house: row.and(z.object({ id: z.uuid(), slug: z.string(), name: z.string() })),
  tables: z.record(z.string(), z.array(row)),
});

export class HouseFileRefused extends Error {}

/**
 * Reads a house file into a database that does not have that house yet. All of it or nothing. Everyone gets this PIN: secrets never
 * were in the file.
 *
 * Errors  `HouseFileRefused` with a sentence: not such a file, of another shape, or a house that is here already.
 */
export async function readHouseFile(
  db: Sequelize,
  text: string,
  pin: string,
): Promise<{ readonly name: string; readonly rows: number }> {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    throw new HouseFileRefused('This is not JSON, or it is cut short. Nothing was read in.');
  }
  const read = fileSchema.safeParse(json);
  if (!read.success) {
    const [issue] = read.error.issues;
    throw new HouseFileRefused(
      `This is no house file: ${issue?.path.join('.')}: ${issue?.message}. Nothing was read in.`,
    );
  }
  const file = read.data;
  const pinHash = await hashSecret(pin);
  return db.transaction(async (transaction) => {
    const shape = await newestMigration(db, transaction);
    const upgraded = upgradedTo(shape, file.shape, file.tables);
    if (upgraded === undefined)
      throw new HouseFileRefused(
        `The file has the shape ${file.shape}, this program ${shape}, and no way leads from there. Use a version of the program in between.`,
      );
    const missing = whole.safeParse(upgraded).error?.issues[0];
    if (missing !== undefined)
      throw new HouseFileRefused(
        `This is no house file: tables.${missing.path.join('.')}: ${missing.message}. Nothing was read in.`,
      );
    const there = await selectOne<{ id: string }>(
      db,
      'select id from house where id = $1 or slug = $2',
      [file.house.id, file.house.slug],
      transaction,
    );
    if (there !== undefined)
      throw new HouseFileRefused(`The house ${file.house.slug} is here already. Nothing was read in.`);
    const insert = async (table: string, rows: readonly object[]): Promise<void> => {
      const columns = [...new Set(rows.flatMap((r) => Object.keys(r)))];
      const known = await select<{ name: string }>(
        db,
        `select column_name as name from information_schema.columns where table_schema = 'public' and table_name = $1`,
        [table],
        transaction,
      );
      const strange = columns.find((c) => !known.some((k) => k.name === c));
      if (strange !== undefined) throw new HouseFileRefused(`${table} has no ${strange}. Nothing was read in.`);
      const list = columns.map((c) => `"${c}"`).join(', ');
      for (let from = 0; from < rows.length; from += PAGE)
        await db.query(
          `insert into ${table} (${list}) select ${list} from jsonb_populate_recordset(null::${table}, $1::jsonb)`,
          { bind: [JSON.stringify(rows.slice(from, from + PAGE))], transaction },
        );
    };
    await insert('house', [file.house]);
    let rows = 0;
    for (const { name } of await inOrder(db, transaction)) {
      const given = upgraded[name] ?? [];
      const foreign = given.find((r) => r['house_id'] !== file.house.id);
      if (foreign !== undefined)
        throw new HouseFileRefused(`A row of ${name} belongs to another house. Nothing was read in.`);
      await insert(name, name === 'person' ? given.map((p) => ({ ...p, pin_hash: pinHash })) : given);
      rows += given.length;
    }
    await db.query(
      'select setval(lot_sequence($1)::regclass, max(serial)) from lot where house_id = $1 having max(serial) is not null',
      { bind: [file.house.id], transaction },
    );
    // ask the database now whether every movement sums to zero
    await db.query('set constraints all immediate', { transaction });
    return { name: file.house.name, rows };
  });
}
