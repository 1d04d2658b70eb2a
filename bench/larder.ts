/** What the larder and receiving must hold: 20,000 lots on hand, a lot with 2,000 descendants, five years of movements, box codes, a price list. */
import { chromium } from '@playwright/test';
import { parseGs1, readPriceRows, traceDown, traceUp, writeGs1 } from '@zabrik/core';
import { seededRandom } from '@zabrik/core/simulator';
import pg from 'pg';
import type { Session } from '../e2e/kitchenProcess.ts';
import { barestServer, type InTurn, inTurn } from './reference.ts';

/** Lines of movements that are there, given as a select of movement, house, lot, sink, mass and cost. */
const posted = (lines: string): string =>
  `insert into posting (movement_id, house_id, at, lot_id, sink, mass_mg, cost_minor)
   select p.movement_id, p.house_id, m.at, p.lot_id, p.sink, p.mass_mg, p.cost_minor
   from (${lines}) p(movement_id, house_id, lot_id, sink, mass_mg, cost_minor) join movement m on m.id = p.movement_id`;

/** Box codes read at a go. */
export const CODES = 2_000;

export interface LarderTimes {
  readonly lots: number;
  readonly movements: number;
  readonly first: InTurn;
  readonly framesPerSecond: number;
  readonly longFrames: number;
  readonly traces: InTurn;
  readonly computed: InTurn;
  /** Two thousand of them at a go. */
  readonly codes: InTurn;
  readonly pricesMs: number;
}

const LOTS = 20_000;
const DESCENDANTS = 2_000;
const OLD_BREAKDOWNS = 9_000;

/**
 * Fills the demo's house: 20,000 lots on hand, five years of breakdowns that are eaten up, and one delivery that went into 2,000 lots
 * through three steps. Straight into the tables; the database's own triggers judge every movement as it is written.
 */
