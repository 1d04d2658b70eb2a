/** The tables of the books can be cut into months by a migration that touches no code: nothing in them is unique without house and time, and nobody points at them without. */
import { v4 as uuidv4, v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { timeIn } from '../http/idsOf.ts';
import { openTestKitchen, type TestKitchen } from '../testing/openTestKitchen.ts';
import { closedHake } from '../testing/work.ts';
import { select } from './select.ts';

let kitchen: TestKitchen;
const sql = <T extends object = Record<string, unknown>>(text: string, bind: unknown[] = []): Promise<T[]> =>
  select<T>(kitchen.services.db, text, bind);
beforeAll(async () => {
  kitchen = await openTestKitchen();
  const ines = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
  await closedHake(kitchen, ines);
});
afterAll(() => kitchen.stop());

const history = [
  ['movement', 'at'],
  ['posting', 'at'],
  ['weighing', 'keyed_at'],
  ['lot_event', 'at'],
  ['bench_event', 'at'],
  ['batch_event', 'at'],
  ['cutting_event', 'at'],
  ['cooling_reading', 'at'],
  ['command', 'keyed_at'],
] as const;

describe.each(history)('%s by %s', (table, time) => {
  it('becomes months with every key, check and row it has', async () => {
    await sql(`create table ${table}_months (like ${table} including all) partition by range (${time})`);
    await sql(`create table ${table}_ever partition of ${table}_months default`);
    await sql(`insert into ${table}_months overriding system value select * from ${table}`);
    const count = async (of: string) => (await sql<{ n: number }>(`select count(*)::int as n from ${of}`))[0]?.n;
    expect(await count(`${table}_months`)).toBe(await count(table));
    const keys = await sql<{ key: string }>(
      `select pg_get_constraintdef(oid) as key from pg_constraint where conrelid = '${table}'::regclass and contype in ('p', 'u')`,
    );
    for (const { key } of keys) {
      expect(key).toContain('house_id');
      expect(key).toContain(time);
    }
  });
  it('is pointed at with its time, or not at all', async () => {
    const pointing = await sql<{ points: string }>(
      `select conrelid::regclass::text || ' ' || pg_get_constraintdef(oid) as points from pg_constraint where confrelid = '${table}'::regclass and contype = 'f'`,
    );
    for (const { points } of pointing) expect(points).toMatch(new RegExp(`REFERENCES ${table}\\([^)]*\\b${time}\\b`));
  });
});

it('the time in a key is the same here and in the database, whoever made the key', async () => {
  const keys = [
    ...Array.from({ length: 50 }, () => uuidv7()),
    ...[0, 1, 1_764_500_000_123, 7_258_118_399_999, 7_258_118_400_000, 2 ** 48 - 1].map((msecs) => uuidv7({ msecs })),
    uuidv4(),
  ];
  const theirs = await sql<{ at: Date }>(
    'select time_in(k) as at from unnest($1::uuid[]) with ordinality as u(k, n) order by n',
    [keys],
  );
  expect(theirs.map(({ at }) => at.toISOString())).toEqual(keys.map((k) => timeIn(k).toISOString()));
  // said again in another month a key is the same key
  const [key = ''] = keys;
  await expect(
    sql(
      `insert into command (id, keyed_at, house_id, endpoint, fingerprint, person_id, at)
       select $1::uuid, time_in($1::uuid) + interval '1 month', house_id, endpoint, fingerprint, person_id, at from command limit 1`,
      [key],
    ),
  ).rejects.toThrow(/check/);
});

it('what is put right is there, of the same thing, and put right once', async () => {
  const weight = `insert into weighing (id, keyed_at, house_id, breakdown_id, person_id, at, replaces)
    select $1::uuid, time_in($1::uuid), house_id, breakdown_id, person_id, at, $2::uuid from weighing limit 1`;
  const [{ id: real = '' } = {}] = await sql<{ id: string }>('select id from weighing where replaces is null limit 1');
  await expect(sql(weight, [uuidv7(), uuidv7()])).rejects.toThrow();
  await sql(weight, [uuidv7(), real]);
  await expect(sql(weight, [uuidv7(), real])).rejects.toThrow();
  expect(await sql('select 1 from corrected where id = $1', [real])).toHaveLength(1);
});
