import { PassThrough } from 'node:stream';
import { api, cutPlanSchema, type EndpointId, mayDo, type Role } from '@zabrik/contract';
import { allEndpoints } from '@zabrik/contract/openapi';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readConfig } from '../config.ts';
import { connect } from '../db/connect.ts';
import { migrate } from '../db/migrations.ts';
import { select } from '../db/select.ts';
import { asProblem, problemDocument } from '../http/problem.ts';
import { openLog } from '../openServices.ts';
import { makeDatabase, openTestKitchen, pathOf, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { must } from '../testing/work.ts';
import { seedDemo } from './seed.ts';

let kitchen: TestKitchen;
let maren: Tablet;
beforeAll(async () => {
  const databaseUrl = await makeDatabase();
  kitchen = await openTestKitchen({ databaseUrl });
  await seedDemo(kitchen.services, '1357', 8, () => undefined);
  const [person] = await select<{ id: string }>(
    kitchen.services.db,
    `select id from person where name = 'Maren Ostle'`,
    [],
  );
  maren = await kitchen.signIn(person?.id ?? '');
});
afterAll(() => kitchen.stop());

describe('the demo', () => {
  it('keeps books that balance, made through the same services as a day’s work', async () => {
    const { db } = kitchen.services;
    expect(
      await select(
        db,
        'select movement_id from posting group by 1 having sum(mass_mg) <> 0 or sum(cost_minor) <> 0',
        [],
      ),
    ).toEqual([]);
    const [counted] = await select<{ closed: number; open: number }>(
      db,
      `select count(*) filter (where state = 'closed')::int as closed, count(*) filter (where state = 'open')::int as open from breakdown`,
      [],
    );
    expect(counted).toEqual({ closed: 19, open: 1 });
  });

  it('is of today: something came in today, something is whole, a fish lies half cut', async () => {
    const flow = await must(maren, api.house.flow, {});
    expect(flow.openBreakdowns).toBe(1);
    expect(flow.lastMainShare).toBeGreaterThan(0.2);
    const whole = await must(maren, api.larder.list, { query: { kind: 'delivery' } });
    expect(whole.lots.map((l) => l.species).sort()).toEqual([
      'brill',
      'duck',
      'guinea-fowl',
      'guinea-fowl',
      'hake',
      'lamb',
      'mackerel',
      'plaice',
      'pork',
      'squid',
      'wood-pigeon',
    ]);
    const { waiting } = await must(maren, api.bench.waiting, {});
    expect(waiting.map((w) => w.stageName).sort()).toEqual(['Back shell', 'Body', 'Claws', 'Legs', 'Portion']);
    expect(waiting.find((w) => w.stageName === 'Portion')?.readyAt).not.toBeNull();
  });

  it('answers every yield sheet with costs that add up to what was paid', async () => {
    const { breakdowns } = await must(maren, api.ledger.list, { query: { limit: 50 } });
    for (const { id, startMinor } of breakdowns) {
      const sheet = await must(maren, api.ledger.sheet, { params: { breakdownId: id } });
      for (const school of ['weight', 'by-product-credit'] as const) {
        const amounts = sheet.rows.map((row) => row.costMinor[school]);
        if (!amounts.includes(null)) expect(amounts.reduce<number>((sum, a) => sum + (a ?? 0), 0)).toBe(startMinor);
      }
    }
  });
});

/** An id of each kind that a path may take; a lot, a breakdown and so on that has the most to tell. */
async function idsOf(): Promise<Readonly<Record<string, readonly string[]>>> {
  const all = async (sql: string): Promise<readonly string[]> =>
    (await select<{ id: string }>(kitchen.services.db, sql, [])).map((r) => r.id);
  return {
    slug: await all('select slug as id from house limit 1'),
    breakdownId: await all('select id from breakdown order by id'),
    cuttingId: await all('select id from cutting'),
    lotId: await all('select id from lot'),
    batchId: await all('select id from batch'),
    deliveryId: await all('select id from delivery limit 20'),
    lineId: await all('select id from delivery_line limit 20'),
    photographId: await all('select id from photograph'),
    planId: ['round-fish-two-fillets', 'duck-whole'],
    recipeId: ['fish-fumet', 'brown-stock'],
    job: [],
  };
}

describe('every read', () => {
  it('answers for all that the demo holds, to everyone who may ask', async () => {
    const { lots } = await must(maren, api.larder.list, { query: { category: 'white-fish-frame', kind: 'piece' } });
    // of some the date is past
    const planned = await Promise.all(
      lots.map((l) =>
        maren.ask(api.pots.plan, {
          body: { recipeId: 'fish-fumet', lotIds: [l.id], vesselId: null, onHandMg: {} },
        }),
      ),
    );
    const batch = planned.find((p) => p.status === 200)?.body;
    if (batch === undefined) throw new Error('no frame may go into a pot');
    await must(maren, api.pots.finish, {
      params: { batchId: batch.id },
      body: { outputMg: batch.expectedMg.mean, spentMg: 1, note: null },
    });
    const ids = await idsOf();
    const people = await select<{ id: string; role: Role }>(
      kitchen.services.db,
      'select distinct on (role) id, role from person',
      [],
    );
    const [lot] = ids['lotId'] ?? [];
    const queries: Partial<Readonly<Record<EndpointId, string>>> = {
      'larder.labelPdf': `?lots=${lot}&size=62x40`,
      'receive.priceHistory': '?item=hake',
    };
    let answered = 0;
    for (const { id, role } of people) {
      const tablet = await kitchen.signIn(id);
      for (const e of allEndpoints.filter((x) => x.method === 'get' && mayDo(role, x.id as EndpointId))) {
        const name = /:(\w+)/.exec(e.path)?.[1];
        for (const value of name === undefined ? [''] : (ids[name] ?? []).slice(0, role === 'butcher' ? 400 : 3)) {
          const path = `${pathOf(e, name === undefined ? {} : { [name]: value })}${queries[e.id as EndpointId] ?? ''}`;
          const reply = await tablet.raw('get', path);
          if (reply.status === 200) answered += 1;
          // what is not there, or not asked for in full, is said; nothing that is there may break
          expect(reply.status, `${role} ${path}: ${JSON.stringify(reply.body).slice(0, 300)}`).toBeLessThan(500);
        }
      }
    }
    expect(answered).toBeGreaterThan(300);
    const { batches } = await must(maren, api.ledger.batches, { query: {} });
    expect(batches.some((b) => (b.costMinor ?? 0) > 0)).toBe(true);
  });
});

describe('starting', () => {
  it('brings a breakdown begun before stages and batches into the shape of today', async () => {
    const db = connect(await makeDatabase());
    await migrate(db, '0003-stations');
    const id = (n: number): string => `00000000-0000-4000-8000-00000000000${n}`;
    const piece = (name: string, units: string[]) => ({
      id: name,
      name,
      units,
      category: 'poultry-portion',
      share: { mean: 0.49, sd: 0.02, provenance: 'estimate', source: 'before' },
      destination: 'portion',
      alternatives: [],
      refused: [],
      main: true,
      edible: true,
    });
    const plan = {
      id: 'whole-bird-joints',
      version: 1,
      title: 'Joints',
      body: 'bird',
      species: ['guinea-fowl'],
      startForms: ['whole'],
      tools: ['knife'],
      minutes: { low: 4, typical: 6, high: 10 },
      stages: [
        {
          id: 's1',
          name: 'Joint',
          drip: { mean: 0.02, sd: 0.01, provenance: 'estimate', source: 'before' },
          steps: [{ title: 'Legs off', how: 'Cut', orderMatters: true, pieces: ['leg', 'carcass'] }],
          pieces: [
            piece('leg', ['left, no. 1', 'right, no. 1', 'left, no. 2', 'right, no. 2']),
            piece('carcass', ['a', 'b']),
          ],
        },
      ],
    };
    const batch = (sql: string, bind: unknown[]) => db.query(sql, { bind });
    await batch(
      `insert into house (id, slug, name, currency, timezone, settings) values ($1, 'old', 'Old', 'GBP', 'Europe/London',
       '{"school":"weight","scale":{"name":"Bench scale","accuracyClass":"III","intervalMg":1000,"maxMg":15000000},"creditMinorPerKg":{},"pantryMinorPerKg":{},"vessels":[]}')`,
      [id(1)],
    );
    await batch(`insert into person (id, house_id, name, role, pin_hash) values ($1, $2, 'Ana', 'butcher', 'x')`, [
      id(2),
      id(1),
    ]);
    await batch(
      `insert into lot (id, house_id, serial, code, kind, name, pieces, made_mg, made_at) values ($1, $2, 1, '0001-A', 'delivery', 'Fowl', 2, 2600000, now())`,
      [id(3), id(1)],
    );
    await batch(
      `insert into breakdown (id, house_id, lot_id, plan, refusals, plan_id, stage_id, species, form, animals, start_mg, start_minor, state, person_id, started_at)
       values ($1, $2, $3, $4, '{"leg":{}}', 'whole-bird-joints', 's1', 'guinea-fowl', 'whole', 2, 2600000, 2000, 'open', $5, now())`,
      [id(4), id(1), id(3), JSON.stringify(plan), id(2)],
    );
    await migrate(db);
    const [moved] = await select<{ plan: unknown; root_id: string; way: string; input: number; scale: string }>(
      db,
      `select pv.plan, b.root_id, b.way, i.mass_mg as input, h.settings->'scales'->0->>'id' as scale
       from breakdown b join plan_version pv on pv.house_id = b.house_id and pv.id = b.plan_version join breakdown_input i on i.breakdown_id = b.id join house h on h.id = b.house_id`,
      [],
    );
    const read = cutPlanSchema.parse(moved?.plan);
    expect(read.starts).toEqual([{ species: 'guinea-fowl', forms: ['whole'] }]);
    expect(read.stages[0]?.minutes.typical).toBe(6);
    expect(read.stages[0]?.pieces.map((p) => p.count)).toEqual([2, 1]);
    expect(moved).toMatchObject({ root_id: id(4), way: 'one-by-one', input: 2_600_000, scale: 'bench' });
    await db.close();
  });

  it('three processes at once migrate one database once', async () => {
    const url = await makeDatabase();
    const connections = [connect(url), connect(url), connect(url)];
    const applied = await Promise.all(connections.map((db) => migrate(db)));
    expect(applied.flat().sort()).toEqual([...new Set(applied.flat())].sort());
    expect(applied.flat().length).toBeGreaterThanOrEqual(14);
    await Promise.all(connections.map((db) => db.close()));
  });

  it('refuses settings it cannot use, by name', () => {
    expect(() => readConfig({ DATABASE_URL: 'postgres://x', SESSION_SECRET: 'short' })).toThrow(/SESSION_SECRET/);
    expect(() => readConfig({ SESSION_SECRET: 's'.repeat(40), DATABASE_URL: 'x', PORT: 'many' })).toThrow(/PORT/);
  });
});

describe('what is logged and what is told', () => {
  it('never a PIN or a password, wherever it stands', async () => {
    const out = new PassThrough();
    const log = openLog('info', out);
    log.info({ body: { personId: 'x', pin: '2468', password: 'secret-word' } }, 'request');
    const line = String(out.read());
    expect(line).toContain('personId');
    expect(line).not.toMatch(/2468|secret-word/);
  });

  it('never what a statement was asked with: it is people’s own text', async () => {
    const out = new PassThrough();
    const log = openLog('info', out);
    const failed = await kitchen.services.db
      .query('select 1 from person where name = $1 and id = $2', { bind: ['a private note', 'no uuid'] })
      .then(
        () => undefined,
        (error: unknown) => error,
      );
    log.error({ err: failed }, 'unexpected');
    const line = String(out.read());
    expect(line).toContain('22P02'); // invalid text representation, PostgreSQL's appendix A
    expect(line).not.toContain('a private note');
  });

  it('what nobody expected is told as broken, without its insides', () => {
    const document = problemDocument(asProblem(new Error('select * from secret_table')), 'request-1');
    expect(document).toMatchObject({
      code: 'broken',
      status: 500,
      requestId: 'request-1',
      type: 'urn:zabrik:problem:broken',
    });
    expect(JSON.stringify(document)).not.toContain('secret_table');
  });

  it('a database that is away is told as that, and answers /readyz with 503', async () => {
    const away = Object.assign(new Error('connect'), { code: 'ECONNREFUSED' });
    expect(asProblem(away).code).toBe('database_away');
    expect((await fetch(`${kitchen.base}/readyz`)).status).toBe(200);
    expect((await fetch(`${kitchen.base}/healthz`)).status).toBe(200);
  });
});