async function fillHouse(databaseUrl: string): Promise<{ readonly rootId: string; readonly movements: number }> {
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  try {
    const rootId = crypto.randomUUID();
    const house = (
      await client.query<{ id: string; person: string; serial: number }>(
        'select h.id, (select id from person p where p.house_id = h.id order by name limit 1) as person, coalesce((select max(serial) from lot l where l.house_id = h.id), 0) as serial from house h limit 1',
      )
    ).rows[0];
    if (house === undefined) throw new Error('no house');
    const lot = (
      alias: string,
    ): string => `insert into lot (id, house_id, serial, code, kind, name, species, category, destination, pieces, made_mg, use_by, made_at, place_id, state, allergens)
      select ${alias}`;
    await client.query('begin');
    await client.query(`create temp table made (n int, id uuid, movement uuid) on commit drop`);
    const inBatch = async (count: number, from: number, mg: number, days: string, at: string): Promise<void> => {
      await client.query('delete from made');
      await client.query(
        'insert into made select n, gen_random_uuid(), gen_random_uuid() from generate_series(1, $1::int) n',
        [count],
      );
      await client.query(
        `${lot(`m.id, $1::uuid, $2::int + m.n, lpad(($2::int + m.n)::text, 6, '0') || '-X', 'piece', 'Made-up piece ' || m.n, 'hake',
          case m.n % 3 when 0 then 'white-fish-frame' when 1 then 'white-fish-portion' else 'white-fish-trim' end,
          case m.n % 3 when 0 then 'stock' when 1 then 'portion' else 'filling' end, 1, $3::bigint, current_date + (${days})::int, ${at}, 'cold-room', 'fresh', '{fish}'`)} from made m`,
        [house.id, house.serial + from, mg],
      );
      await client.query(
        `insert into movement (id, house_id, command_id, kind, station, at, person_id) select m.movement, $1::uuid, gen_random_uuid(), 'receive', 'receive', ${at}, $2::uuid from made m`,
        [house.id, house.person],
      );
      await client.query(
        posted(
          `select m.movement, $1::uuid, m.id, null, $2::bigint, 100 from made m union all select m.movement, $1::uuid, null, 'supplier', -$2::bigint, -100 from made m`,
        ),
        [house.id, mg],
      );
    };
    await inBatch(LOTS, 0, 480_000, 'm.n % 14 - 1', "now() - (m.n % 200) * interval '1 hour'");
    // five years of what was received and served
    await inBatch(OLD_BREAKDOWNS, LOTS, 900_000, '- m.n % 1700', "now() - (m.n % 1800) * interval '1 day'");
    await client.query('create temp table gone on commit drop as select id, gen_random_uuid() as movement from made');
    await client.query(
      `insert into movement (id, house_id, command_id, kind, station, at, person_id)
       select g.movement, $1::uuid, gen_random_uuid(), 'take-out', 'larder', l.made_at + interval '1 day', $2::uuid from gone g join lot l on l.id = g.id`,
      [house.id, house.person],
    );
    await client.query(
      posted(
        `select movement, $1::uuid, id, null, -900000::bigint, -100 from gone union all select movement, $1::uuid, null, 'served', 900000::bigint, 100 from gone`,
      ),
      [house.id],
    );
    // one delivery into 40 lots, each into 10, each of those into 4 with pantry goods beside
    const step = async (
      parents: readonly string[],
      each: number,
      mg: number,
      kind: string,
      hours: number,
    ): Promise<string[]> => {
      const rows = parents.flatMap((parent) => {
        const movement = crypto.randomUUID();
        return Array.from({ length: each }, () => ({ id: crypto.randomUUID(), movement, parent }));
      });
      const serial = await nextSerial(rows.length);
      await client.query(
        `insert into lot (id, house_id, serial, code, kind, name, species, category, destination, pieces, made_mg, use_by, made_at, allergens)
         select r.id, $1::uuid, $2::int + row_number() over (), 'T' || ($2::int + row_number() over ()), 'piece', 'Descendant', 'hake', 'white-fish-portion', 'portion', 1, $3::bigint, current_date, now() - interval '1 hour' * $4::int, '{fish}'
         from jsonb_to_recordset($5::jsonb) r(id uuid)`,
        [house.id, serial, mg, 10 - hours, JSON.stringify(rows)],
      );
      const movements = [...new Set(rows.map((r) => r.movement))];
      await client.query(
        `insert into movement (id, house_id, command_id, kind, station, at, person_id)
         select m, $1::uuid, gen_random_uuid(), $2::text, 'bench', now() - interval '1 hour' * $3::int, $4::uuid from unnest($5::uuid[]) m`,
        [house.id, kind, 10 - hours, house.person, movements],
      );
      await client.query(
        posted(
          `select movement, $1::uuid, parent, null, -count(*) * $2::bigint, 0 from jsonb_to_recordset($3::jsonb) r(movement uuid, parent uuid) group by 1, 3
           union all select movement, $1::uuid, id, null, $2::bigint, 0 from jsonb_to_recordset($3::jsonb) r(movement uuid, id uuid)`,
        ),
        [house.id, mg, JSON.stringify(rows)],
      );
      return rows.map((r) => r.id);
    };
    let used = house.serial + LOTS + OLD_BREAKDOWNS;
    const nextSerial = async (n: number): Promise<number> => {
      const from = used + 1;
      used += n + 1;
      return from;
    };
    const rootMovement = crypto.randomUUID();
    await client.query(
      `insert into lot (id, house_id, serial, code, kind, name, species, form, pieces, made_mg, use_by, made_at, allergens)
       values ($1, $2, $3, 'ROOT', 'delivery', 'One boat', 'hake', 'gutted', 40, 160000000, current_date, now() - interval '11 hours', '{fish}')`,
      [rootId, house.id, await nextSerial(1)],
    );
    await client.query(
      `insert into movement (id, house_id, command_id, kind, station, at, person_id) values ($1, $2, gen_random_uuid(), 'receive', 'receive', now() - interval '11 hours', $3)`,
      [rootMovement, house.id, house.person],
    );
    await client.query(
      posted(
        `values ($1::uuid, $2::uuid, $3::uuid, null, 160000000, 0), ($1::uuid, $2::uuid, null, 'supplier', -160000000, 0)`,
      ),
      [rootMovement, house.id, rootId],
    );
    const first = await step([rootId], 40, 4_000_000, 'close-stage', 1);
    const second = await step(first, 10, 400_000, 'close-stage', 2);
    await step(second, 4, 100_000, 'split', 3);
    await client.query('select setval(lot_sequence($1)::regclass, $2)', [house.id, used + 1]);
    await client.query('commit');
    // as the database does by itself over five years: what was just written is read slowly the first time
    await client.query('vacuum analyze');
    const counted = await client.query<{ n: number }>('select count(*)::int as n from movement');
    return { rootId, movements: counted.rows[0]?.n ?? 0 };
  } finally {
    await client.end();
  }
}

