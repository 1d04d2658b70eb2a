/** Where a rule of the ledger has its edge: each of these held by one comparison that a slip of the pen would turn. */
import { planById } from '@zabrik/catalogue';
import { api } from '@zabrik/contract';
import { grams } from '@zabrik/core';
import { v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { connect } from '../db/connect.ts';
import { migrate } from '../db/migrations.ts';
import { select } from '../db/select.ts';
import { readHouseFile, writeHouseFile } from '../house/houseFile.ts';
import { makeDatabase, openTestKitchen, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { closedHake, hakePieces, must, received, weighedAndClosed } from '../testing/work.ts';

let kitchen: TestKitchen;
let ines: Tablet;
let maren: Tablet;
beforeAll(async () => {
  kitchen = await openTestKitchen();
  ines = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
  maren = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
});
afterAll(() => kitchen.stop());

const day = (inDays: number): string => new Date(Date.now() + inDays * 86_400_000).toISOString().slice(0, 10);

it('no piece outlives the fish it came from', async () => {
  const delivery = await received(kitchen, ines, { useBy: day(1) });
  const breakdown = await must(ines, api.bench.start, {
    body: { lotId: delivery.lotId, planId: 'round-fish-two-fillets', animals: 1, massMg: null },
  });
  const { lots } = await weighedAndClosed(ines, breakdown.id, hakePieces);
  expect(lots.length).toBeGreaterThan(3);
  for (const { lotId } of lots) {
    const lot = await must(ines, api.larder.read, { params: { lotId } });
    expect(lot.useBy, lot.name).not.toBeNull();
    expect((lot.useBy ?? '') <= day(1), `${lot.name}: ${lot.useBy}`).toBe(true);
  }
});

it('what waits for its next stage is not put together with another in the larder', async () => {
  const [start] = planById.get('crab-picked')?.starts ?? [];
  const waiting = async () => {
    const delivery = await received(kitchen, ines, {
      species: start?.species ?? '',
      form: start?.forms[0] ?? '',
      grossMg: grams(1_412),
      invoiceMg: grams(1_000),
      landedOn: null,
    });
    const breakdown = await must(ines, api.bench.start, {
      body: { lotId: delivery.lotId, planId: 'crab-picked', animals: 1, massMg: null },
    });
    const [stage] = breakdown.plan.stages;
    const weighed = (stage?.pieces ?? []).map(
      (p) => [p.id, p.destination, Math.round((breakdown.startMg * p.share.mean) / 1_000)] as const,
    );
    const { lots } = await weighedAndClosed(
      ines,
      breakdown.id,
      weighed.filter(([, , g]) => g > 0),
    );
    return lots;
  };
  const [a, b] = [await waiting(), await waiting()];
  const rows = await select<{ id: string; name: string }>(
    kitchen.services.db,
    'select id, name from lot where next_stage is not null and id = any($1::uuid[]) order by name, id',
    [[...a, ...b].map((l) => l.lotId)],
  );
  const pair = rows.filter((r) => r.name === rows[0]?.name).map((r) => r.id);
  expect(pair).toHaveLength(2);
  expect(await ines.ask(api.larder.merge, { body: { lotIds: pair } })).toMatchObject({ status: 409 });
});

it('a stock-take does not count away what lies on a bench: to the gram', async () => {
  const { lotId } = await received(kitchen, ines, { animals: 3 });
  await must(ines, api.bench.start, {
    body: { lotId, planId: 'round-fish-two-fillets', animals: 1, massMg: grams(1_000) },
  });
  const { placeId } = await must(ines, api.larder.read, { params: { lotId } });
  const counted = (countedG: number, seenG: number | null = null) =>
    ines.ask(api.larder.count, {
      body: {
        placeId,
        note: null,
        counts: [
          { lotId, countedMg: grams(countedG), seenMg: seenG === null ? null : grams(seenG), reason: 'dropped' },
        ],
      },
    });
  expect(await counted(999)).toMatchObject({ status: 409, body: { code: 'not_enough' } });
  // counted before 500 g left it: what is missing of what is there now
  const massG = (await must(ines, api.larder.read, { params: { lotId } })).massMg / 1_000;
  expect(await counted(1_500, massG + 501)).toMatchObject({ status: 409, body: { code: 'not_enough' } });
  expect((await counted(1_500, massG + 500)).status).toBe(200);
  expect((await counted(1_000)).status).toBe(200);
});

it('skimmed fat is worth no more than the batch it came off, whatever the house says of fat', async () => {
  await kitchen.services.db.query(
    `update house set settings = jsonb_set(settings, '{creditMinorPerKg,rendered-fat}', '1000000') where id = $1`,
    { bind: [kitchen.home?.houseId] },
  );
  const { closed } = await closedHake(kitchen, ines);
  const frame = closed.lots.find((l) => l.name.includes('rame'))?.lotId ?? '';
  const batch = await must(ines, api.pots.plan, {
    body: { recipeId: 'fish-fumet', lotIds: [frame], vesselId: null, onHandMg: {} },
  });
  await must(ines, api.pots.finish, {
    params: { batchId: batch.id },
    body: { outputMg: grams(300), spentMg: grams(100), fatMg: grams(50), note: null },
  });
  const made = await select<{ category: string | null; cost: number }>(
    kitchen.services.db,
    `select l.category, p.cost_minor as cost from posting p join lot l on l.id = p.lot_id join batch r on r.movement_id = p.movement_id where r.id = $1 and p.mass_mg > 0`,
    [batch.id],
  );
  expect(made.length).toBe(2);
  for (const { cost } of made) expect(cost).toBeGreaterThanOrEqual(0);
});

it('a price counts from its day on, and not a day before', async () => {
  const supplierId = kitchen.home?.suppliers.get('Bram Quay Fish') ?? '';
  const send = (validFrom: string, minorPerKg: number) =>
    must(maren, api.receive.sendPrices, {
      body: {
        listId: uuidv7(),
        supplierId,
        file: 'week.csv',
        validFrom,
        last: true,
        rows: [{ line: 2, item: 'Ling 3-4', minorPerKg, unit: 'kg' }],
      },
    });
  await send(day(-1), 700);
  await send(day(1), 900);
  const price = async () => (await must(ines, api.receive.prices, { query: { search: 'Ling 3-4' } })).prices[0];
  expect((await price())?.minorPerKg).toBe(700);
  await send(day(0), 800);
  expect((await price())?.minorPerKg).toBe(800);
});

it('a house file with one row of another house is refused, and nothing is read in', async () => {
  let text = '';
  for await (const part of writeHouseFile(kitchen.services.db, kitchen.home?.houseId ?? '', new Date())) text += part;
  const file = JSON.parse(text) as { tables: { supplier: { house_id: string }[] } };
  const [first] = file.tables.supplier;
  if (first === undefined) throw new Error('no supplier');
  first.house_id = uuidv7();
  const db = connect(await makeDatabase());
  await migrate(db);
  await expect(readHouseFile(db, JSON.stringify(file), '9753')).rejects.toThrow('belongs to another house');
  expect(await select(db, 'select id from house', [])).toEqual([]);
  await db.close();
});
