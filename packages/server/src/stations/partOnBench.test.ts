/** A lot that is part on a bench: what is left of it, in grams and in animals, is what everybody is offered and nobody gets more. */
import { api } from '@zabrik/contract';
import { grams } from '@zabrik/core';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { openTestKitchen, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { closed, hakePieces, must, received, takeBody } from '../testing/work.ts';

let kitchen: TestKitchen;
let ines: Tablet;
let maren: Tablet;

beforeAll(async () => {
  kitchen = await openTestKitchen();
  ines = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
  maren = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
});
afterAll(() => kitchen.close());

/** Two hake of 5,740 g, 2,860 and 2,880. */
const twoHake = () => received(kitchen, ines, { animals: 2, grossMg: grams(6_152), invoiceMg: grams(5_740) });
const planId = 'round-fish-two-fillets';
const first = (lotId: string) => ({ lotId, planId, animals: 1, massMg: grams(2_860) });
const rest = (lotId: string, animals: number) => ({ lotId, planId, animals, massMg: null });
const toCut = async (lotId: string) =>
  (await must(ines, api.larder.list, { query: { cuttable: 'yes' } })).lots.find((l) => l.id === lotId);
const seen = (lotId: string) => must(ines, api.larder.read, { params: { lotId } });

it('of two with one on a bench one is to be cut, and as two it is not started', async () => {
  const { lotId, code } = await twoHake();
  expect(await toCut(lotId)).toMatchObject({ massMg: grams(5_740), freeMg: grams(5_740), pieces: 2, freePieces: 2 });
  await must(ines, api.bench.start, { body: first(lotId) });
  expect(await toCut(lotId)).toMatchObject({ massMg: grams(5_740), freeMg: grams(2_880), pieces: 2, freePieces: 1 });
  const refused = await maren.ask(api.bench.start, { body: rest(lotId, 2) });
  expect(refused).toMatchObject({ status: 409, body: { code: 'not_enough' } });
  expect((refused.body as { detail?: string }).detail).toBe(
    `1 of lot ${code} can be cut, not 2. Are there more, count the lot in the larder first.`,
  );
  const second = await must(maren, api.bench.start, { body: rest(lotId, 1) });
  expect(second).toMatchObject({ animals: 1, startMg: grams(2_880) });
  // all of it is on the bench: nothing of it stands to be cut, and it lies in the larder all the same
  expect(await toCut(lotId)).toBeUndefined();
  expect(await seen(lotId)).toMatchObject({ massMg: grams(5_740), freeMg: 0, pieces: 2, freePieces: 0 });
  // put back, it is there again
  await must(maren, api.bench.cancel, { params: { breakdownId: second.id }, body: {} });
  expect(await toCut(lotId)).toMatchObject({ freeMg: grams(2_880), freePieces: 1 });
});

it('more animals than were ever there are refused with nothing on a bench too', async () => {
  const { lotId } = await twoHake();
  expect(await ines.ask(api.bench.start, { body: rest(lotId, 3) })).toMatchObject({
    status: 409,
    body: { code: 'not_enough' },
  });
});

it('a small one and a big one: the small one closed leaves one, and taken back two are there', async () => {
  // three of 6,000 g, of which two small ones weigh 1,400 together: by mass they would count as one
  const { lotId } = await received(kitchen, ines, { animals: 3, grossMg: grams(6_412), invoiceMg: grams(6_000) });
  const started = await must(ines, api.bench.start, {
    body: { lotId, planId, animals: 2, massMg: grams(1_430), way: 'pooled' },
  });
  expect(await seen(lotId)).toMatchObject({ freeMg: grams(4_570), freePieces: 1 });
  for (const [piece, tray, g] of hakePieces)
    await must(ines, api.bench.weigh, {
      params: { breakdownId: started.id },
      body: { ...takeBody(piece, tray, Math.round(g / 2)), count: piece === 'fillet' ? 2 : 2 },
    });
  const { movementId } = await closed(ines, started.id);
  expect(await seen(lotId)).toMatchObject({ massMg: grams(4_570), pieces: 1, freePieces: 1 });
  await must(maren, api.ledger.reverse, { params: { movementId }, body: { reason: 'wrong fish' } });
  expect(await seen(lotId)).toMatchObject({ massMg: grams(6_000), pieces: 3 });
});

it('pieces that are on a bench are neither taken out nor parted', async () => {
  const { lotId } = await received(kitchen, ines, { animals: 3, grossMg: grams(8_992), invoiceMg: grams(8_580) });
  await must(ines, api.bench.start, { body: { ...first(lotId), animals: 2, massMg: grams(5_720) } });
  const out = (pieces: number) =>
    maren.ask(api.larder.takeOut, {
      params: { lotId },
      body: { massMg: grams(2_860), pieces, to: 'staff', reason: null, note: null },
    });
  expect(await out(2)).toMatchObject({ status: 409, body: { code: 'not_enough' } });
  expect(
    await maren.ask(api.larder.split, { params: { lotId }, body: { massMg: grams(2_000), pieces: 2 } }),
  ).toMatchObject({ status: 409, body: { code: 'not_enough' } });
  expect(await out(1)).toMatchObject({ status: 200, body: { leftMg: grams(5_720), leftPieces: 2 } });
});
