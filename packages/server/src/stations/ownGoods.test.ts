/** What a house buys that the catalogue does not know. In a file of its own: they are of the kitchen that was opened last. */
import { api } from '@zabrik/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openTestKitchen, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { must } from '../testing/work.ts';

let kitchen: TestKitchen;
let maren: Tablet;
beforeAll(async () => {
  kitchen = await openTestKitchen();
  maren = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
});
afterAll(() => kitchen.stop());

describe('goods of the house’s own', () => {
  const port = {
    id: 'own-port',
    name: 'Port',
    group: 'dry',
    lifeDays: 900,
    place: 'ambient',
    allergens: ['sulphites'],
    ready: false,
  } as const;
  const save = async (goods: readonly (typeof port)[]) => {
    const { version } = await must(maren, api.house.read, {});
    return maren.ask(api.house.saveSettings, { body: { version, settings: { goods: [...goods] } } });
  };
  const known = async (): Promise<boolean> =>
    (await must(maren, api.house.catalogue, {})).goods.some((g) => g.id === 'own-port');

  it('are taken in like any others, with their allergens and their days, by this house alone', async () => {
    expect((await save([port])).status).toBe(200);
    await expect.poll(known, { timeout: 60_000 }).toBe(true);
    const body = {
      species: null,
      form: null,
      goods: 'own-port',
      animals: 1,
      supplierId: kitchen.home?.suppliers.get('Bram Quay Fish') ?? '',
      origin: null,
      grossMg: 750_000,
      tareMg: 0,
      invoiceMg: 750_000,
      paidMinor: 1_450,
      temperatureCentiC: null,
      landedOn: null,
      useBy: null,
      note: null,
    };
    const line = await must(maren, api.receive.accept, { body: body as never });
    const lot = await must(maren, api.larder.read, { params: { lotId: line.lotId ?? '' } });
    expect(lot).toMatchObject({ name: 'Port', allergens: ['sulphites'], massMg: 750_000 });
    const theirs = await kitchen.signIn(kitchen.personOf('Maren Ostle', kitchen.other));
    expect((await must(theirs, api.house.catalogue, {})).goods.some((g) => g.id === 'own-port')).toBe(false);
    const stranger = { ...body, supplierId: kitchen.other?.suppliers.get('Bram Quay Fish') ?? '' };
    expect((await theirs.ask(api.receive.accept, { body: stranger as never })).body).toMatchObject({ field: 'goods' });
    // while some of it lies there it stays
    expect((await save([])).body).toMatchObject({ code: 'invalid', field: 'settings.goods' });
    await must(maren, api.larder.takeOut, {
      params: { lotId: line.lotId ?? '' },
      body: { massMg: 750_000, to: 'served', reason: null, note: null },
    });
    expect((await save([])).status).toBe(200);
    await expect.poll(known, { timeout: 60_000 }).toBe(false);
  });

  it('never take the id of one of the catalogue', async () => {
    expect((await save([{ ...port, id: 'onion' as 'own-port' }])).status).toBe(400);
  });
});
