import { api } from '@zabrik/contract';
import { grams } from '@zabrik/core';
import fc from 'fast-check';
import { v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { select } from '../db/select.ts';
import { openTestKitchen, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { closedHake, deliveryBody, must, received, startHake, takeBody } from '../testing/work.ts';

let kitchen: TestKitchen;
let ines: Tablet;
let maren: Tablet;
beforeAll(async () => {
  kitchen = await openTestKitchen();
  ines = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
  maren = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
});
afterAll(() => kitchen.stop());

const sql = (text: string, bind: readonly unknown[] = []) =>
  select<Record<string, unknown>>(kitchen.services.db, text, bind);

/** Everything that must hold of the books at any moment. */
async function checkBooks(): Promise<void> {
  expect(
    await sql(
      'select movement_id from posting group by movement_id having sum(mass_mg) <> 0 or sum(cost_minor) <> 0 or count(*) < 2',
    ),
  ).toEqual([]);
  // balances, built again from the postings
  expect(
    await sql(`select lot_id from (select lot_id, sum(mass_mg) m, sum(cost_minor) c from posting where lot_id is not null group by lot_id) p
               full join lot_balance b using (lot_id) where p.m is distinct from b.mass_mg or p.c is distinct from b.cost_minor`),
  ).toEqual([]);
  expect(
    await sql(
      'select lot_id from lot_balance where mass_mg < 0 or cost_minor < 0 or (mass_mg = 0 and cost_minor <> 0)',
    ),
  ).toEqual([]);
  // what is reserved is what lies on benches, under knives and in pots, and no more than there is
  expect(
    await sql(`with held as (
       select i.lot_id, i.breakdown_id as holder_id, i.mass_mg from breakdown_input i join breakdown o on o.id = i.breakdown_id and o.state = 'open'
       union all select i.lot_id, i.cutting_id, i.mass_mg from cutting_input i join cutting o on o.id = i.cutting_id and o.state = 'open'
       union all select i.lot_id, i.batch_id, i.mass_mg from batch_input i join batch r on r.id = i.batch_id and r.state in ('planned', 'on'))
       select lot_id, holder_id from held full join reservation r using (lot_id, holder_id) where held.mass_mg is distinct from r.mass_mg`),
  ).toEqual([]);
  expect(
    await sql(`select lot_id from lot_balance b left join (select lot_id, sum(mass_mg) as mass from reservation group by 1) r using (lot_id)
               where b.reserved_mg <> coalesce(r.mass, 0) or b.reserved_mg > b.mass_mg`),
  ).toEqual([]);
  // pieces, built again in the order they were booked: as counted, else as the mass went of what the lot was made of
  expect(
    await sql(`select b.lot_id, b.pieces, b.mass_mg from lot_balance b
               where (b.mass_mg = 0) <> (b.pieces = 0) or b.pieces < 0`),
  ).toEqual([]);
  // who went into whom, read again from what stands
  expect(
    await sql(`select coalesce(k.movement_id, p.movement_id) as movement from lot_genealogy k full join (
                 select distinct i.lot_id as parent_id, o.lot_id as child_id, i.movement_id
                 from posting i join posting o on o.movement_id = i.movement_id and o.mass_mg > 0 and o.lot_id <> i.lot_id
                 join movement m on m.id = i.movement_id
                 where i.mass_mg < 0 and m.kind not in ('reverse', 'count') and not exists (select 1 from movement r where r.reverses = m.id)
               ) p using (parent_id, child_id, movement_id)
               where k.movement_id is null or p.movement_id is null`),
  ).toEqual([]);
  // and the whole of it: what came from suppliers and pantry is what lies in lots and what left
  expect(
    await sql(
      'select coalesce(sum(mass_mg), 0)::bigint as mass, coalesce(sum(cost_minor), 0)::bigint as cost from posting',
    ),
  ).toEqual([{ mass: 0, cost: 0 }]);
}

describe('the database itself', () => {
  const write = async (
    postings: readonly (readonly [lot: string | null, sink: string | null, mg: number, minor: number])[],
  ): Promise<void> => {
    const { db } = kitchen.services;
    const houseId = kitchen.home?.houseId ?? '';
    await db.transaction(async (transaction) => {
      const id = uuidv7();
      await db.query(
        `insert into movement (id, house_id, command_id, kind, station, at, person_id) values ($1, $2, $3, 'take-out', 'test', now(), $4)`,
        {
          bind: [id, houseId, uuidv7(), kitchen.personOf('Ines Calloway')],
          transaction,
        },
      );
      for (const [lot, sink, mg, minor] of postings)
        await db.query(
          `insert into posting (movement_id, house_id, at, lot_id, sink, reason, mass_mg, cost_minor) select $1, $2, m.at, $3, $4, 'test', $5, $6 from movement m where m.id = $1`,
          {
            bind: [id, houseId, lot, sink, mg, minor],
            transaction,
          },
        );
    });
  };

  it('refuses a line that has another time than its movement', async () => {
    const { db } = kitchen.services;
    const line = (at: string) =>
      db.query(
        `insert into posting (movement_id, house_id, at, sink, reason, mass_mg, cost_minor)
         select m.id, m.house_id, ${at}, s.sink, 'test', s.mg, 0
         from (select * from movement limit 1) m, (values ('supplier', -5), ('waste', 5)) s(sink, mg)`,
      );
    await write([
      [null, 'supplier', -5, 0],
      [null, 'waste', 5, 0],
    ]);
    await expect(line(`m.at + interval '1 ms'`)).rejects.toThrow(/foreign key/);
    await expect(line('m.at')).resolves.toBeDefined();
  });

  it('refuses a movement that does not sum to zero in mass, or in money, or has one line, or none', async () => {
    await expect(
      write([
        [null, 'supplier', -5, 0],
        [null, 'waste', 4, 0],
      ]),
    ).rejects.toThrow(/sum to zero/);
    await expect(
      write([
        [null, 'supplier', -5, -1],
        [null, 'waste', 5, 0],
      ]),
    ).rejects.toThrow(/sum to zero/);
    await expect(write([[null, 'supplier', 0, 0]])).rejects.toThrow(/needs two/);
    await expect(write([])).rejects.toThrow(/needs two/);
    await expect(
      write([
        [null, 'supplier', -5, -1],
        [null, 'waste', 5, 1],
      ]),
    ).resolves.toBeUndefined();
  });

  it('refuses to take more from a lot than it holds', async () => {
    const { lotId } = await received(kitchen, ines);
    await expect(
      write([
        [lotId, null, -grams(2_861), 0],
        [null, 'waste', grams(2_861), 0],
      ]),
    ).rejects.toThrow(/more from a lot/);
  });

  it('refuses to take what is reserved, to reserve more than is free, and to change a promise', async () => {
    const { lotId } = await received(kitchen, ines, { animals: 3 });
    await must(ines, api.bench.start, {
      body: { lotId, planId: 'round-fish-two-fillets', animals: 1, massMg: grams(1_000) },
    });
    const out = (massG: number) =>
      write([
        [lotId, null, -grams(massG), 0],
        [null, 'waste', grams(massG), 0],
      ]);
    await expect(out(1_861)).rejects.toThrow(/what is reserved/);
    await expect(out(1_860)).resolves.toBeUndefined();
    const { db } = kitchen.services;
    const promise = (massMg: number) =>
      db.query(`insert into reservation values ($1, $2, 'run', gen_random_uuid(), $3)`, {
        bind: [kitchen.home?.houseId, lotId, massMg],
      });
    await expect(promise(1)).rejects.toThrow(/left to be reserved/);
    await expect(db.query('update reservation set mass_mg = 1')).rejects.toThrow(/never changed/);
    await expect(db.query('truncate reservation')).rejects.toThrow(/never changed/);
  });

  it.each(['movement', 'posting', 'weighing'])('refuses to change or delete a %s', async (table) => {
    await closedHake(kitchen, ines);
    const { db } = kitchen.services;
    await expect(db.query(`update ${table} set house_id = house_id`)).rejects.toThrow(/append-only/);
    await expect(db.query(`delete from ${table}`)).rejects.toThrow(/append-only/);
    await expect(db.query(`truncate ${table} cascade`)).rejects.toThrow(/append-only/);
  });

  it('keeps the houses apart: no posting of one on a lot of the other', async () => {
    const theirs = await kitchen.signIn(kitchen.personOf('Ines Calloway', kitchen.other));
    const { lotId } = await received(kitchen, theirs, {}, kitchen.other);
    await expect(
      write([
        [lotId, null, -1, 0],
        [null, 'waste', 1, 0],
      ]),
    ).rejects.toThrow(/foreign key/);
  });
});

describe('commands', () => {
  it('sent twenty times at once under one key count once, and all get the first answer', async () => {
    const key = uuidv7();
    const body = deliveryBody(kitchen);
    const before = await sql('select count(*)::int as n from movement');
    const replies = await Promise.all(Array.from({ length: 20 }, () => ines.ask(api.receive.accept, { body }, key)));
    expect(new Set(replies.map((r) => r.status))).toEqual(new Set([200]));
    expect(new Set(replies.map((r) => r.body.code)).size).toBe(1);
    expect((await sql('select count(*)::int as n from movement'))[0]?.['n']).toBe(Number(before[0]?.['n']) + 1);
  });

  it('are refused when a key is used for something else, and without a key', async () => {
    const key = uuidv7();
    await must(ines, api.receive.accept, { body: deliveryBody(kitchen) }, key);
    expect(await ines.ask(api.receive.accept, { body: deliveryBody(kitchen, { paidMinor: 1 }) }, key)).toMatchObject({
      status: 409,
      body: { code: 'key_reused' },
    });
    expect(await ines.raw('post', '/api/v1/deliveries', deliveryBody(kitchen))).toMatchObject({
      status: 400,
      body: { code: 'key_missing' },
    });
  });

  it('weigh once, however often the same weighing arrives', async () => {
    const { breakdown } = await startHake(kitchen, ines);
    const params = { breakdownId: breakdown.id };
    const key = uuidv7();
    const body = takeBody('head', 'stock', 536);
    const replies = await Promise.all(
      Array.from({ length: 12 }, () => ines.ask(api.bench.weigh, { params, body }, key)),
    );
    expect(replies.map((r) => r.status)).toEqual(Array.from({ length: 12 }, () => 200));
    for (const r of replies) expect(r.body).toEqual(replies[0]?.body);
    expect((await must(ines, api.bench.read, { params })).weighedMg).toBe(grams(536));
    expect(await ines.ask(api.bench.weigh, { params, body: takeBody('head', 'stock', 537) }, key)).toMatchObject({
      status: 409,
      body: { code: 'key_reused' },
    });
  });

  it('put one weighing right once: the second correction of the same weight is refused', async () => {
    const { breakdown } = await startHake(kitchen, ines);
    const params = { breakdownId: breakdown.id };
    const first = await must(ines, api.bench.weigh, { params, body: takeBody('head', 'stock', 536) });
    await must(ines, api.bench.weigh, { params, body: takeBody('head', 'stock', 530, first.id) });
    const second = await maren.ask(api.bench.weigh, { params, body: takeBody('head', 'stock', 500, first.id) });
    expect(second).toMatchObject({ status: 409, body: { code: 'already_replaced' } });
    expect((await must(ines, api.bench.read, { params })).weighedMg).toBe(grams(530));
  });
});

describe('any sequence of work', () => {
  const pieces = ['scales-fins', 'head', 'gills', 'fillet', 'belly', 'pin', 'frame'] as const;
  const move = fc.oneof(
    {
      weight: 5,
      arbitrary: fc.record({
        do: fc.constant('take' as const),
        piece: fc.constantFrom(...pieces),
        g: fc.integer({ min: 1, max: 900 }),
        tray: fc.constantFrom('portion', 'stock', 'filling', 'staff', 'waste', 'larder'),
      }),
    },
    {
      weight: 2,
      arbitrary: fc.record({
        do: fc.constant('right' as const),
        which: fc.nat(20),
        g: fc.integer({ min: 1, max: 900 }),
      }),
    },
    { weight: 2, arbitrary: fc.record({ do: fc.constant('undo' as const), which: fc.nat(20) }) },
    { weight: 1, arbitrary: fc.record({ do: fc.constant('again' as const) }) },
    { weight: 1, arbitrary: fc.record({ do: fc.constant('close' as const) }) },
    { weight: 1, arbitrary: fc.record({ do: fc.constant('reverse' as const) }) },
    {
      weight: 1,
      arbitrary: fc.record({
        do: fc.constant('serve' as const),
        which: fc.nat(20),
        g: fc.integer({ min: 1, max: 900 }),
      }),
    },
  );

  it('of weighings, corrections, undos, repeats, closings, reopenings and servings keeps mass and money at zero', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(move, { minLength: 4, maxLength: 24 }),
        fc.integer({ min: 0, max: 50_000 }),
        async (moves, paidMinor) => {
          const delivery = await received(kitchen, ines, { paidMinor });
          const breakdown = await must(ines, api.bench.start, {
            body: { lotId: delivery.lotId, planId: 'round-fish-two-fillets', animals: 1, massMg: null },
          });
          const params = { breakdownId: breakdown.id };
          const ids: string[] = [];
          let last: { key: string; body: Parameters<typeof ines.ask<typeof api.bench.weigh>>[1]['body'] } | undefined;
          let movementId: string | undefined;
          let lots: { lotId: string }[] = [];
          for (const m of moves) {
            let status = 200;
            if (m.do === 'take' || m.do === 'right') {
              const key = uuidv7();
              const replaces = m.do === 'right' ? (ids[m.which % Math.max(1, ids.length)] ?? null) : null;
              if (m.do === 'right' && replaces === null) continue;
              const body = takeBody(
                m.do === 'take' ? m.piece : 'head',
                m.do === 'take' ? m.tray : 'stock',
                m.g,
                replaces,
              );
              status = (await ines.ask(api.bench.weigh, { params, body }, key)).status;
              if (status === 200) {
                ids.push(key);
                last = { key, body };
              }
            } else if (m.do === 'undo' && ids.length > 0)
              status = (
                await ines.ask(api.bench.weigh, {
                  params,
                  body: { kind: 'undo', replaces: ids[m.which % ids.length] ?? '', at: '2026-11-24T10:00:00.000Z' },
                })
              ).status;
            else if (m.do === 'again' && last !== undefined) {
              const before = (await must(ines, api.bench.read, { params })).weighings.length;
              status = (await ines.ask(api.bench.weigh, { params, body: last.body }, last.key)).status;
              expect((await must(ines, api.bench.read, { params })).weighings.length).toBe(before);
            } else if (m.do === 'close') {
              const reply = await ines.ask(api.bench.close, { params, body: { unbalancedReason: 'a test' } });
              status = reply.status;
              if (status === 200) ({ movementId, lots } = reply.body);
            } else if (m.do === 'reverse' && movementId !== undefined) {
              const reply = await maren.ask(api.ledger.reverse, { params: { movementId }, body: { reason: 'a test' } });
              status = reply.status;
              if (status === 200) movementId = undefined;
            } else if (m.do === 'serve' && lots.length > 0)
              status = (
                await ines.ask(api.larder.takeOut, {
                  params: { lotId: lots[m.which % lots.length]?.lotId ?? '' },
                  body: { massMg: grams(m.g), to: 'served', reason: null, note: null },
                })
              ).status;
            expect([200, 400, 409]).toContain(status);
          }
          await checkBooks();
        },
      ),
      { numRuns: 25 },
    );
  });
});
