import { allRecipes } from '@zabrik/catalogue';
import { type Ask, api } from '@zabrik/contract';
import { grams } from '@zabrik/core';
import fc from 'fast-check';
import { v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { select } from '../db/select.ts';
import { openTestKitchen, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { closedHake, must, received } from '../testing/work.ts';

let kitchen: TestKitchen;
let ines: Tablet;
let maren: Tablet;
beforeAll(async () => {
  kitchen = await openTestKitchen();
  ines = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
  maren = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
});
afterAll(() => kitchen.stop());

const keep = (lotId: string, body: Parameters<typeof ines.ask<typeof api.larder.keep>>[1]['body'], tablet = ines) =>
  tablet.ask(api.larder.keep, { params: { lotId }, body });
const read = (lotId: string) => must(ines, api.larder.read, { params: { lotId } });
const at = async <T>(when: string, work: () => Promise<T>): Promise<T> => {
  kitchen.setClock(new Date(when));
  try {
    return await work();
  } finally {
    kitchen.setClock(undefined);
  }
};
/** Bones of one hake: frame 468 g, head 536 g. */
const bones = async () => {
  const { closed } = await closedHake(kitchen, ines);
  const [head, , , , frame] = closed.lots;
  return { head: head?.lotId ?? '', frame: frame?.lotId ?? '' };
};

describe('freezing and thawing', () => {
  it('gives the frozen date, and on thawing no more days than were left', async () => {
    const { frame } = await at('2026-11-24T12:00:00Z', bones);
    expect(await read(frame)).toMatchObject({ state: 'fresh', useBy: '2026-11-25', placeId: 'cold-room' });
    const frozen = await at('2026-11-24T13:00:00Z', () => keep(frame, { kind: 'freeze', placeId: 'freezer' }));
    expect(frozen).toMatchObject({ status: 200, body: { useBy: '2027-02-22', says: 'frozen, into Freezer' } });
    expect(await read(frame)).toMatchObject({
      state: 'frozen',
      frozenOn: '2026-11-24',
      dateBasis: expect.stringContaining('2 days left'),
    });
    expect(await keep(frame, { kind: 'move', placeId: 'cold-room' })).toMatchObject({
      status: 409,
      body: { code: 'cannot_keep', detail: expect.stringContaining('Thaw it') },
    });
    const thawed = await at('2026-12-10T09:00:00Z', () => keep(frame, { kind: 'thaw', placeId: 'cold-room' }));
    expect(thawed.body).toMatchObject({ useBy: '2026-12-11' });
    // a second freezing is asked about, and done only when it was read
    await at('2026-12-10T10:00:00Z', async () => {
      const again = await keep(frame, { kind: 'freeze', placeId: 'freezer' });
      expect(again).toMatchObject({
        status: 409,
        body: { code: 'needs_confirmation', detail: expect.stringContaining('frozen and thawed before') },
      });
      expect(await keep(frame, { kind: 'freeze', placeId: 'freezer', confirmed: true })).toMatchObject({ status: 200 });
    });
  });

  it('of a part freezes that part, which becomes a lot of its own', async () => {
    const { frame } = await bones();
    const reply = await keep(frame, { kind: 'freeze', placeId: 'freezer', massMg: grams(200) });
    expect(reply.status).toBe(200);
    const [whole, part] = [await read(frame), await read(reply.body.lotId)];
    expect(whole).toMatchObject({ massMg: grams(268), state: 'fresh' });
    expect(part).toMatchObject({
      massMg: grams(200),
      state: 'frozen',
      allergens: ['fish/hake'],
      parentCodes: [whole.code],
    });
  });

  it('is put back by undo, once, and only while nothing else has changed it', async () => {
    const { frame } = await bones();
    const before = await read(frame);
    const frozen = await keep(frame, { kind: 'freeze', placeId: 'freezer' });
    const eventId = frozen.body.eventId;
    const undo = () => ines.ask(api.larder.undoKeep, { params: { eventId } });
    expect((await undo()).status).toBe(200);
    expect(await read(frame)).toMatchObject({
      useBy: before.useBy,
      state: 'fresh',
      placeId: before.placeId,
      dateBasis: before.dateBasis,
    });
    expect(await undo()).toMatchObject({ status: 409, body: { code: 'changed_since' } });
    const moved = await keep(frame, { kind: 'freeze', placeId: 'freezer' });
    await keep(frame, { kind: 'thaw', placeId: 'cold-room' });
    expect(await ines.ask(api.larder.undoKeep, { params: { eventId: moved.body.eventId } })).toMatchObject({
      status: 409,
    });
  });

  it('a frozen lot does not go on the bench', async () => {
    const whole = await received(kitchen, ines);
    await keep(whole.lotId, { kind: 'freeze', placeId: 'freezer' });
    expect(
      await ines.ask(api.bench.start, {
        body: { lotId: whole.lotId, planId: 'round-fish-two-fillets', animals: 1, massMg: null },
      }),
    ).toMatchObject({ status: 409, body: { detail: expect.stringContaining('Thaw it first') } });
  });
});

describe('dates, holds and places', () => {
  it('a date is made later by a chef who gives a reason and nods, never by a butcher', async () => {
    const { frame } = await bones();
    const later = { kind: 'date', useBy: '2027-01-01', reason: 'vacuum-packed, plan 7' } as const;
    expect(await keep(frame, later)).toMatchObject({ status: 403 });
    expect(await keep(frame, later, maren)).toMatchObject({ status: 409, body: { code: 'needs_confirmation' } });
    expect(await keep(frame, { ...later, confirmed: true }, maren)).toMatchObject({
      status: 200,
      body: { useBy: '2027-01-01' },
    });
    expect(await read(frame)).toMatchObject({ dateBasis: 'set by hand: vacuum-packed, plan 7' });
  });

  it('nothing leaves a lot on hold but to the bin, and a chef lets it go', async () => {
    const { frame } = await bones();
    expect((await keep(frame, { kind: 'hold', reason: 'recall of the boat' })).status).toBe(200);
    const serve = await ines.ask(api.larder.takeOut, {
      params: { lotId: frame },
      body: { massMg: 1, to: 'served', reason: null, note: null },
    });
    expect(serve).toMatchObject({
      status: 409,
      body: { code: 'on_hold', detail: expect.stringContaining('recall of the boat') },
    });
    expect(
      await ines.ask(api.pots.plan, {
        body: { recipeId: 'fish-fumet', lotIds: [frame], vesselId: null, onHandMg: {} },
      }),
    ).toMatchObject({ status: 409, body: { code: 'on_hold' } });
    expect(
      (
        await ines.ask(api.larder.takeOut, {
          params: { lotId: frame },
          body: { massMg: 1, to: 'waste', reason: 'spoiled', note: null },
        })
      ).status,
    ).toBe(200);
    expect(await keep(frame, { kind: 'hold', reason: null })).toMatchObject({ status: 403 });
    expect((await keep(frame, { kind: 'hold', reason: null }, maren)).status).toBe(200);
  });

  it('raw among what is ready to eat is asked about; a place that is not there is named', async () => {
    const { frame } = await bones();
    expect(await keep(frame, { kind: 'move', placeId: 'fridge' })).toMatchObject({
      status: 409,
      body: { code: 'needs_confirmation', detail: expect.stringContaining('This is raw') },
    });
    expect(await keep(frame, { kind: 'move', placeId: 'attic' })).toMatchObject({
      status: 400,
      body: { field: 'placeId' },
    });
  });

  it('readings are judged against the limit the house selected, and are never called safe', async () => {
    const fish = await received(kitchen, ines, { species: 'mackerel', form: 'whole' });
    await at('2026-11-24T08:00:00Z', () => keep(fish.lotId, { kind: 'reading', centiC: 150 }));
    await at('2026-11-24T10:00:00Z', () => keep(fish.lotId, { kind: 'reading', centiC: 1_050 }));
    await at('2026-11-24T21:00:00Z', () => keep(fish.lotId, { kind: 'reading', centiC: 900 }));
    const { judged } = await at('2026-11-24T21:05:00Z', () => read(fish.lotId));
    expect(judged).toMatchObject([
      {
        about: 'storage',
        verdict: 'outside',
        says: expect.stringContaining('outside the limit you selected of 2.0 °C'),
      },
      { about: 'histamine', verdict: 'outside', certainty: 'medium' },
    ]);
    expect(judged.map((j) => j.says).join()).not.toMatch(/safe/i);
  });
});

describe('parting and putting together', () => {
  it('a split keeps dates, allergens and cost to the penny', async () => {
    const { frame } = await bones();
    const before = await read(frame);
    const made = await must(ines, api.larder.split, {
      params: { lotId: frame },
      body: { massMg: grams(101), pieces: null },
    });
    const [rest, part] = [await read(frame), await read(made.lotId)];
    expect(rest.massMg + part.massMg).toBe(before.massMg);
    expect(rest.costMinor + part.costMinor).toBe(before.costMinor);
    expect(part).toMatchObject({
      useBy: before.useBy,
      allergens: before.allergens,
      destination: before.destination,
      madeAt: before.madeAt,
    });
  });

  it('merged, the oldest date wins, both parents are kept, and the entry can be taken back', async () => {
    const [a, b] = [await at('2026-11-22T12:00:00Z', bones), await at('2026-11-24T12:00:00Z', bones)];
    const made = await must(ines, api.larder.merge, { body: { lotIds: [a.frame, b.frame] } });
    const lot = await read(made.lotId);
    expect(lot).toMatchObject({ massMg: grams(936), useBy: '2026-11-23', allergens: ['fish/hake'] });
    expect(lot.parents.map((p) => p.id).sort()).toEqual([a.frame, b.frame].sort());
    await must(maren, api.ledger.reverse, {
      params: { movementId: made.movementId },
      body: { reason: 'two tubs after all' },
    });
    expect((await read(a.frame)).massMg).toBe(grams(468));
    expect((await read(made.lotId)).massMg).toBe(0);
  });

  it('refuses what is not alike, naming the lot and how it differs', async () => {
    const { head, frame } = await bones();
    const { frame: other } = await bones();
    const merge = (lotIds: string[]) => ines.ask(api.larder.merge, { body: { lotIds } });
    expect(await merge([frame, head])).toMatchObject({
      status: 409,
      body: { code: 'not_alike', detail: expect.stringContaining('of another kind') },
    });
    await keep(other, { kind: 'freeze', placeId: 'freezer' });
    expect((await merge([frame, other])).body).toMatchObject({ detail: expect.stringContaining('frozen') });
    expect(await merge([frame, frame])).toMatchObject({ status: 409, body: { code: 'not_alike' } });
  });
});

describe('a collecting tub', () => {
  const start = (from: readonly string[], name = 'Fish bones') =>
    must(ines, api.larder.startTub, {
      body: {
        recipeId: 'fish-fumet',
        name,
        placeId: 'cold-room',
        from: from.map((lotId) => ({ lotId, massMg: null })),
      },
    });

  it('takes many lots, keeps the oldest date, knows its mass by kind, and says when a pot is due', async () => {
    const first = await at('2026-11-23T12:00:00Z', bones);
    const tub = await start([first.frame]);
    let due = false;
    let fills = 0;
    while (!due && fills < 12) {
      const { frame, head } = await bones();
      const filled = await must(ines, api.larder.fill, {
        params: { lotId: tub.lotId },
        body: { from: [frame, ...(fills % 5 === 0 ? [head] : [])].map((lotId) => ({ lotId, massMg: null })) },
      });
      ({ due } = filled);
      fills += 1;
    }
    const { tubs } = await must(ines, api.larder.tubs, {});
    const mine = tubs.find((t) => t.id === tub.lotId);
    expect(mine).toMatchObject({ due: true, recipeTitle: 'Fumet', useBy: '2026-11-24', allergens: ['fish/hake'] });
    expect(mine?.contents.reduce((sum, c) => sum + c.massMg, 0)).toBe(mine?.massMg);
    expect(mine?.usableMg).toBeGreaterThanOrEqual(mine?.enoughMg ?? 0);
    expect(mine?.contents[0]?.label).toBe('white round-fish backbone');
  });

  it('refuses what its recipe refuses, by the recipe’s own reason', async () => {
    const { frame } = await bones();
    const tub = await start([frame]);
    const bird = await received(kitchen, ines, { species: 'guinea-fowl', form: 'whole' });
    const reply = await ines.ask(api.larder.fill, {
      params: { lotId: tub.lotId },
      body: { from: [{ lotId: bird.lotId, massMg: null }] },
    });
    expect(reply).toMatchObject({ status: 409, body: { code: 'nothing_accepted' } });
  });

  it('a filling is taken back while nothing was taken from the tub since, and its date follows', async () => {
    const [old, young] = [await at('2026-11-21T12:00:00Z', bones), await at('2026-11-24T12:00:00Z', bones)];
    const tub = await start([young.frame]);
    const filled = await must(ines, api.larder.fill, {
      params: { lotId: tub.lotId },
      body: { from: [{ lotId: old.frame, massMg: null }] },
    });
    expect(filled.useBy).toBe('2026-11-22');
    const back = () =>
      maren.ask(api.ledger.reverse, { params: { movementId: filled.movementId }, body: { reason: 'wrong tub' } });
    expect((await back()).status).toBe(200);
    expect(await read(tub.lotId)).toMatchObject({ massMg: grams(468), useBy: '2026-11-25' });
  });

  it('nothing made out of a tub goes back into it', async () => {
    const { frame } = await bones();
    const tub = await start([frame]);
    const part = await must(ines, api.larder.split, {
      params: { lotId: tub.lotId },
      body: { massMg: grams(100), pieces: null },
    });
    expect(
      (
        await ines.ask(api.larder.fill, {
          params: { lotId: tub.lotId },
          body: { from: [{ lotId: part.lotId, massMg: null }] },
        })
      ).status,
    ).toBe(409);
  });
});

describe('trim of vegetables', () => {
  it('comes off a lot, is collected in a tub of its own, and says when there is enough', async () => {
    const celery = await received(kitchen, ines, {
      species: null,
      form: null,
      goods: 'celery',
      grossMg: grams(4_000),
      tareMg: 0,
    });
    const trim = (massG: number) =>
      ines.ask(api.larder.split, {
        params: { lotId: celery.lotId },
        body: { massMg: grams(massG), pieces: null, trim: true },
      });
    const first = await trim(1_000);
    expect(await read(first.body.lotId)).toMatchObject({
      name: 'Celery, trim',
      category: 'vegetable-trim',
      destination: 'stock',
      allergens: ['celery'],
    });
    const tub = await must(ines, api.larder.startTub, {
      body: {
        recipeId: 'vegetable-trim',
        name: 'Trim',
        placeId: 'cold-room',
        from: [{ lotId: first.body.lotId, massMg: null }],
      },
    });
    const more = await trim(600);
    const filled = await must(ines, api.larder.fill, {
      params: { lotId: tub.lotId },
      body: { from: [{ lotId: more.body.lotId, massMg: null }] },
    });
    expect(filled.due).toBe(true);
    const salt = await received(kitchen, ines, {
      species: null,
      form: null,
      goods: 'salt',
      grossMg: grams(500),
      tareMg: 0,
    });
    expect(
      await ines.ask(api.larder.split, {
        params: { lotId: salt.lotId },
        body: { massMg: 1, pieces: null, trim: true },
      }),
    ).toMatchObject({ status: 409, body: { detail: expect.stringContaining('not collected') } });
  });
});

describe('vegetables made ready', () => {
  const come = async (goods: string, g: number) =>
    (await received(kitchen, ines, { species: null, form: null, goods, grossMg: grams(g), tareMg: 0, paidMinor: 800 }))
      .lotId;
  const trim = (lotId: string, o: Partial<Ask<typeof api.larder.trim>['body']>) =>
    ines.ask(api.larder.trim, {
      params: { lotId },
      body: { massMg: null, readyMg: grams(1), keptMg: 0, keptTo: null, note: null, ...o },
    });

  it('what is ready carries the cost, kept trim and peel none, and the house learns what is left of them', async () => {
    const lotId = await come('artichoke', 2_000);
    const first = await trim(lotId, { massMg: grams(1_000), readyMg: grams(240) });
    expect(first).toMatchObject({ status: 200, body: { wasteMg: grams(760), readyShare: 0.24, keptCode: null } });
    const ready = await read(first.body.lotId);
    expect(ready).toMatchObject({
      name: 'Globe artichokes, trimmed',
      kind: 'goods',
      goods: 'artichoke',
      category: 'vegetable-ready',
      massMg: grams(240),
      costMinor: 400,
    });
    // two days, and no longer than what it was cut from
    expect(ready.useBy).not.toBeNull();
    expect((await read(lotId)).massMg).toBe(grams(1_000));
    // its leaves go in no pot; a cook may fry them for the staff
    expect(await trim(lotId, { readyMg: grams(250), keptMg: grams(100), keptTo: 'stock' })).toMatchObject({
      status: 409,
      body: { code: 'tray_refused', detail: expect.stringContaining('bitter') as string },
    });
    const second = await trim(lotId, { readyMg: grams(300), keptMg: grams(100), keptTo: 'staff' });
    expect(second.body).toMatchObject({ wasteMg: grams(600), readyShare: 0.3 });
    expect((await read(lotId)).massMg).toBe(0);
    const { yields } = await must(ines, api.larder.goodsYields, { params: { goods: 'artichoke' } });
    expect(yields.map((y) => [y.share, y.by])).toEqual([
      [0.3, 'Ines Calloway'],
      [0.24, 'Ines Calloway'],
    ]);
    expect((await must(ines, api.larder.goodsYields, { params: { goods: 'leek' } })).yields).toEqual([]);
  });

  it('herbs give leaves to the kitchen and stems to their tub; more than went on the board is water; nothing is trimmed twice', async () => {
    const basil = await come('basil', 100);
    expect(await trim(basil, { readyMg: grams(80), keptMg: grams(40), keptTo: 'stock' })).toMatchObject({
      status: 409,
      body: { code: 'too_much_out', detail: expect.stringContaining('20 g more') as string },
    });
    expect(await trim(basil, { readyMg: grams(50), keptMg: grams(40) })).toMatchObject({
      status: 400,
      body: { field: 'keptTo' },
    });
    const done = await trim(basil, { readyMg: grams(55), keptMg: grams(40), keptTo: 'stock' });
    expect(done.body).toMatchObject({ wasteMg: grams(5) });
    const leaves = await read(done.body.lotId);
    expect(leaves.name).toBe('Basil, leaves');
    expect(await trim(leaves.id, { readyMg: grams(10) })).toMatchObject({ status: 409, body: { code: 'not_alike' } });
    const { lots } = await must(ines, api.larder.list, { query: { category: 'herb-stems', limit: 50 } });
    expect(lots.find((l) => l.code === done.body.keptCode)).toMatchObject({ name: 'Basil, stems', costMinor: 0 });
    const salt = await come('salt', 500);
    expect(await trim(salt, { readyMg: grams(400) })).toMatchObject({ status: 409, body: { code: 'not_alike' } });
  });
});

describe('cautions of a lot', () => {
  it('stand where they matter: histamine, shellfish and its tag, shot, a hold', async () => {
    const of = async (o: Parameters<typeof received>[2]) => read((await received(kitchen, ines, o)).lotId);
    expect((await of({ species: 'mackerel', form: 'whole' })).cautions).toEqual(['scombroid']);
    expect((await of({ species: 'wood-pigeon', form: 'whole' })).cautions).toEqual(['shot']);
    expect((await of({})).cautions).toEqual([]);
    await must(maren, api.house.saveLimits, { body: { profileId: 'eu', changes: [], note: 'x' } });
    const mussels = await of({ species: 'mussel', form: 'whole', came: 'live' });
    expect(mussels.cautions).toEqual(['molluscs']);
    expect(mussels.judged).toMatchObject([
      { verdict: 'not-judged', says: 'keep the tag 60 days after the last of it was served' },
    ]);
  });
});

describe('a stock-take', () => {
  it('writes the differences with their reasons and worth; what agrees moves nothing', async () => {
    const { head, frame } = await bones();
    const before = await read(frame);
    const missing = await ines.ask(api.larder.count, {
      body: { placeId: 'cold-room', note: null, counts: [{ lotId: frame, countedMg: grams(450), reason: null }] },
    });
    expect(missing).toMatchObject({ status: 400, body: { detail: expect.stringContaining('say why') } });
    const taken = await must(ines, api.larder.count, {
      body: {
        placeId: 'cold-room',
        note: 'Sunday',
        counts: [
          { lotId: frame, countedMg: grams(450), reason: 'drip' },
          { lotId: head, countedMg: grams(536), reason: null },
        ],
      },
    });
    expect(taken).toMatchObject({ lots: 2, differing: 1, differenceMg: -grams(18) });
    const after = await read(frame);
    expect(after.massMg).toBe(grams(450));
    expect(before.costMinor - after.costMinor).toBe(-taken.differenceMinor);
    const { stockTakes } = await must(ines, api.larder.stockTakes, { query: {} });
    expect(stockTakes[0]).toMatchObject({ by: 'Ines Calloway', differing: 1, note: 'Sunday' });
    await must(maren, api.ledger.reverse, {
      params: { movementId: taken.movementId ?? '' },
      body: { reason: 'scale not tared' },
    });
    expect((await read(frame)).massMg).toBe(grams(468));
  });

  it('is held against what the book said when it was counted: what was served before it arrived is not missed twice', async () => {
    const { frame } = await bones();
    const seen = { seenMg: grams(468), seenPieces: 1 };
    await must(ines, api.larder.takeOut, {
      params: { lotId: frame },
      body: { massMg: grams(300), to: 'staff', reason: null, note: null },
    });
    const count = (countedMg: number, reason: string | null) =>
      ines.ask(api.larder.count, {
        body: { placeId: null, note: null, counts: [{ lotId: frame, countedMg, ...seen, reason }] },
      });
    expect(await count(grams(468), null)).toMatchObject({ status: 200, body: { differing: 0, differenceMg: 0 } });
    expect((await read(frame)).massMg).toBe(grams(168));
    expect(await count(grams(450), 'drip')).toMatchObject({ status: 200, body: { differenceMg: -grams(18) } });
    expect((await read(frame)).massMg).toBe(grams(150));
    // more was missing than is left by now: it cannot both have been served and have been gone
    expect(await count(grams(200), 'used')).toMatchObject({ status: 409, body: { code: 'not_enough' } });
  });
});

describe('vegetables and dry goods', () => {
  it('are received, and go into the pot before the pantry does, oldest date first', async () => {
    const celery = await received(kitchen, ines, {
      species: null,
      form: null,
      goods: 'celery',
      useBy: new Date().toISOString().slice(0, 10), // before any other in this larder
      grossMg: grams(600),
      tareMg: 0,
    });
    expect(await read(celery.lotId)).toMatchObject({
      kind: 'goods',
      name: 'Celery',
      destination: 'larder',
      allergens: ['celery'],
    });
    const { frame } = await bones();
    const plan = await must(ines, api.pots.plan, {
      body: { recipeId: 'fish-fumet', lotIds: [frame], vesselId: null, onHandMg: {} },
    });
    const wanted = plan.ingredients.find((i) => i.id === 'vegetables')?.massMg ?? 0;
    await must(ines, api.pots.finish, {
      params: { batchId: plan.id },
      body: { outputMg: plan.expectedMg.mean, spentMg: grams(300), note: null },
    });
    expect((await read(celery.lotId)).massMg).toBe(grams(600) - wanted);
  });
});

describe('the larder as a list', () => {
  it('stands in groups that add up to the whole, pages through without losing or doubling a lot', async () => {
    for (const by of ['place', 'date', 'destination', 'species', 'supplier'] as const) {
      const { groups } = await must(ines, api.larder.groups, { query: { by } });
      const seen: string[] = [];
      let cursor: string | undefined;
      let total = 0;
      do {
        const page = await must(ines, api.larder.list, { query: { group: by, limit: 7, cursor } });
        seen.push(...page.lots.map((l) => l.id));
        ({ total } = page);
        cursor = page.next ?? undefined;
      } while (cursor !== undefined);
      expect(new Set(seen).size).toBe(seen.length);
      expect(seen.length).toBe(total);
      expect(groups.reduce((sum, g) => sum + g.lots, 0)).toBe(total);
    }
  });

  it('is filtered by place, state and date', async () => {
    const { lots } = await must(ines, api.larder.list, { query: { place: 'freezer', limit: 200 } });
    expect(lots.length).toBeGreaterThan(0);
    for (const lot of lots) expect(lot.state).toBe('frozen');
    const past = await at('2027-06-01T12:00:00Z', () =>
      must(ines, api.larder.list, { query: { due: 'past', limit: 200 } }),
    );
    expect(past.total).toBeGreaterThan(5);
    for (const lot of past.lots) expect((lot.useBy ?? '9') < '2027-06-01').toBe(true);
  });
});

describe('pieces', () => {
  it('are counted: two served by two of twenty-one leave nineteen, and come back when the entry does', async () => {
    const portions = await received(kitchen, ines, {
      species: 'hake',
      form: 'fillet-skin-on',
      animals: 21,
      grossMg: grams(3_360),
      tareMg: 0,
    });
    expect((await read(portions.lotId)).pieces).toBe(21);
    const out = await must(ines, api.larder.takeOut, {
      params: { lotId: portions.lotId },
      body: { massMg: grams(310), pieces: 2, to: 'served', reason: null, note: null },
    });
    expect(out).toMatchObject({ leftPieces: 19, leftMg: grams(3_050) });
    expect((await read(portions.lotId)).pieces).toBe(19);
    // without a count they go as the mass does: 160 g are one of those of 160
    const one = await must(ines, api.larder.takeOut, {
      params: { lotId: portions.lotId },
      body: { massMg: grams(160), to: 'served', reason: null, note: null },
    });
    expect(one.leftPieces).toBe(18);
    const many = await ines.ask(api.larder.takeOut, {
      params: { lotId: portions.lotId },
      body: { massMg: grams(160), pieces: 30, to: 'served', reason: null, note: null },
    });
    expect(many).toMatchObject({ status: 409, body: { code: 'not_enough' } });
    await must(maren, api.ledger.reverse, { params: { movementId: out.movementId }, body: { reason: 'sent back' } });
    expect((await read(portions.lotId)).pieces).toBe(20);
    // four reserved are a lot of four, and sixteen stay
    const reserved = await must(ines, api.larder.keep, {
      params: { lotId: portions.lotId },
      body: { kind: 'reserve', reservedFor: 'table nine', massMg: grams(640), pieces: 4 },
    });
    expect(reserved.lotId).not.toBe(portions.lotId);
    expect(await read(reserved.lotId)).toMatchObject({ pieces: 4, reservedFor: 'table nine' });
    expect((await read(portions.lotId)).pieces).toBe(16);
    // fifteen found in a round are fifteen
    const left = (await read(portions.lotId)).massMg;
    await must(maren, api.larder.count, {
      body: {
        placeId: null,
        note: null,
        counts: [
          {
            lotId: portions.lotId,
            countedMg: left - grams(160),
            countedPieces: 15,
            reason: 'used and not written down',
          },
        ],
      },
    });
    expect((await read(portions.lotId)).pieces).toBe(15);
  });
});

describe('an allergen', () => {
  it('is never lost, whatever is split, merged, collected, cooked and frozen', async () => {
    const act = fc.record({
      what: fc.constantFrom('split', 'merge', 'fill', 'cook', 'freeze', 'goods'),
      a: fc.nat(99),
      b: fc.nat(99),
    });
    const goods = ['celery', 'cream', 'flour', 'white-wine', 'mustard'];
    await fc.assert(
      fc.asyncProperty(fc.array(act, { minLength: 6, maxLength: 16 }), async (acts) => {
        const { head, frame } = await bones();
        const lots = [head, frame];
        const pick = (n: number): string => lots[n % lots.length] ?? head;
        for (const { what, a, b } of acts) {
          const lotId = pick(a);
          if (what === 'split') {
            const reply = await ines.ask(api.larder.split, {
              params: { lotId },
              body: { massMg: grams(20), pieces: null },
            });
            if (reply.status === 200) lots.push(reply.body.lotId);
          } else if (what === 'merge') {
            const reply = await ines.ask(api.larder.merge, { body: { lotIds: [lotId, pick(b)] } });
            if (reply.status === 200) lots.push(reply.body.lotId);
          } else if (what === 'fill') {
            const reply = await ines.ask(api.larder.startTub, {
              body: {
                recipeId: 'fish-fumet',
                name: 'tub',
                placeId: 'cold-room',
                from: [{ lotId, massMg: null }],
                confirmed: true,
              },
            });
            if (reply.status === 200) lots.push(reply.body.lotId);
          } else if (what === 'goods') {
            await received(kitchen, ines, {
              species: null,
              form: null,
              goods: goods[a % goods.length] ?? 'celery',
              grossMg: grams(40),
              tareMg: 0,
            });
          } else if (what === 'cook') {
            const plan = await ines.ask(api.pots.plan, {
              body: { recipeId: 'fish-fumet', lotIds: [lotId], vesselId: null, onHandMg: {} },
            });
            if (plan.status !== 200) continue;
            const done = await must(ines, api.pots.finish, {
              params: { batchId: plan.body.id },
              body: { outputMg: plan.body.expectedMg.mean, spentMg: 1, note: null },
            });
            if (done.outputLot !== null) lots.push(done.outputLot.id);
          } else await keep(lotId, { kind: 'freeze', placeId: 'freezer', massMg: null, confirmed: true });
        }
        const lost = await select<{ code: string }>(
          kitchen.services.db,
          `with recursive down(root, lot_id) as (
             select id, id from lot where house_id = $1 and cardinality(allergens) > 0
             union
             select d.root, o.lot_id from down d join posting i on i.lot_id = d.lot_id and i.mass_mg < 0
             join posting o on o.movement_id = i.movement_id and o.mass_mg > 0 and o.lot_id is not null
             join movement m on m.id = i.movement_id and m.kind <> 'reverse')
           select l.code from down d join lot r on r.id = d.root join lot l on l.id = d.lot_id where not l.allergens @> r.allergens`,
          [kitchen.home?.houseId],
        );
        expect(lost).toEqual([]);
      }),
      { numRuns: 12 },
    );
    // and what the formulas themselves bring is among what their batches have
    for (const recipe of allRecipes)
      for (const ingredient of recipe.ingredients) expect(ingredient.allergens).toBeInstanceOf(Array);
  });
});

it('a repeat of a command does nothing twice', async () => {
  const { frame } = await bones();
  const key = uuidv7();
  const ask = { params: { lotId: frame }, body: { massMg: grams(100), pieces: null } };
  const [first, again] = [await must(ines, api.larder.split, ask, key), await must(ines, api.larder.split, ask, key)];
  expect(again).toEqual(first);
  expect((await read(frame)).massMg).toBe(grams(368));
});
