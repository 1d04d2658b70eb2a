import { readFileSync } from 'node:fs';
import { gunzipSync } from 'node:zlib';
import { type AskedJob, api } from '@zabrik/contract';
import { grams } from '@zabrik/core';
import Papa from 'papaparse';
import type { Sequelize } from 'sequelize';
import { v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { connect } from '../db/connect.ts';
import { migrate } from '../db/migrations.ts';
import { allTables } from '../db/models/index.ts';
import { select } from '../db/select.ts';
import { timeIn } from '../http/idsOf.ts';
import { makeDatabase, openTestKitchen, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { closedHake, deliveryBody, must, received, smallestPng } from '../testing/work.ts';
import { readHouseFile, tablesOfAHouse, writeHouseFile } from './houseFile.ts';

let kitchen: TestKitchen;
let ines: Tablet;
let maren: Tablet;
let file = '';
const houseId = (): string => kitchen.home?.houseId ?? '';
const written = async (db = kitchen.services.db): Promise<string> => {
  let text = '';
  for await (const part of writeHouseFile(db, houseId(), new Date('2026-11-25T10:00:00Z'))) text += part;
  return text;
};
beforeAll(async () => {
  kitchen = await openTestKitchen();
  ines = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
  maren = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
  const { closed, delivery } = await closedHake(kitchen, ines);
  const frame = closed.lots.at(-1)?.lotId ?? '';
  await must(ines, api.larder.keep, { params: { lotId: frame }, body: { kind: 'freeze', placeId: 'freezer' } });
  await must(ines, api.larder.count, {
    body: {
      placeId: 'freezer',
      note: '-2+3+cmd|calc',
      counts: [{ lotId: frame, countedMg: grams(460), reason: '=1+1' }],
    },
  });
  await must(ines, api.receive.photograph, { params: { lineId: delivery.id }, body: { base64: smallestPng } });
  const pin = closed.lots[3]?.lotId ?? '';
  const batch = await must(ines, api.pots.plan, {
    body: { recipeId: 'fish-fumet', lotIds: [pin], vesselId: null, onHandMg: {} },
  });
  await must(ines, api.pots.finish, {
    params: { batchId: batch.id },
    body: { outputMg: batch.expectedMg.mean, spentMg: 1, note: null },
  });
  await must(maren, api.house.saveLimits, { body: { profileId: 'eu', changes: [], note: 'x' } });
  const served = await must(ines, api.larder.takeOut, {
    params: { lotId: closed.lots[1]?.lotId ?? '' },
    body: { massMg: grams(10), to: 'served', reason: null, note: null },
  });
  await must(maren, api.ledger.reverse, { params: { movementId: served.movementId }, body: { reason: 'came back' } });
  await received(kitchen, ines);
  file = await written();
});
afterAll(() => kitchen.stop());

describe('a house as a file', () => {
  it('has every table that belongs to a house but what follows from others or is of this machine alone', () => {
    const without = allTables.filter((t) => t.houseColumn === 'houseId' && !tablesOfAHouse.includes(t.name));
    expect(without.map((t) => t.name).sort()).toEqual([
      'api_token',
      'corrected',
      'device',
      'job',
      'job_part',
      'lot_balance',
      'lot_genealogy',
      'movement_key',
      'webhook',
      'webhook_call',
    ]);
    const foreign = allTables.filter((t) => t.houseColumn !== 'houseId' && tablesOfAHouse.includes(t.name));
    expect(foreign).toEqual([]);
  });

  it('tells each table after what it points at, and what is reserved after the postings', () => {
    const at = (table: string) => {
      const found = file.indexOf(`"${table}":[`);
      expect(found, table).toBeGreaterThan(0);
      return found;
    };
    for (const [before, after] of [
      ['person', 'movement'],
      ['lot', 'posting'],
      ['movement', 'posting'],
      ['posting', 'reservation'],
      ['plan_version', 'breakdown'],
      ['delivery_line', 'photograph'],
    ] as const)
      expect(at(before), `${before} before ${after}`).toBeLessThan(at(after));
  });

  it('comes back into another database without losing a row, and balances there', async () => {
    const db = connect(await makeDatabase());
    await migrate(db);
    await readHouseFile(db, file, '9753');
    const lines = (text: string) => text.split('\n').map((l) => l.replace(/,$/, ''));
    expect(lines(await written(db))).toEqual(lines(file));
    const balances = (d = db) =>
      select(d, 'select lot_id, mass_mg, cost_minor from lot_balance where house_id = $1 order by lot_id', [houseId()]);
    expect(await balances()).toEqual(await balances(kitchen.services.db));
    const kin = (d = db) =>
      select(d, 'select * from lot_genealogy where house_id = $1 order by parent_id, child_id, movement_id', [
        houseId(),
      ]);
    expect(await kin()).toEqual(await kin(kitchen.services.db));
    expect((await kin()).length).toBeGreaterThan(0);
    await expect(readHouseFile(db, file, '9753')).rejects.toThrow('is here already');
    await db.close();
  });

  it('holds no secret', () => {
    expect(file).not.toMatch(/argon2|pin_hash|password_hash/);
  });

  it('is refused in words when it is none, is cut short, of another shape, or does not balance; nothing is read in', async () => {
    const db = connect(await makeDatabase());
    await migrate(db);
    const json = JSON.parse(file) as { tables: { posting: { mass_mg: number }[] } };
    const refused = (text: string) => expect(readHouseFile(db, text, '9753')).rejects;
    await refused('{').toThrow('not JSON');
    await refused('{"format":"x"}').toThrow('no house file');
    await refused(file.slice(0, -40)).toThrow('cut short');
    await refused(file.replace(/("shape":\s*)"[^"]+"/, '$1"0003-stations"')).toThrow('shape');
    const [first, ...rest] = json.tables.posting;
    await refused(
      JSON.stringify({
        ...json,
        tables: { ...json.tables, posting: [{ ...first, mass_mg: (first?.mass_mg ?? 0) + 1 }, ...rest] },
      }),
    ).toThrow('does not sum to zero');
    expect(await select(db, 'select id from house', [])).toEqual([]);
    await db.close();
  });
});

describe('a house of a version before', () => {
  /** As the version of 29 November 2026 wrote it: a stage on the bench, fillets under the knife, a fumet planned. */
  const old = gunzipSync(readFileSync(new URL('fixtures/house-0018.json.gz', import.meta.url))).toString('utf8');
  const then = JSON.parse(old) as { house: { id: string }; tables: Record<string, Record<string, unknown>[]> };
  const reserved = (db: Sequelize) =>
    select<{ kind: string; mass_mg: number; of: number; free: number }>(
      db,
      `select r.holder_kind as kind, r.mass_mg, b.reserved_mg as of, b.mass_mg - b.reserved_mg as free
       from reservation r join lot_balance b using (lot_id) order by kind`,
      [],
    );
  const asItStood = [
    { kind: 'batch', mass_mg: grams(468), of: grams(468), free: 0 },
    { kind: 'breakdown', mass_mg: grams(1_000), of: grams(1_000), free: grams(1_860) },
    { kind: 'cutting', mass_mg: grams(300), of: grams(300), free: grams(1_293) },
  ];

  const calledNow: Readonly<Record<string, string>> = {
    run: 'batch',
    run_input: 'batch_input',
    run_event: 'batch_event',
    house_use: 'house_recipe',
  };
  const columnsThen: Readonly<Record<string, string>> = {
    batch_id: 'run_id',
    recipe_id: 'use_id',
    tub_recipe: 'tub_use',
  };
  /** A batch was a run, and what it was made by a use. */
  const inWordsOfThen = (row: Record<string, unknown>): Record<string, unknown> =>
    Object.fromEntries(
      Object.entries(row).map(([column, value]) => [
        columnsThen[column] ?? column,
        column === 'kind' && value === 'batch' && 'reverses' in row ? 'run' : value,
      ]),
    );

  /** The rows of a table with the plan or the recipe in them again that they name. */
  const carryingAgain = (file: typeof then, table: string): Record<string, unknown>[] =>
    (file.tables[calledNow[table] ?? table] ?? []).map(inWordsOfThen).map((row) => {
      const { plan_version, recipe_version, ...rest } = row;
      const kept = (of: string, id: unknown) => file.tables[of]?.find((version) => version['id'] === id);
      if (plan_version !== undefined) {
        // nobody could say then that something was found otherwise than planned
        const { found, ...then } = rest;
        expect(found).toEqual({ cameWithout: {}, others: [] });
        return { ...then, plan: kept('plan_version', plan_version)?.['plan'] };
      }
      if (recipe_version !== undefined) {
        // nobody said yet what had no price
        const { unpriced, ...then } = rest;
        expect(unpriced).toEqual([]);
        return { ...then, use: kept('recipe_version', recipe_version)?.['recipe'] };
      }
      if (table.startsWith('breakdown_')) {
        // nor that something was joined to a piece
        const { brought, brought_mg, ...then } = row;
        expect(table === 'breakdown_input' ? brought : brought_mg).toEqual(table === 'breakdown_input' ? false : 0);
        return then;
      }
      if (table === 'person') {
        // nor that somebody had left, or what an hour of theirs costs
        const { left_at, hourly_minor, version, skills, must_not_touch, shifts, first_day_over_at, ...then } = row;
        expect([left_at, hourly_minor, version]).toEqual([null, null, 1]);
        expect([skills, must_not_touch, shifts]).toEqual([[], [], []]);
        // whoever was there before knows the way
        expect(first_day_over_at).not.toBeNull();
        return then;
      }
      if (table === 'supplier') {
        // nor what was agreed with a supplier
        const { terms, version, retired_at, ...then } = row;
        expect([terms, version, retired_at]).toEqual([{}, 1, null]);
        return then;
      }
      if (table === 'cooling') {
        // nor that a log was begun in a batch's step
        const { batch_id, run_id = batch_id, ...then } = row;
        expect(run_id).toBeNull();
        return then;
      }
      if (table === 'command' || table === 'weighing') {
        // a key did not carry its time beside it
        const { keyed_at, ...then } = row;
        expect(new Date(String(keyed_at))).toEqual(timeIn(String(row['id'])));
        return then;
      }
      if (table !== 'posting') return row;
      // a line had no time of its own: it has its movement's
      const { at, ...line } = row;
      return at === file.tables['movement']?.find((m) => m['id'] === row['movement_id'])?.['at'] ? line : row;
    });

  it('its file is read whole, with what was on the bench, under the knife and in a pot reserved', async () => {
    const db = connect(await makeDatabase());
    await migrate(db);
    const { rows } = await readHouseFile(db, old, '9753');
    const made = { reserved: 3, plans: 2, recipes: 1 };
    expect(rows).toBe(
      Object.values(then.tables).reduce((sum, t) => sum + t.length, 0) + made.reserved + made.plans + made.recipes,
    );
    expect(await reserved(db)).toEqual(asItStood);
    let text = '';
    for await (const part of writeHouseFile(db, then.house.id, new Date())) text += part;
    const now = JSON.parse(text) as typeof then;
    for (const [table, was] of Object.entries(then.tables)) expect(carryingAgain(now, table), table).toEqual(was);
    await db.close();
  });

  it('its database is carried over, as a backup of it is', async () => {
    const db = connect(await makeDatabase());
    await migrate(db, '0018-lot-serials');
    await db.transaction(async (transaction) => {
      for (const [table, rows] of [['house', [then.house]] as const, ...Object.entries(then.tables)]) {
        const columns = Object.keys(Object.assign({}, ...rows) as object)
          .map((c) => `"${c}"`)
          .join(', ');
        const given = table === 'person' ? rows.map((r) => ({ ...r, pin_hash: 'x' })) : rows;
        const all = table === 'person' ? `${columns}, pin_hash` : columns;
        if (rows.length > 0)
          await db.query(
            `insert into ${table} (${all}) select ${all} from jsonb_populate_recordset(null::${table}, $1::jsonb)`,
            { bind: [JSON.stringify(given)], transaction },
          );
      }
    });
    await migrate(db);
    expect(await reserved(db)).toEqual(asItStood);
    await db.close();
  });
});

describe('other ways out', () => {
  it('CSV: a head, CRLF, a line for each posting, sums of zero, and no cell a spreadsheet would run', async () => {
    const reply = await maren.raw('get', '/api/v1/ledger/movements.csv');
    const text = String(reply.body['text']);
    expect(reply.headers.get('content-type')).toContain('text/csv');
    expect(text.replaceAll('\r\n', '')).not.toMatch(/[\r\n]/);
    const { data } = Papa.parse<Record<string, string>>(text.trim(), { header: true });
    const [counted] = await select<{ n: number }>(
      kitchen.services.db,
      'select count(*)::int as n from posting where house_id = $1',
      [houseId()],
    );
    expect(data).toHaveLength(counted?.n ?? 0);
    expect(data.reduce((sum, r) => sum + Math.round(Number(r['mass_kg']) * 1e6), 0)).toBe(0);
    expect(data.some((r) => r['reason'] === "'=1+1")).toBe(true);
    // a minus before a figure stays, before anything else it does not
    expect(data.some((r) => r['note'] === "'-2+3+cmd|calc")).toBe(true);
    expect(data.some((r) => /^-\d/.test(r['mass_kg'] ?? ''))).toBe(true);
    const raw = String((await maren.raw('get', '/api/v1/ledger/movements.csv?cells=raw')).body['text']);
    expect(raw).toContain(',=1+1,');
    expect((await ines.raw('get', '/api/v1/ledger/movements.csv')).status).toBe(403);
  });

  it('of a day, by the house’s clock, from its first moment to its last, though the clocks go back', async () => {
    // the 25th of October 2026 has 25 hours in London
    const moments = {
      before: '2026-10-24T22:59:59.999Z',
      first: '2026-10-24T23:00:00.000Z',
      last: '2026-10-25T23:59:59.999Z',
      after: '2026-10-26T00:00:00.000Z',
    };
    for (const at of Object.values(moments)) {
      kitchen.setClock(new Date(at));
      await received(kitchen, ines);
    }
    kitchen.setClock(undefined);
    const timesOf = async (query: string): Promise<Set<string | undefined>> => {
      const text = String((await maren.raw('get', `/api/v1/ledger/movements.csv?${query}`)).body['text']);
      return new Set(Papa.parse<Record<string, string>>(text.trim(), { header: true }).data.map((r) => r['at']));
    };
    const day = '2026-10-25';
    expect(await timesOf(`from=${day}&until=${day}`)).toEqual(new Set([moments.first, moments.last]));
    expect(await timesOf(`until=${day}`)).toEqual(new Set([moments.before, moments.first, moments.last]));
    const { body } = await maren.raw('get', `/api/v1/ledger/movements.jsonld?from=${day}&until=${day}`);
    const { eventList } = body['epcisBody'] as { eventList: { eventTime: string }[] };
    expect(eventList.map((e) => new Date(e.eventTime).toISOString())).toEqual([moments.first, moments.last]);
  });

  it('EPCIS: only what stands, and of one lot only its family', async () => {
    const all = (await maren.raw('get', '/api/v1/ledger/movements.jsonld')).body as {
      epcisBody: { eventList: { eventID: string }[] };
    };
    const reversed = await select<{ id: string }>(
      kitchen.services.db,
      'select id from movement where reverses is not null or id in (select reverses from movement)',
      [],
    );
    for (const { id } of reversed)
      expect(all.epcisBody.eventList.map((e) => e.eventID)).not.toContain(`urn:uuid:${id}`);
    const lone = await received(kitchen, ines);
    const one = (await maren.raw('get', `/api/v1/ledger/movements.jsonld?lot=${lone.lotId}`)).body as typeof all;
    expect(one.epcisBody.eventList).toHaveLength(1);
    // of two fish in one pot, one has nothing to do with how the other came and was cut
    const bones = async () => (await closedHake(kitchen, ines)).closed;
    const [a, b] = [await bones(), await bones()];
    const batch = await must(ines, api.pots.plan, {
      body: {
        recipeId: 'fish-fumet',
        lotIds: [a.lots[4]?.lotId ?? '', b.lots[4]?.lotId ?? ''],
        vesselId: null,
        onHandMg: {},
      },
    });
    await must(ines, api.pots.finish, {
      params: { batchId: batch.id },
      body: { outputMg: batch.expectedMg.mean, spentMg: 1, note: null },
    });
    const mine = (await maren.raw('get', `/api/v1/ledger/movements.jsonld?lot=${a.lots[4]?.lotId}`)).body as typeof all;
    const ids = mine.epcisBody.eventList.map((e) => e.eventID);
    expect(ids).toContain(`urn:uuid:${a.movementId}`);
    expect(ids).not.toContain(`urn:uuid:${b.movementId}`);
    expect(ids).toHaveLength(3);
  });

  it('all of them over HTTP as jobs', async () => {
    await kitchen.startJobs();
    const made = async (asked: AskedJob) => {
      const { id } = await must(maren, api.jobs.ask, { body: asked });
      const job = async () => (await must(maren, api.jobs.list, {})).jobs.find((j) => j.id === id);
      await vi.waitFor(async () => expect((await job())?.state).toBe('done'), { timeout: 60_000, interval: 100 });
      return maren.raw('get', `/api/v1/jobs/${id}/file`);
    };
    expect((await made({ kind: 'house-file' })).body).toMatchObject({ format: 'zabrik-house', version: 1 });
    const csv = await maren.raw('get', '/api/v1/ledger/movements.csv?cells=raw');
    expect((await made({ kind: 'movements-csv', cells: 'raw' })).body).toEqual(csv.body);
    const events = (await made({ kind: 'movements-epcis' })).body as { epcisBody: { eventList: unknown[] } };
    const direct = (await maren.raw('get', '/api/v1/ledger/movements.jsonld')).body as typeof events;
    expect(events.epcisBody.eventList).toHaveLength(direct.epcisBody.eventList.length);
  });
});

it('brings the answers along: a tablet that repeats a command gets the first one, in the other database too', async () => {
  const key = uuidv7();
  const ask = { body: deliveryBody(kitchen) };
  const first = await must(ines, api.receive.accept, ask, key);
  const databaseUrl = await makeDatabase();
  const db = connect(databaseUrl);
  await migrate(db);
  await readHouseFile(db, await written(), '9753');
  const there = await openTestKitchen({ databaseUrl });
  const inesThere = await there.signIn(kitchen.personOf('Ines Calloway'), '9753');
  const lots = () => select(db, 'select id from lot', []);
  const before = (await lots()).length;
  expect(await must(inesThere, api.receive.accept, ask, key)).toEqual(first);
  expect(await lots()).toHaveLength(before);
  await there.stop();
  await db.close();
});
