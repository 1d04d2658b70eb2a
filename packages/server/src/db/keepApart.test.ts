/** The second lock: a line that works for one house reads and writes nothing of another, even where no `where` says so. */
import { planById, recipeById } from '@zabrik/catalogue';
import { api } from '@zabrik/contract';
import { grams } from '@zabrik/core';
import { v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { tablesOfAHouse } from '../house/houseFile.ts';
import { openTestKitchen, PIN, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { closedHake, deliveryBody, must, received, smallestPng, startHake, takeBody } from '../testing/work.ts';
import { forHouse } from './houseScope.ts';
import { HOUSE_ROLE } from './keepApart.ts';
import { select } from './select.ts';

let kitchen: TestKitchen;
let home = '';
let other = '';
const at = '2026-11-24T10:00:00.000Z';
const sql = (text: string, bind: readonly unknown[] = []) =>
  select<Record<string, unknown>>(kitchen.services.db, text, bind);

/** Something in every table of a house. */
async function fill(ines: Tablet, maren: Tablet, cast: TestKitchen['home']): Promise<void> {
  const supplierId = cast?.suppliers.get('Bram Quay Fish') ?? '';
  await must(maren, api.programs.makeToken, { body: { name: 'x', scope: 'read', days: 9, pin: PIN } });
  // nobody is called: only a server that runs for a kitchen makes the calls
  await must(maren, api.programs.addHook, {
    body: { name: 'x', url: 'http://127.0.0.1:9/told', topics: ['movement', 'used-up'] },
  });
  const [line, fish] = [await received(kitchen, ines, {}, cast), await received(kitchen, ines, { animals: 3 }, cast)];
  await must(ines, api.receive.photograph, { params: { lineId: line.id }, body: { base64: smallestPng } });
  const started = await must(ines, api.bench.start, {
    body: { lotId: fish.lotId ?? '', planId: 'round-fish-two-fillets', animals: 1, massMg: grams(900) },
  });
  const params = { breakdownId: started.id };
  await must(ines, api.bench.event, { params, body: { kind: 'pause', at } });
  const weighed = await must(ines, api.bench.weigh, { params, body: takeBody('frame', 'stock', 440) });
  await must(ines, api.bench.weigh, { params, body: takeBody('frame', 'stock', 450, weighed.id) });
  const { lots } = await must(ines, api.bench.close, { params, body: { unbalancedReason: 'the rest was eaten' } });
  const frame = lots[0]?.lotId ?? '';
  await must(ines, api.larder.count, {
    body: { placeId: null, note: null, counts: [{ lotId: frame, countedMg: grams(440), reason: 'drip' }] },
  });
  await must(ines, api.larder.keep, { params: { lotId: frame }, body: { kind: 'freeze', placeId: 'freezer' } });
  await must(ines, api.larder.keep, { params: { lotId: frame }, body: { kind: 'thaw', placeId: 'cold-room' } });
  const batch = await must(ines, api.pots.plan, {
    body: { recipeId: 'fish-fumet', lotIds: [frame], vesselId: null, onHandMg: {} },
  });
  await must(ines, api.pots.event, {
    params: { batchId: batch.id },
    body: { at, body: { kind: 'step', step: 0, skipped: false } },
  });
  const cuttingId = uuidv7();
  await must(ines, api.cutting.start, {
    body: {
      id: cuttingId,
      kind: 'portions',
      from: [{ lotId: line.lotId ?? '', massMg: grams(500) }],
      at,
      confirmed: true,
    },
  });
  await must(ines, api.cutting.event, {
    params: { cuttingId },
    body: {
      at,
      body: {
        kind: 'weigh',
        piece: 1,
        line: 'end',
        name: 'end',
        destination: 'stock',
        massMg: 10_000,
        count: 1,
        predictedMg: null,
        fromMm: null,
        toMm: null,
        replaces: null,
      },
    },
  });
  const coolingId = uuidv7();
  const setup = {
    mediumId: 'cold-room-open',
    vesselName: 'x',
    vessel: { kind: 'round', diameterMm: 260, heightMm: 230 },
    count: 1,
    litres: 5,
    airC: 3,
    setsAtC: 15,
  } as const;
  const reading = { at, centiC: 5_700, source: 'typed' } as const;
  await must(ines, api.pots.startCooling, {
    body: { id: coolingId, kind: 'cooling', lotId: null, name: 'x', setup, limitId: null, ...reading },
  });
  await must(ines, api.pots.readCooling, { params: { coolingId }, body: reading });
  await must(ines, api.house.seeCaution, { body: { cautionId: 'receiving', about: 'x' } });
  await must(maren, api.receive.order, {
    body: {
      supplierId,
      dueOn: '2026-11-26',
      note: null,
      lines: [{ species: 'hake', form: 'gutted', goods: null, count: 2, massMg: grams(5_000), minorPerKg: 1_100 }],
    },
  });
  await must(maren, api.receive.sendPrices, {
    body: {
      listId: uuidv7(),
      supplierId,
      file: 'week.csv',
      validFrom: '2026-11-24',
      last: true,
      rows: [{ line: 2, item: 'Hake', minorPerKg: 1_100, unit: 'kg' }],
    },
  });
  await must(maren, api.house.saveLimits, { body: { profileId: 'eu', changes: [], note: 'x' } });
  const { version } = await must(maren, api.house.read, {});
  await must(maren, api.house.saveSettings, { body: { version, settings: { labourMinorPerHour: 1_777 } } });
  await must(maren, api.house.checkScale, {
    body: { scale: 'bench', points: [{ loadMg: 500_000, shownMg: 500_000 }] },
  });
  const plan = planById.get('squid-cleaned');
  await must(maren, api.bench.savePlan, { body: { plan: { ...plan, id: 'squid-ours' } as never, basedOn: 0 } });
  const recipe = recipeById.get('fish-mousseline');
  await must(maren, api.pots.saveRecipe, {
    body: { recipe: { ...recipe, id: 'mousseline-ours' } as never, from: 0, retired: false, note: 'x' },
  });
  await must(maren, api.pots.savePlate, {
    body: {
      plate: {
        id: 'mousse',
        version: 1,
        title: 'x',
        components: [{ name: 'x', of: { kind: 'goods', goods: 'cream' }, count: null, grams: 5 }],
      },
      from: 0,
      retired: false,
    },
  });
  const species = { id: 'pond-carp', name: 'Pond carp', scientific: 'Cyprinus carpio', group: 'round-fish' } as const;
  const forms = [{ id: 'whole', name: 'whole', purchase: true, whole: true }];
  await must(maren, api.bench.saveSpecies, {
    body: { species: { ...species, allergen: 'fish', forms, yields: [], inspection: [] } as never },
  });
}

beforeAll(async () => {
  kitchen = await openTestKitchen();
  home = kitchen.home?.houseId ?? '';
  other = kitchen.other?.houseId ?? '';
  for (const cast of [kitchen.home, kitchen.other]) {
    const [ines, maren] = await Promise.all(
      ['Ines Calloway', 'Maren Ostle'].map((name) => kitchen.signIn(kitchen.personOf(name, cast))),
    );
    if (ines !== undefined && maren !== undefined) await fill(ines, maren, cast);
  }
});
afterAll(() => kitchen.stop());

const secrets = ['api_token', 'webhook', 'webhook_call'];
describe.each([...tablesOfAHouse, ...secrets, 'lot_balance', 'lot_genealogy', 'movement_key', 'corrected'])(
  '%s',
  (table) => {
    const own = (houseId: string) => forHouse(houseId, () => sql(`select distinct house_id as house from ${table}`));

    it('shows a house its own rows and no others, with no where at all', async () => {
      expect(await sql(`select distinct house_id as house from ${table} order by 1`)).toHaveLength(2);
      expect(await own(home)).toEqual([{ house: home }]);
      expect(await own(other)).toEqual([{ house: other }]);
    });

    it('takes no row for another house, and moves none to it', async () => {
      const { db } = kitchen.services;
      const theirs = await sql(`select to_jsonb(t) as row from ${table} t where house_id = $1 limit 1`, [other]);
      const insert = forHouse(home, () =>
        db.query(
          `insert into ${table} overriding system value select * from jsonb_populate_record(null::${table}, $1::jsonb)`,
          {
            bind: [JSON.stringify(theirs[0]?.['row'])],
          },
        ),
      );
      await expect(insert).rejects.toThrow(/row-level security/);
      // an append-only table refuses any change; of another the row is not there to be changed
      const change = forHouse(home, () =>
        db.query(`update ${table} set house_id = house_id where house_id = $1`, { bind: [other] }),
      );
      await change;
      const gone = forHouse(home, () => db.query(`delete from ${table} where house_id = $1`, { bind: [other] }));
      await gone;
      const after = await sql(`select count(*)::int as n from ${table} where to_jsonb(${table}) = $1::jsonb`, [
        JSON.stringify(theirs[0]?.['row']),
      ]);
      expect(after).toEqual([{ n: 1 }]);
    });
  },
);

it('every table with a house in it is kept apart, and the role that works for a house owns nothing and passes nothing by', async () => {
  expect(
    await sql(
      `select c.relname from pg_class c join pg_namespace n on n.oid = c.relnamespace and n.nspname = 'public'
       join pg_attribute a on a.attrelid = c.oid and a.attname = 'house_id' where c.relkind = 'r' and not c.relrowsecurity`,
    ),
  ).toEqual([]);
  expect(
    await sql(
      `select rolsuper, rolbypassrls, rolcanlogin, (select count(*)::int from pg_class where relowner = r.oid) as owns from pg_roles r where rolname = $1`,
      [HOUSE_ROLE],
    ),
  ).toEqual([{ rolsuper: false, rolbypassrls: false, rolcanlogin: false, owns: 0 }]);
  const houses = () => sql('select id from house');
  expect(await forHouse(home, houses)).toEqual([{ id: home }]);
  expect(await houses()).toHaveLength(2);
});

it('a line that has worked for one house works for the next, for none, and again after it was rolled back', async () => {
  const { db } = kitchen.services;
  const actor = async () =>
    (await sql(`select current_user::text as role, current_setting('zabrik.house', true) as house`))[0];
  const seen = await Promise.all(
    Array.from({ length: 60 }, async (_, i) => {
      const house = [home, other, undefined][i % 3];
      return [house, house === undefined ? await actor() : await forHouse(house, actor)] as const;
    }),
  );
  for (const [house, { house: bound, role } = {}] of seen) {
    expect(bound ?? '').toBe(house ?? '');
    expect(role === HOUSE_ROLE).toBe(house !== undefined);
  }
  await forHouse(home, () =>
    db
      .transaction(async (transaction) => {
        await db.query('select 1 / 0', { transaction });
      })
      .catch(() => undefined),
  );
  expect(await forHouse(other, actor)).toEqual({ role: HOUSE_ROLE, house: other });
  expect(() => forHouse("' or true --", actor)).toThrow('no house’s id');
});

it('an id that another house has taken is refused, and says nothing of it', async () => {
  const ines = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
  const [theirs] = await sql('select id from cutting where house_id = $1', [other]);
  const { closed } = await closedHake(kitchen, ines);
  const from = [{ lotId: closed.lots[0]?.lotId ?? '', massMg: 1_000 }];
  expect(
    await ines.ask(api.cutting.start, {
      body: { id: String(theirs?.['id']), kind: 'portions', from, at, confirmed: true },
    }),
  ).toMatchObject({
    status: 409,
    body: { code: 'key_reused' },
  });
  const [command] = await sql('select id from command where house_id = $1 limit 1', [other]);
  const { status } = await ines.ask(api.receive.accept, { body: deliveryBody(kitchen) }, String(command?.['id']));
  expect([404, 409]).toContain(status);
  await startHake(kitchen, ines);
});