/** Frames while the list of 20,000 is scrolled by hand: a wheel turn every frame for five seconds. */
async function scrolling(base: string, cookie: string): Promise<{ perSecond: number; late: number }> {
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--no-first-run', '--disable-dev-shm-usage'],
  });
  try {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, serviceWorkers: 'block' });
    const [name = '', value = ''] = cookie.split('=');
    await context.addCookies([{ name, value, url: base }]);
    const page = await context.newPage();
    await page.goto(`${base}/larder`);
    await page.waitForSelector('[data-testid=lots] a');
    await page.waitForTimeout(1_500);
    // as text: what compiles this file would write its own helpers into a function
    const times = (await page.evaluate(`new Promise((done) => {
      const list = document.querySelector('[data-testid=lots]');
      const times = [];
      const step = (now) => { times.push(now); list.scrollTop += 40; if (now - times[0] < 5000) requestAnimationFrame(step); else done(times); };
      requestAnimationFrame(step);
    })`)) as number[];
    const gaps = times.slice(1).map((t, i) => t - (times[i] ?? t));
    const span = ((times.at(-1) ?? 0) - (times[0] ?? 0)) / 1_000;
    return { perSecond: gaps.length / span, late: gaps.filter((g) => g > 25).length / gaps.length };
  } finally {
    await browser.close();
  }
}

function boxCodes(): Promise<InTurn> {
  const random = seededRandom('box codes');
  const codes = Array.from({ length: CODES }, (_, i) =>
    writeGs1([
      { ai: '01', raw: '99521234001013' },
      { ai: '3103', raw: String(random.whole(100, 20_000)).padStart(6, '0') },
      { ai: '17', raw: '261104' },
      { ai: '10', raw: `L${i}-${random.whole(1, 9_999)}` },
    ]),
  );
  return inTurn(() => {
    for (const code of codes) parseGs1(code, 2026);
  });
}

/** Reads and sends a list of 10,000 rows as the screen does: in parts of a thousand. Whole, milliseconds. */
async function priceList(session: Session, supplierId: string): Promise<number> {
  const cells = Array.from({ length: 10_000 }, (_, i) => [`Item ${i}`, ((i % 4_000) / 100 + 1).toFixed(2), 'kg']);
  const listId = crypto.randomUUID();
  const before = performance.now();
  const { rows } = readPriceRows(cells, 3, { item: 0, price: 1, unit: 2 }, 'GBP');
  for (let from = 0; from < rows.length; from += 1_000) {
    const reply = await session.post(
      '/api/v1/price-lists',
      {
        listId,
        supplierId,
        file: 'bench.csv',
        validFrom: '2026-11-01',
        last: from + 1_000 >= rows.length,
        rows: rows.slice(from, from + 1_000),
      },
      crypto.randomUUID(),
    );
    if (!reply.ok) throw new Error(`prices: ${reply.status}`);
  }
  return performance.now() - before;
}

export async function larderTimes(base: string, databaseUrl: string, chef: Session): Promise<LarderTimes> {
  const { suppliers } = (await chef.get('/api/v1/suppliers')) as { suppliers: { id: string }[] };
  const pricesMs = await priceList(chef, suppliers[0]?.id ?? '');
  const { rootId, movements } = await fillHouse(databaseUrl);
  const list = () => chef.get('/api/v1/lots?group=date&limit=200');
  const page = (await list()) as { lots: unknown[]; total: number };
  if (page.lots.length !== 200) throw new Error('the larder is not full');
  // what the first painting waits for: the list and the sums of its groups, asked together as the screen does
  const barest = await barestServer(databaseUrl);
  const first = await inTurn(() => Promise.all([list(), chef.get('/api/v1/lot-groups?by=date')]), barest.ask, 20);
  const trace = () => chef.get(`/api/v1/lots/${rootId}/trace`);
  const family = (await trace()) as { lots: unknown[]; movements: Parameters<typeof traceDown>[1] };
  if (family.lots.length < DESCENDANTS) throw new Error(`only ${family.lots.length} descendants`);
  const traces = await inTurn(trace, barest.ask, 20);
  await barest.stop();
  const computed = await inTurn(
    () => {
      traceDown(rootId, family.movements);
      traceUp(rootId, family.movements);
    },
    undefined,
    10,
  );
  const frames = await scrolling(base, chef.cookie);
  return {
    lots: page.total,
    movements,
    first,
    framesPerSecond: frames.perSecond,
    longFrames: frames.late,
    traces,
    computed,
    codes: await boxCodes(),
    pricesMs,
  };
}
