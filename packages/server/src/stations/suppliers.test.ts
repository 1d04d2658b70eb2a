/** What is agreed with suppliers, and the pantry's prices read from their lists. */
import { api, type SupplierTerms } from '@zabrik/contract';
import { v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { openTestKitchen, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { hakeLots, must } from '../testing/work.ts';

let kitchen: TestKitchen;
let ines: Tablet;
let maren: Tablet;

beforeAll(async () => {
  kitchen = await openTestKitchen();
  ines = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
  maren = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
});
afterAll(() => kitchen.close());

const named = async (name: string, tablet = ines) => {
  const { suppliers } = await must(tablet, api.receive.suppliers, {});
  const found = suppliers.find((s) => s.name === name);
  if (found === undefined) throw new Error(`no ${name}`);
  return found;
};
const terms: SupplierTerms = {
  contact: 'Orla',
  phone: '01632 960 117',
  email: 'orders@quay.example',
  account: '4471',
  orderDays: [1, 3, 5],
  cutOff: '16:00',
  deliveryDays: [2, 3, 4, 5, 6],
  leadDays: 1,
  minimumMinor: 6_000,
  carriageMinor: 800,
  carriageFreeMinor: 12_000,
  items: [{ species: 'hake', form: 'gutted', goods: null, theirCode: 'HK2', theirName: 'Hake G+H', packMg: 5_000_000 }],
  note: 'rings back',
};

it('terms are kept whole, on their version, and written down among what was changed', async () => {
  const { id, name, version, terms: before } = await named('Bram Quay Fish');
  expect(before).toMatchObject({ contact: null, orderDays: [], leadDays: 1, items: [] });
  const save = (tablet: Tablet, on: number) =>
    tablet.ask(api.receive.saveSupplier, {
      params: { supplierId: id },
      body: { version: on, name, retired: false, terms },
    });
  expect((await save(ines, version)).status).toBe(403);
  expect(await save(maren, version)).toMatchObject({ status: 200, body: { version: version + 1, terms } });
  expect(await named(name)).toEqual({ id, name, version: version + 1, retired: false, terms });
  // two chefs at once: the second is told
  expect(await save(maren, version)).toMatchObject({ status: 409, body: { code: 'changed_since' } });
  const { changes } = await must(maren, api.house.changes, { query: {} });
  expect(changes[0]).toMatchObject({ what: 'supplier', about: name, after: { contact: 'Orla', items: 1 } });
});

it('another supplier’s name is refused, and so is a thing that is two things or none', async () => {
  const { id, name, version } = await named('Bram Quay Fish');
  const { suppliers } = await must(ines, api.receive.suppliers, {});
  const other = suppliers.find((s) => s.id !== id);
  const save = (body: { name?: string; items?: SupplierTerms['items'] }) =>
    maren.ask(api.receive.saveSupplier, {
      params: { supplierId: id },
      body: { version, name: body.name ?? name, retired: false, terms: { ...terms, items: body.items ?? [] } },
    });
  expect(await save({ name: other?.name ?? '' })).toMatchObject({ status: 400, body: { field: 'name' } });
  const nothing = { species: null, form: null, goods: null, theirCode: null, theirName: null, packMg: null };
  for (const odd of [
    nothing,
    { ...nothing, species: 'hake' },
    { ...nothing, species: 'hake', form: 'shelled' },
    { ...nothing, goods: 'gold' },
    { ...nothing, species: 'hake', form: 'gutted', goods: 'onion' },
  ])
    expect(await save({ items: [odd] })).toMatchObject({ status: 400, body: { field: 'terms.items.0' } });
});

it('one that is bought from no more stands last, keeps its name in the books, and can be bought from again', async () => {
  const { id } = await must(maren, api.receive.addSupplier, { body: { name: 'Aller Farm' } });
  const save = async (retired: boolean) => {
    const { version, terms: now, name } = await named('Aller Farm');
    return must(maren, api.receive.saveSupplier, {
      params: { supplierId: id },
      body: { version, name, retired, terms: now },
    });
  };
  expect((await save(true)).retired).toBe(true);
  expect((await must(ines, api.receive.suppliers, {})).suppliers.at(-1)?.id).toBe(id);
  expect((await save(false)).retired).toBe(false);
});

it('another house sees none of it, and changes nothing', async () => {
  const { id, name } = await named('Bram Quay Fish');
  const chef = await kitchen.signIn(kitchen.personOf('Maren Ostle', kitchen.other));
  expect((await named(name, chef)).terms.contact).toBeNull();
  expect(
    await chef.ask(api.receive.saveSupplier, {
      params: { supplierId: id },
      body: { version: 2, name: 'Taken', retired: true, terms },
    }),
  ).toMatchObject({ status: 404 });
});

const list = async (
  supplierId: string,
  validFrom: string,
  rows: readonly (readonly [item: string, minorPerKg: number])[],
) => {
  const listId = uuidv7();
  await must(maren, api.receive.sendPrices, {
    body: {
      listId,
      supplierId,
      file: 'list.csv',
      validFrom,
      last: true,
      rows: rows.map(([item, minorPerKg], i) => ({ line: i + 2, item, minorPerKg, unit: 'kg' })),
    },
  });
  return listId;
};

it('the price of an ingredient is read from the list it is matched with, from the day that counts; without a list as typed; with neither it is unknown', async () => {
  const { id } = await named('Bram Quay Fish');
  kitchen.setClock(new Date('2026-12-01T09:00:00Z'));
  const { version } = await must(maren, api.house.read, {});
  await must(maren, api.house.saveSettings, {
    body: {
      version,
      settings: {
        pantryMinorPerKg: { butter: 700, salt: 60 },
        pantryFrom: {
          butter: { supplierId: id, item: 'Butter, unsalted' },
          brandy: { supplierId: id, item: 'Brandy 70 cl' },
        },
      },
    },
  });
  const price = async (ingredient: string) =>
    (await must(ines, api.house.pantry, {})).prices.find((p) => p.id === ingredient);
  // no list yet: what was typed, or nothing
  expect(await price('butter')).toEqual({ id: 'butter', minorPerKg: 700, list: null });
  expect(await price('brandy')).toBeUndefined();
  await list(id, '2026-11-01', [
    ['BUTTER, unsalted', 812],
    ['Brandy 70 cl', 2_400],
  ]);
  expect(await price('butter')).toMatchObject({
    minorPerKg: 812,
    list: { supplierName: 'Bram Quay Fish', validFrom: '2026-11-01' },
  });
  expect(await price('brandy')).toMatchObject({ minorPerKg: 2_400 });
  expect(await price('salt')).toEqual({ id: 'salt', minorPerKg: 60, list: null });
  // a list that counts from tomorrow does not count today; one taken back never did
  await list(id, '2026-12-02', [['Butter, unsalted', 900]]);
  const wrong = await list(id, '2026-11-20', [['Butter, unsalted', 1]]);
  expect(await price('butter')).toMatchObject({ minorPerKg: 1 });
  await must(maren, api.receive.undoPrices, { params: { listId: wrong } });
  expect(await price('butter')).toMatchObject({ minorPerKg: 812 });
  kitchen.setClock(new Date('2026-12-02T09:00:00Z'));
  expect(await price('butter')).toMatchObject({ minorPerKg: 900 });
  kitchen.setClock(undefined);
  // another supplier's line of the same words is another's
  const aller = await must(maren, api.receive.addSupplier, { body: { name: 'Aller Dairy' } });
  await list(aller.id, '2026-12-01', [['Butter, unsalted', 5]]);
  expect(await price('butter')).not.toMatchObject({ minorPerKg: 5 });
});

it('what a batch took at no price is named, and what is known to cost nothing is not', async () => {
  const { frame } = await hakeLots(kitchen, ines);
  const { version } = await must(maren, api.house.read, {});
  await must(maren, api.house.saveSettings, {
    body: { version, settings: { pantryMinorPerKg: { water: 0, 'white-wine': 420 }, pantryFrom: {} } },
  });
  const planned = await must(ines, api.pots.plan, {
    body: { recipeId: 'fish-fumet', lotIds: [frame], vesselId: null, onHandMg: {} },
  });
  expect(planned.unpriced).toEqual([]);
  const done = await must(ines, api.pots.finish, {
    params: { batchId: planned.id },
    body: { outputMg: 300_000, spentMg: 0, note: null },
  });
  const { recipe } = (await must(ines, api.pots.recipes, {})).recipes.find((r) => r.recipe.id === 'fish-fumet') ?? {};
  const taken = planned.ingredients.filter((i) => i.massMg > i.fromLotsMg).map((i) => i.id);
  const nameOf = (id: string): string => recipe?.ingredients.find((i) => i.id === id)?.name ?? id;
  expect(done.unpriced.sort()).toEqual(
    taken
      .filter((id) => !['water', 'white-wine'].includes(id))
      .map(nameOf)
      .sort(),
  );
  expect(done.unpriced.length).toBeGreaterThan(0);
  // put back, it is a plan again and nothing is said of what it will take
  await must(maren, api.ledger.reverse, {
    params: { movementId: done.movementId ?? '' },
    body: { reason: 'too thin' },
  });
  const { batches } = await must(ines, api.pots.list, { query: {} });
  expect(batches.find((b) => b.id === planned.id)?.unpriced).toEqual([]);
});
