/** Two at the same rows at the same moment: one of them is begun once more, or told so; and nobody waits who need not. */
import { api } from '@zabrik/contract';
import { grams } from '@zabrik/core';
import pg from 'pg';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { select } from '../db/select.ts';
import { openTestKitchen, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { closedHake, deliveryBody, must, received } from '../testing/work.ts';

let kitchen: TestKitchen;
let ines: Tablet;
beforeAll(async () => {
  kitchen = await openTestKitchen();
  ines = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
});
afterAll(() => kitchen.stop());

describe('a command the database gave up for another', () => {
  const giveUp = (times: number, code: string) =>
    kitchen.services.db.query(`drop trigger if exists gives_up on delivery_line; drop sequence if exists given_up; create sequence given_up;
      create or replace function gives_up() returns trigger language plpgsql as $$ begin
        if nextval('given_up') <= ${times} then raise exception 'given up' using errcode = '${code}'; end if; return new; end $$;
      create trigger gives_up before insert on delivery_line for each row execute function gives_up()`);

  it.each(['40P01', '40001', '55P03'])('%s: is begun once more by itself, and written once', async (code) => {
    const lots = () => select(kitchen.services.db, 'select id from lot', []);
    const before = (await lots()).length;
    await giveUp(1, code);
    await received(kitchen, ines);
    expect(await lots()).toHaveLength(before + 1);
  });

  it('is told so when it happens again, and nothing was changed', async () => {
    await giveUp(2, '40P01');
    expect(await ines.ask(api.receive.accept, { body: deliveryBody(kitchen) })).toMatchObject({
      status: 503,
      body: { code: 'busy' },
    });
    await giveUp(0, '40P01');
    await received(kitchen, ines);
  });
});

describe('lots are numbered', () => {
  it('without waiting for another command of the house to be done', async () => {
    const client = new pg.Client({ connectionString: kitchen.databaseUrl });
    await client.connect();
    await client.query('begin');
    // another command that has made a lot and is not done: it holds what the numbering needs
    await client.query('select next_lot_serial($1)', [kitchen.home?.houseId]);
    await client.query('select 1 from house where id = $1 for no key update', [kitchen.home?.houseId]);
    await received(kitchen, ines);
    await client.query('rollback');
    await client.end();
  });

  it('each with a number of its own, however many at once, and each house by itself', async () => {
    const theirs = await kitchen.signIn(kitchen.personOf('Ines Calloway', kitchen.other));
    const [ours, others] = await Promise.all([
      Promise.all(Array.from({ length: 20 }, () => received(kitchen, ines))),
      Promise.all(Array.from({ length: 5 }, () => received(kitchen, theirs, {}, kitchen.other))),
    ]);
    expect(new Set(ours.map((l) => l.code)).size).toBe(20);
    expect(others.map((l) => l.code.slice(0, 4)).sort()).toEqual(['0001', '0002', '0003', '0004', '0005']);
  });
});

it('two batches finished at once, out of the same goods, both come to their end', async () => {
  for (let round = 0; round < 4; round += 1) {
    await received(kitchen, ines, {
      species: null,
      form: null,
      goods: 'onion',
      grossMg: 5_000_000,
      tareMg: 0,
      invoiceMg: 5_000_000,
      landedOn: null,
    } as never);
    const batches = await Promise.all(
      [0, 1, 2].map(async () => {
        const { closed } = await closedHake(kitchen, ines);
        const frame = closed.lots.find((l) => l.name.includes('rame'))?.lotId ?? '';
        return must(ines, api.pots.plan, {
          body: { recipeId: 'fish-fumet', lotIds: [frame], vesselId: null, onHandMg: {} },
        });
      }),
    );
    const done = await Promise.all(
      batches.map((batch) =>
        ines.ask(api.pots.finish, {
          params: { batchId: batch.id },
          body: { outputMg: batch.expectedMg.mean, spentMg: 1, note: null },
        }),
      ),
    );
    expect(done.map((d) => d.status)).toEqual([200, 200, 200]);
  }
  expect(
    await select(
      kitchen.services.db,
      'select lot_id from posting where lot_id is not null group by 1 having sum(mass_mg) < 0',
      [],
    ),
  ).toEqual([]);
});

it('the same lots taken from many sides at once: each command comes to its end, and none is given up for another', async () => {
  const { db } = kitchen.services;
  const deadlocks = async (): Promise<number> => {
    await db.query('select pg_stat_force_next_flush()');
    const [row] = await select<{ n: number }>(
      db,
      'select deadlocks::int as n from pg_stat_database where datname = current_database()',
      [],
    );
    return row?.n ?? -1;
  };
  const frames = await Promise.all(
    [0, 1, 2, 3].map(async () => {
      const { closed } = await closedHake(kitchen, ines);
      return closed.lots.find((l) => l.name.includes('rame'))?.lotId ?? '';
    }),
  );
  const tub = await must(ines, api.larder.startTub, {
    body: {
      recipeId: 'fish-fumet',
      name: 'Bones',
      placeId: 'cold-room',
      from: [{ lotId: frames[0] ?? '', massMg: grams(50) }],
      confirmed: true,
    },
  });
  const before = await deadlocks();
  const body = { placeId: null, note: null };
  for (let round = 0; round < 5; round += 1) {
    const statuses = await Promise.all(
      frames.flatMap((lotId) => [
        ines.ask(api.larder.fill, {
          params: { lotId: tub.lotId },
          body: { from: [{ lotId, massMg: grams(5) }], confirmed: true },
        }),
        ines.ask(api.larder.takeOut, {
          params: { lotId },
          body: { massMg: grams(3), to: 'staff', reason: null, note: null },
        }),
        // a count of tub and lot together takes them in the order of their ids, whichever that is
        ines.ask(api.larder.count, {
          body: {
            ...body,
            counts: [tub.lotId, lotId].map((id) => ({ lotId: id, countedMg: 10, seenMg: 10, reason: null })),
          },
        }),
      ]),
    );
    expect(statuses.map((s) => s.status)).toEqual(statuses.map(() => 200));
  }
  expect(await deadlocks()).toBe(before);
  expect(await select(db, 'select lot_id from lot_balance where mass_mg < 0 or reserved_mg > mass_mg', [])).toEqual([]);
});

it('whoever gets another role or another PIN begins anew: a session keeps no role that was taken away', async () => {
  const tobin = kitchen.personOf('Tobin Arkwell');
  const tablet = await kitchen.signIn(tobin);
  expect((await tablet.ask(api.access.me, {})).status).toBe(200);
  const as = (role: string) =>
    kitchen.services.db.query('update person set role = $2 where id = $1', { bind: [tobin, role] });
  await as('butcher');
  expect((await tablet.ask(api.access.me, {})).status).toBe(401);
  const again = await kitchen.signIn(tobin);
  expect((await must(again, api.access.me, {})).person.role).toBe('butcher');
  await as('butcher');
  expect((await again.ask(api.access.me, {})).status).toBe(200); // nothing changed
  await as('sous-chef');
});

it('the books of a house whose money has no pence are written without any', async () => {
  const maren = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
  const cells = async () => String((await maren.raw('get', '/api/v1/ledger/movements.csv')).body['text']).split('\r\n');
  const pounds = (await cells()).find((line) => line.includes(',GBP,') && line.includes('31.76'));
  expect(pounds).toBeDefined();
  await kitchen.services.db.query(`update house set currency = 'JPY' where id = $1`, { bind: [kitchen.home?.houseId] });
  expect((await cells()).some((line) => line.includes(',3176,JPY,'))).toBe(true);
  await kitchen.services.db.query(`update house set currency = 'GBP' where id = $1`, { bind: [kitchen.home?.houseId] });
});
