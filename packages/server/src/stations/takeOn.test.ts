/** What lay there on the first day: taken on without a supplier, cut, costed, traced, taken back. */
import { type Ask, api } from '@zabrik/contract';
import { grams } from '@zabrik/core';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { openTestKitchen, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { hakePieces, must, weighedAndClosed } from '../testing/work.ts';

let kitchen: TestKitchen;
let ines: Tablet;
let maren: Tablet;
beforeAll(async () => {
  kitchen = await openTestKitchen();
  ines = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
  maren = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
});
afterAll(() => kitchen.stop());

type Body = Ask<typeof api.larder.takeOn>['body'];
const hake: Body = {
  what: { kind: 'bought', species: 'hake', form: 'gutted' },
  massMg: grams(2_860),
  pieces: 1,
  useBy: '2026-12-03',
  placeId: 'cold-room',
  costMinor: 3_146,
  note: null,
};
const takeOn = (o: Partial<Body> = {}) => ines.ask(api.larder.takeOn, { body: { ...hake, ...o } });
const taken = (o: Partial<Body> = {}) => must(ines, api.larder.takeOn, { body: { ...hake, ...o } });
const read = (lotId: string) => must(ines, api.larder.read, { params: { lotId } });

it('a whole fish goes on the bench, is closed and costed from what it was said to have cost', async () => {
  const { lotId, code, name } = await taken();
  expect(name).toBe('Hake, gutted, head on');
  expect(await read(lotId)).toMatchObject({
    code,
    supplierName: null,
    massMg: grams(2_860),
    costMinor: 3_146,
    useBy: '2026-12-03',
    allergens: ['fish/hake'],
  });
  const { lots } = await must(ines, api.larder.list, { query: { cuttable: 'yes', limit: 200 } });
  expect(lots.map((l) => l.id)).toContain(lotId);
  const breakdown = await must(ines, api.bench.start, {
    body: { lotId, planId: 'round-fish-two-fillets', animals: 1, massMg: null },
  });
  const closed = await weighedAndClosed(ines, breakdown.id, hakePieces);
  expect(closed.lots.length).toBeGreaterThan(3);
  const sheet = await must(maren, api.ledger.sheet, { params: { breakdownId: breakdown.id } });
  expect(sheet.purchase).toMatchObject({ paidMinor: 3_146 });
  const trace = await must(maren, api.larder.trace, { params: { lotId: closed.lots[0]?.lotId ?? '' } });
  expect(JSON.stringify(trace)).toContain(code);
});

it('butter from the shelf, a tub of fillets, a frozen loin: each with its place and what is in it', async () => {
  const butter = await taken({
    what: { kind: 'goods', goods: 'butter' },
    massMg: grams(500),
    placeId: 'fridge',
    costMinor: null,
  });
  expect(await read(butter.lotId)).toMatchObject({
    kind: 'goods',
    costMinor: 0,
    allergens: ['milk'],
    supplierName: null,
  });
  const fillets = await taken({
    what: { kind: 'piece', species: 'hake', category: 'white-fish-portion', name: 'fillet', ready: false },
    massMg: grams(640),
    pieces: 4,
    note: 'from before the records',
  });
  expect(await read(fillets.lotId)).toMatchObject({
    kind: 'piece',
    name: 'Hake fillet',
    category: 'white-fish-portion',
    pieces: 4,
    ready: false,
    allergens: ['fish/hake'],
    note: 'from before the records',
  });
  const frozen = await taken({ frozen: true, placeId: 'freezer' });
  expect(await read(frozen.lotId)).toMatchObject({ state: 'frozen', placeId: 'freezer' });
});

it('asks for a date, and before raw stands among what is ready to eat; refuses what nobody knows', async () => {
  expect((await takeOn({ useBy: null })).body).toMatchObject({ code: 'invalid', field: 'useBy' });
  // on the shelf it may have none
  await taken({ what: { kind: 'goods', goods: 'flour' }, useBy: null, placeId: 'dry-store' });
  expect((await takeOn({ placeId: 'fridge' })).body).toMatchObject({ code: 'needs_confirmation' });
  expect((await takeOn({ placeId: 'fridge', confirmed: true })).status).toBe(200);
  expect((await takeOn({ placeId: 'cellar' })).body).toMatchObject({ field: 'placeId' });
  expect((await takeOn({ what: { kind: 'bought', species: 'hake', form: 'shaved' } })).status).toBe(400);
  expect((await takeOn({ what: { kind: 'goods', goods: 'gold' } })).status).toBe(400);
  expect(
    (await takeOn({ what: { kind: 'piece', species: 'hake', category: 'gold', name: 'gold', ready: false } })).body,
  ).toMatchObject({ field: 'what.category' });
});

it('wild game is held until its record is there, as at the door', async () => {
  const { lotId } = await taken({ what: { kind: 'bought', species: 'mallard', form: 'whole' }, massMg: grams(1_100) });
  expect((await read(lotId)).held).toContain('who shot it');
});

it('is taken back by a chef, once, and then nothing of it is there', async () => {
  const { lotId } = await taken();
  const [entry] = (await read(lotId)).entries;
  await must(maren, api.ledger.reverse, {
    params: { movementId: entry?.movementId ?? '' },
    body: { reason: 'counted twice' },
  });
  expect((await read(lotId)).massMg).toBe(0);
});
