/** Pots through the API: what is planned, what is written down at the stove, what comes out and what it costs; logs of cooling. */
import { limitProfiles } from '@zabrik/catalogue';
import { type Ask, api, type Batch } from '@zabrik/contract';
import { grams, kilograms } from '@zabrik/core';
import { v7 as uuidv7 } from 'uuid';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { select } from '../db/select.ts';
import { openTestKitchen, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { hakeLots, must, received, takeBody, weighedAndClosed } from '../testing/work.ts';

let kitchen: TestKitchen;
let ines: Tablet;
let maren: Tablet;
beforeAll(async () => {
  kitchen = await openTestKitchen();
  ines = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
  maren = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
});
afterAll(() => kitchen.stop());

type PlanBody = Ask<typeof api.pots.plan>['body'];
const plan = (recipeId: string, lotIds: string[], o: Partial<PlanBody> = {}) =>
  must(ines, api.pots.plan, { body: { recipeId, lotIds, vesselId: null, onHandMg: {}, ...o } });
const say = (batchId: string, body: Ask<typeof api.pots.event>['body']['body'], at = new Date().toISOString()) =>
  must(ines, api.pots.event, { params: { batchId }, body: { at, body } });
const finish = (batchId: string, outputMg: number, o: Partial<Ask<typeof api.pots.finish>['body']> = {}) =>
  must(ines, api.pots.finish, { params: { batchId }, body: { outputMg, spentMg: 0, note: null, ...o } });

const pieces = () => hakeLots(kitchen, ines);
const postings = (batch: Batch) =>
  select<{ sink: string | null; reason: string | null; mass: number; cost: number }>(
    kitchen.services.db,
    'select sink, reason, mass_mg as mass, cost_minor as cost from posting where movement_id = $1 order by id',
    [batch.movementId],
  );

describe('planning a batch', () => {
  it('scales to what is wanted, oldest first, and says what is short', async () => {
    const { frame, pin } = await pieces();
    const litre = await plan('fish-fumet', [frame, pin], { want: { kind: 'mass', massMg: grams(360) } });
    expect(litre.baseMg).toBe(Math.ceil(grams(360) / 0.9));
    expect(litre.limiting).toBe('what is wanted');
    await must(ines, api.pots.cancel, { params: { batchId: litre.id }, body: {} });
    const much = await plan('fish-fumet', [frame, pin], { want: { kind: 'mass', massMg: kilograms(6) } });
    expect(much.baseMg).toBe(grams(499));
    expect(much.short).toEqual([{ id: 'base', name: 'bones', massMg: Math.ceil(kilograms(6) / 0.9) - grams(499) }]);
    const wrong = await ines.ask(api.pots.plan, {
      body: {
        recipeId: 'fish-fumet',
        lotIds: [frame],
        vesselId: null,
        onHandMg: {},
        want: { kind: 'plates', count: 4 },
      },
    });
    expect(wrong).toMatchObject({ status: 400, body: { field: 'want' } });
  });

  it('keeps the ways chosen and the shares set, and refuses gills, oily bones and what is cooked by name', async () => {
    const { frame } = await pieces();
    const batch = await plan('fish-fumet', [frame], { ways: ['min-45', 'sweat'], shares: { water: 1.3 } });
    expect([...batch.ways].sort()).toEqual(['min-45', 'sweat']);
    expect(batch.ingredients.find((i) => i.id === 'water')?.massMg).toBe(Math.round(1.3 * batch.baseMg));
    const { recipe } = await must(ines, api.pots.read, { params: { batchId: batch.id } });
    expect(recipe.steps.some((s) => s.text.includes('Forty-five'))).toBe(true);
    expect(recipe.steps.some((s) => s.text.includes('Twenty'))).toBe(false);
    const done = await finish(batch.id, grams(400), { spentMg: grams(350) });
    // the fumet is cooked: it goes in no raw filling, and it is no base of another fumet
    const raw = await ines.ask(api.pots.plan, {
      body: { recipeId: 'fish-mousseline', lotIds: [done.outputLot?.id ?? ''], vesselId: null, onHandMg: {} },
    });
    expect(raw).toMatchObject({ status: 409, body: { code: 'nothing_accepted' } });
  });
});

describe('what goes in a pot beside cut pieces', () => {
  it('of a tub, no more heads than a fifth: the rest is left lying in it', async () => {
    const { frame, head } = await pieces();
    const tub = await must(ines, api.larder.startTub, {
      body: {
        recipeId: 'fish-fumet',
        name: 'Bones',
        placeId: 'cold-room',
        from: [
          { lotId: frame, massMg: null },
          { lotId: head, massMg: null },
        ],
        confirmed: true,
      },
    });
    // 468 g of frame carry 117 g of head
    const batch = await plan('fish-fumet', [tub.lotId]);
    expect(batch.baseMg).toBe(grams(468 + 117));
    await must(ines, api.pots.cancel, { params: { batchId: batch.id }, body: {} });
    const read = async (id: string) => (await must(ines, api.larder.tubs, {})).tubs.find((t) => t.id === id);
    expect(await read(tub.lotId)).toMatchObject({ potKind: 'white-fish-frame', usableMg: grams(585) });
    // parted, both halves hold what the whole held
    const half = await must(ines, api.larder.split, {
      params: { lotId: tub.lotId },
      body: { massMg: grams(502), pieces: null, trim: false },
    });
    for (const id of [tub.lotId, half.lotId])
      expect((await read(id))?.contents.map((c) => [c.category, c.massMg])).toEqual([
        ['white-fish-head', grams(268)],
        ['white-fish-frame', grams(234)],
      ]);
  });

  it('a crab as it was bought goes in the boil', async () => {
    const { lotId } = await received(kitchen, ines, {
      species: 'brown-crab',
      form: 'whole',
      animals: 2,
      grossMg: grams(1_600),
      tareMg: 0,
      invoiceMg: grams(1_600),
    });
    const { lots } = await must(ines, api.larder.list, { query: { kind: 'delivery', limit: 200 } });
    expect(lots.find((l) => l.id === lotId)?.potKind).toBe('crustacean-whole');
    const boil = await plan('crustacean-boil', [lotId]);
    expect(boil.baseMg).toBe(grams(1_600));
    // and stays two crabs of its supplier, which go on to the bench and are picked there
    const boiled = await finish(boil.id, grams(1_500));
    const lot = await must(ines, api.larder.read, { params: { lotId: boiled.outputLot?.id ?? '' } });
    expect(lot).toMatchObject({
      name: 'Brown crab, boiled',
      form: 'cooked',
      pieces: 2,
      supplierName: 'Bram Quay Fish',
      ready: true,
    });
    expect(
      await must(ines, api.bench.start, { body: { lotId: lot.id, planId: 'crab-picked', animals: 2, massMg: null } }),
    ).toMatchObject({ stageId: 's1', animals: 2, supplierName: 'Bram Quay Fish' });
    const hake = await received(kitchen, ines);
    const { lots: all } = await must(ines, api.larder.list, { query: { kind: 'delivery', limit: 200 } });
    expect(all.find((l) => l.id === hake.lotId)?.potKind).toBe('');
  });
});

describe('what is put together', () => {
  it('a farce of this noon goes into a mould with fillets and prawns, each from its own lot, and on to the knife by course', async () => {
    const { belly, fillet } = await pieces();
    const mixed = await plan('steaming-farce', [belly]);
    const farce = (await finish(mixed.id, grams(190))).outputLot?.id ?? '';
    const prawns = await received(kitchen, ines, {
      species: 'prawn',
      form: 'headless',
      animals: 20,
      grossMg: grams(460),
      tareMg: 0,
      invoiceMg: grams(460),
    });
    const peeled = await must(ines, api.bench.start, {
      body: { lotId: prawns.lotId, planId: 'prawn-peeled', animals: 20, massMg: null },
    });
    await must(ines, api.bench.weigh, {
      params: { breakdownId: peeled.id },
      body: { ...takeBody('meat', 'filling', 200), count: 20 },
    });
    const meat = (
      await must(ines, api.bench.close, { params: { breakdownId: peeled.id }, body: { unbalancedReason: 'a test' } })
    ).lots[0]?.lotId;
    const batch = await plan('moulded-farce', [farce, fillet, meat ?? '']);
    const as = new Map(batch.inputs.map((i) => [i.lotId, i.as]));
    expect([as.get(farce), as.get(fillet), as.get(meat ?? '')]).toEqual(['base', 'lining', 'heart']);
    // half of the farce in fillets, a third and a little in prawns
    const massOf = (id: string) => batch.inputs.find((i) => i.lotId === id)?.massMg ?? 0;
    expect(massOf(farce)).toBe(grams(190));
    expect(massOf(fillet)).toBe(grams(95));
    expect(massOf(meat ?? '')).toBe(grams(66.5));
    const made = await finish(batch.id, grams(345));
    const mould = await must(ines, api.larder.read, { params: { lotId: made.outputLot?.id ?? '' } });
    expect(mould).toMatchObject({
      name: 'Farce steamed in a mould, shellfish in the heart',
      destination: 'portion',
      ready: true,
    });
    expect(mould.allergens).toEqual(expect.arrayContaining(['fish/hake', 'crustaceans/prawn', 'eggs', 'milk']));
    const trace = await must(ines, api.larder.trace, { params: { lotId: mould.id } });
    const names = JSON.stringify(trace);
    for (const from of ['Prawn', 'Hake', 'Farce for steaming']) expect(names).toContain(from);
    const { lots } = await must(ines, api.larder.list, { query: { toWeight: 'mould', limit: 200 } });
    expect(lots.map((l) => l.id)).toContain(mould.id);
  });
});

describe('what was boned out', () => {
  const started = async (species: string, form: string, planId: string, g: number, animals: number) => {
    const { lotId } = await received(kitchen, ines, {
      species,
      form,
      animals,
      grossMg: grams(g),
      tareMg: 0,
      invoiceMg: grams(g),
    });
    return must(ines, api.bench.start, { body: { lotId, planId, animals, massMg: null } });
  };

  it('is told with what its own breakdown took out, and in proportion once a part of it is gone', async () => {
    const { id } = await started('guinea-fowl', 'whole', 'bird-boned-whole', 1_800, 1);
    const { lots } = await weighedAndClosed(ines, id, [
      ['wing', 'stock', 81],
      ['cage', 'stock', 342],
      ['limb', 'stock', 108],
      ['boned', 'portion', 1_152],
      ['fat', 'fat', 54],
      ['trim', 'filling', 18],
      ['vent', 'waste', 18],
    ]);
    const lotId = lots.find((l) => l.massMg === grams(1_152))?.lotId ?? '';
    const mine = async () => (await must(maren, api.pots.boned, {})).boned.find((b) => b.lotId === lotId);
    expect(await mine()).toMatchObject({
      bonedMg: grams(1_152),
      bonesMg: grams(342 + 108),
      fleshOutMg: grams(54 + 18),
      low: 0.35,
      high: 0.5,
    });
    await must(ines, api.larder.takeOut, {
      params: { lotId },
      body: { massMg: grams(576), to: 'served', reason: null, note: null },
    });
    expect(await mine()).toMatchObject({ bonedMg: grams(576), bonesMg: grams(225), fleshOutMg: grams(36) });
  });

  it('keeps its hollow through a later stage: a braised sleeve is a boned trotter still', async () => {
    const { id } = await started('pork', 'trotter', 'trotter-boned', 1_000, 2);
    const boned = await weighedAndClosed(ines, id, [
      ['hair', 'waste', 35],
      ['bone', 'stock', 330],
      ['sleeve', 'larder', 560],
      ['trim', 'stock', 50],
    ]);
    const sleeve = boned.lots.find((l) => l.massMg === grams(560))?.lotId ?? '';
    const next = await must(ines, api.bench.goOn, { body: { lots: [{ lotId: sleeve, massMg: null }] } });
    const braised = await weighedAndClosed(ines, next.id, [['braised', 'portion', 448]]);
    const found = (await must(maren, api.pots.boned, {})).boned.find((b) => b.lotId === braised.lots[0]?.lotId);
    expect(found).toMatchObject({ bonedMg: grams(560), bonesMg: grams(330), fleshOutMg: grams(50) });
  });
});

describe('a batch at the stove', () => {
  it('what a timed step took in the batches before is known to the next one', async () => {
    let last: Batch | undefined;
    for (const minutes of [20, 26, undefined]) {
      const { frame } = await pieces();
      const batch = await plan('fish-fumet', [frame]);
      const { recipe, ownTimes } = await must(ines, api.pots.read, { params: { batchId: batch.id } });
      const i = recipe.steps.findIndex((s) => s.minutes !== undefined);
      const from = Date.parse('2026-11-24T10:00:00.000Z');
      const tell = (minute: number, body: Ask<typeof api.pots.event>['body']['body']) =>
        must(ines, api.pots.event, {
          params: { batchId: batch.id },
          body: { at: new Date(from + minute * 60_000).toISOString(), body },
        });
      if (minutes === undefined) expect(ownTimes).toEqual([{ step: i, minutes: 23, batches: 2 }]);
      else {
        expect(ownTimes).toEqual([]);
        await tell(0, { kind: 'timer', step: i, label: 'simmer', dueAt: new Date(from).toISOString() });
        await tell(minutes, { kind: 'step', step: i, skipped: false });
        await finish(batch.id, grams(400), { spentMg: grams(350) });
      }
      last = batch;
    }
    await must(ines, api.pots.cancel, { params: { batchId: last?.id ?? '' }, body: {} });
  });

  it('is put on by the first thing written down, keeps its timers, and everything can be taken back', async () => {
    const { frame } = await pieces();
    const batch = await plan('fish-fumet', [frame]);
    const started = await say(batch.id, { kind: 'start' });
    const due = new Date(Date.now() + 60_000).toISOString();
    const timer = await say(batch.id, { kind: 'timer', step: 3, label: 'simmer', dueAt: due });
    const { timers } = await must(maren, api.pots.timers, {});
    expect(timers.find((t) => t.id === timer.id)).toMatchObject({ batchId: batch.id, dueAt: due, label: 'simmer' });
    // it rings at a tablet where nobody is signed in, in its own house alone, and says no more than what is due
    const nobody = kitchen.tablet('');
    const { bells } = await must(nobody, api.pots.bells, { params: { slug: 'home' } });
    expect(bells.find((b) => b.id === timer.id)).toEqual({
      id: timer.id,
      label: 'simmer',
      title: 'Fumet',
      dueAt: due,
    });
    expect((await must(nobody, api.pots.bells, { params: { slug: 'other' } })).bells).toEqual([]);
    expect(await nobody.ask(api.pots.bells, { params: { slug: 'nowhere' } })).toMatchObject({ status: 404 });
    const step = await say(batch.id, { kind: 'step', step: 3, skipped: false });
    expect((await must(maren, api.pots.timers, {})).timers.some((t) => t.id === timer.id)).toBe(false);
    await say(batch.id, { kind: 'back', eventId: step.id });
    expect((await must(maren, api.pots.timers, {})).timers.some((t) => t.id === timer.id)).toBe(true);
    expect(
      (
        await ines.ask(api.pots.event, {
          params: { batchId: batch.id },
          body: { at: due, body: { kind: 'back', eventId: step.id } },
        })
      ).body,
    ).toMatchObject({ code: 'already_replaced' });
    expect(
      (
        await ines.ask(api.pots.event, {
          params: { batchId: batch.id },
          body: { at: due, body: { kind: 'step', step: 55, skipped: false } },
        })
      ).status,
    ).toBe(400);
    // a timer is moved while it stands, and not one that is nowhere
    const later = {
      kind: 'timer',
      step: 3,
      label: 'simmer',
      dueAt: new Date(Date.now() + 120_000).toISOString(),
    } as const;
    expect(
      await ines.ask(api.pots.event, {
        params: { batchId: batch.id },
        body: { at: due, body: { ...later, replaces: step.id } },
      }),
    ).toMatchObject({ status: 409, body: { code: 'already_replaced' } });
    const moved = await say(batch.id, { ...later, replaces: timer.id });
    const now = async () => (await must(maren, api.pots.timers, {})).timers.filter((t) => t.batchId === batch.id);
    expect(await now()).toMatchObject([{ id: moved.id, dueAt: later.dueAt, startedAt: timer.at }]);
    const whole = await must(maren, api.pots.read, { params: { batchId: batch.id } });
    expect(whole).toMatchObject({ state: 'on', startedAt: started.at });
    expect(whole.events.map((e) => e.body.kind)).toEqual(['start', 'timer', 'step', 'back', 'timer']);
    // its lots stay promised while it is on
    expect((await must(ines, api.larder.read, { params: { lotId: frame } })).freeMg).toBe(0);
    await must(ines, api.pots.cancel, { params: { batchId: batch.id }, body: {} });
    expect((await must(maren, api.pots.timers, {})).timers.some((t) => t.batchId === batch.id)).toBe(false);
  });

  it('carries the allergens of what was added at the stove, and takes nothing that nobody knows them of', async () => {
    const { frame } = await pieces();
    const batch = await plan('fish-fumet', [frame], { shares: { 'white-wine': 0 } });
    expect(batch.ingredients.map((i) => i.id)).not.toContain('white-wine');
    const wine = { kind: 'add' as const, ingredientId: 'white-wine', name: 'white wine', massMg: grams(40) };
    await say(batch.id, wine);
    const odd = await ines.ask(api.pots.event, {
      params: { batchId: batch.id },
      body: { at: new Date().toISOString(), body: { ...wine, ingredientId: 'peanut-butter', name: 'peanut butter' } },
    });
    expect(odd).toMatchObject({ status: 400, body: { field: 'body.ingredientId' } });
    const done = await finish(batch.id, grams(380), { spentMg: grams(300) });
    const lot = await must(ines, api.larder.read, { params: { lotId: done.outputLot?.id ?? '' } });
    expect(lot.allergens).toEqual(expect.arrayContaining(['fish/hake', 'sulphites']));
  });

  it('is done when the tablet says so, within reason, however late the server hears of it', async () => {
    const done = async (at: string | null) => {
      const { frame } = await pieces();
      const batch = await plan('fish-fumet', [frame]);
      return { batch, done: await finish(batch.id, grams(400), { at }) };
    };
    const now = Date.now();
    const early = await done(new Date(now - 3_600_000).toISOString());
    // before it was planned: the clock of the tablet is wrong
    expect(early.done.doneAt).toBe(early.batch.plannedAt);
    const late = await done(new Date(now + 7_200_000).toISOString());
    expect(Date.parse(late.done.doneAt ?? '') - Date.now()).toBeLessThan(5_000);
    const made = await must(maren, api.larder.read, { params: { lotId: early.done.outputLot?.id ?? '' } });
    expect(made.madeAt).toBe(early.batch.plannedAt);
    expect(Date.parse((await done(null)).done.doneAt ?? '')).toBeGreaterThanOrEqual(now - 1_000);
  });

  it('costs what went in, the work and the fuel, to the penny; bones to a second wash and fat are lots of their own', async () => {
    const { frame, pin } = await pieces();
    const batch = await plan('fish-fumet', [frame, pin]);
    await say(batch.id, { kind: 'mark', vesselId: 'pot-12', burnerId: 'induction', targetMg: grams(300) });
    await say(batch.id, { kind: 'add', ingredientId: 'water', name: 'water', massMg: grams(200) });
    const done = await finish(batch.id, grams(450), {
      spentMg: grams(380),
      spentTo: 'wash',
      fatMg: grams(20),
      labourMinutes: 30,
    });
    const lines = await postings(done);
    expect(lines.reduce((s, p) => s + p.mass, 0)).toBe(0);
    expect(lines.reduce((s, p) => s + p.cost, 0)).toBe(0);
    expect(lines.find((p) => p.reason === 'labour')).toMatchObject({ mass: 0, cost: -820 }); // half an hour of 16.40
    const water = batch.ingredients.find((i) => i.id === 'water')?.massMg ?? 0;
    expect(lines.find((p) => p.reason === 'water')?.mass).toBe(-(water + grams(200)));
    // by hand: heat-up of all that went in by 80 K at 4 kJ, what left as steam at 2,256.5 kJ/kg, through induction of 0.85, 24 a kWh
    const inKg = -lines.filter((p) => p.mass < 0).reduce((s, p) => s + p.mass, 0) / 1e6;
    const lostKg = (lines.find((p) => p.sink === 'loss')?.mass ?? 0) / 1e6;
    const kWh = (inKg * 4 * 80 + lostKg * 2_256.5) / 3_600 / 0.85;
    expect(lines.find((p) => p.reason === 'energy')?.cost).toBe(-Math.round(kWh * 24));
    const { lots } = await must(ines, api.larder.list, { query: { kind: 'batch', limit: 200 } });
    const mine = (name: string) => lots.find((l) => l.name === name && l.parentCodes.length === 2);
    expect(mine('Fumet, spent bones')).toMatchObject({ category: 'spent-bones', massMg: grams(380), costMinor: 0 });
    expect(mine('Fumet, fat')).toMatchObject({
      category: 'rendered-fat',
      massMg: grams(20),
      allergens: ['fish/hake', 'celery', 'sulphites'],
    });
    const wash = await plan('second-wash', [mine('Fumet, spent bones')?.id ?? '']);
    expect(wash.baseMg).toBe(grams(380));
    // the whole is taken back in the ledger: the batch is on again with all that was written down
    await must(ines, api.pots.cancel, { params: { batchId: wash.id }, body: {} });
    await must(maren, api.ledger.reverse, {
      params: { movementId: done.movementId ?? '' },
      body: { reason: 'lid on' },
    });
    expect(await must(ines, api.pots.read, { params: { batchId: batch.id } })).toMatchObject({
      state: 'on',
      outputMg: null,
    });
  });

  it('goes on to a reduction, and each batch moves what is expected of the next', async () => {
    const { frame, pin } = await pieces();
    const before =
      (await must(ines, api.pots.recipes, {})).recipes.find((u) => u.recipe.id === 'fish-fumet')?.batches.length ?? 0;
    const first = await plan('fish-fumet', [frame, pin], { ways: ['sweat'] });
    await finish(first.id, Math.round(first.baseMg * 0.76), { spentMg: grams(300) });
    const { recipes } = await must(ines, api.pots.recipes, {});
    const fumet = recipes.find((u) => u.recipe.id === 'fish-fumet');
    expect(fumet?.batches.length).toBe(before + 1);
    expect(fumet?.batches[0]).toMatchObject({ batchId: first.id });
    expect(fumet?.batches[0]?.ratio).toBeCloseTo(0.76, 3);
    const more = await pieces();
    const next = await plan('fish-fumet', [more.frame], { ways: ['sweat'] });
    expect(next.expectedMg.mean / next.baseMg).toBeLessThan(0.9);
    const other = await plan('fish-fumet', [more.pin], { ways: ['cold', 'min-45'] });
    expect(other.expectedMg.mean / other.baseMg).toBeCloseTo(0.9 * 0.97, 2);
  });
});

describe('a house’s own recipe', () => {
  it('is a new version, keeps the handbook’s allergens and refusals, and is refused when someone else was first', async () => {
    const { recipes } = await must(maren, api.pots.recipes, {});
    const fumet = recipes.find((u) => u.recipe.id === 'fish-mousseline');
    if (fumet === undefined) throw new Error('no mousseline');
    const mine = { ...fumet.recipe, title: 'Our mousseline', allergens: [], refuses: [], shelfLifeDays: 0 };
    const saved = await must(maren, api.pots.saveRecipe, {
      body: { recipe: mine, from: fumet.recipe.version, retired: false, note: 'less cream in winter' },
    });
    expect(saved).toMatchObject({ own: true, recipe: { version: fumet.recipe.version + 1, title: 'Our mousseline' } });
    expect(saved.recipe.allergens).toEqual(expect.arrayContaining(['fish', 'milk']));
    expect(saved.recipe.refuses.map((r) => r.category)).toContain('fish-gills');
    const late = await maren.ask(api.pots.saveRecipe, {
      body: { recipe: mine, from: fumet.recipe.version, retired: false, note: 'x' },
    });
    expect(late.body).toMatchObject({ code: 'changed_since' });
    const { versions } = await must(ines, api.pots.recipeVersions, { params: { recipeId: 'fish-mousseline' } });
    expect(versions.map((v) => v.by)).toEqual(['Maren Ostle', null]);
    await must(maren, api.pots.saveRecipe, {
      body: { recipe: saved.recipe, from: saved.recipe.version, retired: true, note: 'not any more' },
    });
    const { belly } = await pieces();
    expect(
      await ines.ask(api.pots.plan, {
        body: { recipeId: 'fish-mousseline', lotIds: [belly], vesselId: null, onHandMg: {} },
      }),
    ).toMatchObject({ status: 400, body: { field: 'recipeId' } });
    expect(
      (await ines.ask(api.pots.saveRecipe, { body: { recipe: mine, from: 1, retired: false, note: 'x' } })).status,
    ).toBe(403);
  });
});

describe('a log of cooling', () => {
  afterEach(() => kitchen.setClock(undefined));
  const setup = {
    mediumId: 'ice-bath-stirred',
    vesselName: '12 l pot',
    vessel: { kind: 'round', diameterMm: 260, heightMm: 230 } as const,
    count: 1,
    litres: 8,
    airC: null,
    setsAtC: null,
  };
  const start = Date.parse('2026-11-25T14:00:00.000Z');
  const at = (minute: number): string => new Date(start + minute * 60_000).toISOString();
  const begin = async (limitId: string | null, kind: 'cooling' | 'freezing' = 'cooling', centiC = 7_000) => {
    const id = uuidv7();
    kitchen.setClock(new Date(at(0)));
    await must(ines, api.pots.startCooling, {
      body: { id, kind, lotId: null, name: 'Fumet', setup, limitId, at: at(0), centiC, source: 'probe' },
    });
    const read = (minute: number, C: number) => {
      kitchen.setClock(new Date(at(minute)));
      return must(ines, api.pots.readCooling, {
        params: { coolingId: id },
        body: { at: at(minute), centiC: Math.round(C * 100), source: 'typed' },
      });
    };
    const close = (outcome: string | null = null) =>
      ines.ask(api.pots.closeCooling, { params: { coolingId: id }, body: { outcome } });
    return { id, read, close };
  };

  it('is within by measured readings alone, and closes then', async () => {
    const limit = limitProfiles.find((p) => p.id === 'uk')?.limits.find((l) => l.kind === 'cooling');
    const log = await begin(limit?.id ?? '');
    expect((await log.close()).body).toMatchObject({ code: 'needs_confirmation' });
    await log.read(30, 30);
    expect((await log.read(60, 9)).verdict).toBe('open');
    expect((await log.read(80, 2.8)).verdict).toBe('within');
    expect((await log.close()).body).toMatchObject({ verdict: 'within', state: 'closed' });
    expect(
      (
        await ines.ask(api.pots.readCooling, {
          params: { coolingId: log.id },
          body: { at: at(90), centiC: 200, source: 'typed' },
        })
      ).body,
    ).toMatchObject({ code: 'cooling_closed' });
  });

  it('is outside when it is late, and closes only with what was done about it', async () => {
    const limit = limitProfiles.find((p) => p.id === 'uk')?.limits.find((l) => l.kind === 'cooling');
    const log = await begin(limit?.id ?? '');
    await log.read(60, 40);
    expect((await log.read(120, 20)).verdict).toBe('outside');
    expect((await log.close()).body).toMatchObject({ code: 'needs_confirmation' });
    expect((await log.close('thrown away, 8 litres')).body).toMatchObject({
      verdict: 'outside',
      outcome: 'thrown away, 8 litres',
    });
    const { closed } = await must(maren, api.pots.coolings, {});
    expect(closed.find((c) => c.id === log.id)).toMatchObject({ verdict: 'outside', by: 'Ines Calloway' });
  });

  it('freezes for parasites by the core, and takes no limit of another kind', async () => {
    const log = await begin('uk.parasite', 'freezing', -500);
    await log.read(120, -21);
    await log.read(120 + 12 * 60, -21.5);
    expect((await log.read(120 + 23 * 60, -22)).verdict).toBe('open');
    expect((await log.read(120 + 24 * 60, -22)).verdict).toBe('within');
    const wrong = await ines.ask(api.pots.startCooling, {
      body: {
        id: uuidv7(),
        kind: 'cooling',
        lotId: null,
        name: 'x',
        setup,
        limitId: 'uk.parasite',
        at: at(0),
        centiC: 0,
        source: 'typed',
      },
    });
    expect(wrong).toMatchObject({ status: 400, body: { field: 'limitId' } });
  });
});

it('batches are read a page at a time, and one that is done between two pages costs no other its place', async () => {
  const planned: string[] = [];
  for (let i = 0; i < 5; i += 1) planned.push((await plan('fish-fumet', [(await pieces()).frame])).id);
  await say(planned[1] ?? '', { kind: 'start' });
  await finish(planned[0] ?? '', grams(300));
  const all = (await must(ines, api.pots.list, { query: { limit: 200 } })).batches;
  expect(all.findIndex((r) => r.state === 'on')).toBe(0);
  expect(all.findIndex((r) => r.state === 'done')).toBeGreaterThan(all.findLastIndex((r) => r.state === 'planned'));
  const read = async (between: () => Promise<unknown> = async () => undefined): Promise<string[]> => {
    const ids: string[] = [];
    let cursor: string | undefined;
    do {
      const page = await must(ines, api.pots.list, { query: { limit: 2, cursor } });
      expect(page.batches.length).toBeLessThanOrEqual(2);
      ids.push(...page.batches.map((r) => r.id));
      cursor = page.next ?? undefined;
      if (ids.length === 2) await between();
    } while (cursor !== undefined);
    return ids;
  };
  expect(await read()).toEqual(all.map((r) => r.id));
  // the first of all goes to the end of those on or planned while one reads: nobody else is left out
  const seen = await read(() => finish(planned[1] ?? '', grams(300)));
  expect(new Set(seen)).toEqual(new Set(all.map((r) => r.id)));
  expect(await ines.ask(api.pots.list, { query: { cursor: '3' } })).toMatchObject({ status: 400 });
});
