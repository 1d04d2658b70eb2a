import { api } from '@zabrik/contract';
import { grams } from '@zabrik/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openTestKitchen, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { closedHake, hakePieces, must, startHake, weighedAndClosed } from '../testing/work.ts';

let kitchen: TestKitchen;
let chef: Tablet;
let butcher: Tablet;
beforeAll(async () => {
  kitchen = await openTestKitchen();
  chef = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
  butcher = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
});
afterAll(() => kitchen.stop());

const hold = (tablet: Tablet, lotId: string, reason: string | null) =>
  must(tablet, api.larder.keep, { params: { lotId }, body: { kind: 'hold', reason } });
const read = (lotId: string) => must(chef, api.larder.read, { params: { lotId } });
const served = (tablet: Tablet, lotId: string, massMg: number) =>
  tablet.ask(api.larder.takeOut, {
    params: { lotId },
    body: { massMg, pieces: null, to: 'served', reason: null, note: null },
  });

describe('a hold', () => {
  it('is on the pieces of a lot that was held while it lay on the bench', async () => {
    const { delivery, breakdown } = await startHake(kitchen, butcher);
    await hold(butcher, delivery.lotId, 'recall of the boat');
    const { lots } = await weighedAndClosed(butcher, breakdown.id, hakePieces);
    const kept = lots;
    expect(kept.length).toBeGreaterThan(3);
    for (const lot of kept) expect((await read(lot.lotId)).held).toBe(`From ${delivery.code}: recall of the boat`);
    const fillet = kept[0];
    expect(await served(butcher, fillet?.lotId ?? '', grams(100))).toMatchObject({
      status: 409,
      body: { code: 'on_hold' },
    });
  });

  it('reaches what was made of a lot that is cut up, says how much, and lets it go again with it', async () => {
    const { delivery, closed } = await closedHake(kitchen, butcher);
    const kept = closed.lots.map((l) => l.lotId);
    expect((await read(delivery.lotId)).massMg).toBe(0);
    const { says, eventId } = await hold(butcher, delivery.lotId, 'papers');
    expect(says).toBe(`held back, and ${kept.length} lots made of it`);
    for (const id of kept) expect((await read(id)).held).toBe(`From ${delivery.code}: papers`);
    // a butcher does not undo what holds, and a chef's undo frees them all
    expect(await butcher.ask(api.larder.undoKeep, { params: { eventId } })).toMatchObject({
      status: 403,
      body: { code: 'not_your_role' },
    });
    await must(chef, api.larder.undoKeep, { params: { eventId } });
    for (const id of kept) expect((await read(id)).held).toBeNull();
  });

  it.each(['', 'x'])(
    'reaches them with the longest reason, cut between characters and not within one: %j first',
    async (first) => {
      const { delivery, closed } = await closedHake(kitchen, butcher);
      await hold(butcher, delivery.lotId, `${first}${'\u{1f41f}'.repeat(149)}`);
      const held = (await read(closed.lots[0]?.lotId ?? '')).held ?? '';
      expect(held.startsWith(`From ${delivery.code}: ${first}\u{1f41f}`)).toBe(true);
      expect(/\p{Surrogate}/u.test(held)).toBe(false);
    },
  );

  it('waits for what is being made of it just now', async () => {
    const { delivery, breakdown } = await startHake(kitchen, butcher);
    const [{ lots }] = await Promise.all([
      weighedAndClosed(butcher, breakdown.id, hakePieces),
      hold(chef, delivery.lotId, 'recall while it is cut'),
    ]);
    for (const lot of lots) expect((await read(lot.lotId)).held).toContain('recall while it is cut');
  });

  it('stays on what has another held ancestor, and on what was held for its own sake', async () => {
    const first = await closedHake(kitchen, butcher);
    const second = await closedHake(kitchen, butcher);
    const frame = async (of: typeof first) => {
      const lots = await Promise.all(of.closed.lots.map((l) => read(l.lotId)));
      return lots.find((l) => l.category === 'white-fish-frame')?.id ?? '';
    };
    const tub: { readonly lotId: string } = await must(butcher, api.larder.startTub, {
      body: {
        name: 'fumet',
        recipeId: 'fish-fumet',
        placeId: 'cold-room',
        from: [
          { lotId: await frame(first), massMg: null },
          { lotId: await frame(second), massMg: null },
        ],
      },
    });
    const [own = ''] = first.closed.lots.map((l) => l.lotId);
    await hold(butcher, own, 'dropped');
    await hold(butcher, first.delivery.lotId, 'one');
    await hold(butcher, second.delivery.lotId, 'two');
    expect((await read(tub.lotId)).held).toBe(`From ${first.delivery.code}: one`);
    await hold(chef, first.delivery.lotId, null);
    expect((await read(tub.lotId)).held).toBe(`From ${second.delivery.code}: two`);
    expect((await read(own)).held).toBe('dropped');
    await hold(chef, second.delivery.lotId, null);
    expect((await read(tub.lotId)).held).toBeNull();
    expect((await read(own)).held).toBe('dropped');
  });

  it('is not counted away', async () => {
    const { closed } = await closedHake(kitchen, butcher);
    const [lot] = closed.lots;
    if (lot === undefined) throw new Error('nothing was made');
    await hold(butcher, lot.lotId, 'recall');
    const count = (countedMg: number) =>
      butcher.ask(api.larder.count, {
        body: {
          placeId: null,
          note: null,
          counts: [{ lotId: lot.lotId, countedMg, countedPieces: null, reason: 'not found' }],
        },
      });
    expect(await count(0)).toMatchObject({ status: 409, body: { code: 'on_hold' } });
    expect((await read(lot.lotId)).massMg).toBeGreaterThan(0);
  });
});

it('a butcher does not undo a chef’s shorter date', async () => {
  const { closed } = await closedHake(kitchen, butcher);
  const [lot] = closed.lots;
  if (lot === undefined) throw new Error('nothing was made');
  const { useBy } = await read(lot.lotId);
  const shorter = await must(chef, api.larder.keep, {
    params: { lotId: lot.lotId },
    body: { kind: 'date', useBy: '2026-11-24', reason: 'smells', confirmed: true },
  });
  expect(await butcher.ask(api.larder.undoKeep, { params: { eventId: shorter.eventId } })).toMatchObject({
    status: 403,
    body: { code: 'not_your_role' },
  });
  expect((await read(lot.lotId)).useBy).toBe('2026-11-24');
  await must(chef, api.larder.undoKeep, { params: { eventId: shorter.eventId } });
  expect((await read(lot.lotId)).useBy).toBe(useBy);
});
