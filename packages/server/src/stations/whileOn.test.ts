/** What happens to a pot while it is on, and to what it makes: lots that join, the log of its cooling, goods as its base, plates, photographs, own minutes. */
import { recipeById } from '@zabrik/catalogue';
import { type Ask, api, type ListedPlate } from '@zabrik/contract';
import { grams, kilograms } from '@zabrik/core';
import { v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { select } from '../db/select.ts';
import { openTestKitchen, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import {
  closedHake,
  hakeLots,
  hakePieces,
  must,
  received,
  smallestPng,
  takeBody,
  weighedAndClosed,
} from '../testing/work.ts';

let kitchen: TestKitchen;
let ines: Tablet;
let maren: Tablet;
beforeAll(async () => {
  kitchen = await openTestKitchen();
  ines = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
  maren = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
});
afterAll(() => kitchen.stop());

type Said = Ask<typeof api.pots.event>['body']['body'];
const say = (batchId: string, body: Said) =>
  must(ines, api.pots.event, { params: { batchId }, body: { at: new Date().toISOString(), body } });
const refused = (batchId: string, body: Said) =>
  ines.ask(api.pots.event, { params: { batchId }, body: { at: new Date().toISOString(), body } });
const plan = (recipeId: string, lotIds: string[], o: Partial<Ask<typeof api.pots.plan>['body']> = {}) =>
  must(ines, api.pots.plan, { body: { recipeId, lotIds, vesselId: null, onHandMg: {}, ...o } });
const read = (batchId: string) => must(ines, api.pots.read, { params: { batchId } });
const finish = (batchId: string, outputMg: number, spentMg = 0) =>
  must(ines, api.pots.finish, { params: { batchId }, body: { outputMg, spentMg, note: null } });
const free = async (lotId: string): Promise<number> =>
  (
    await select<{ free: number }>(
      kitchen.services.db,
      'select (mass_mg - reserved_mg)::float8 as free from lot_balance where lot_id = $1',
      [lotId],
    )
  )[0]?.free ?? -1;
const pieces = () => hakeLots(kitchen, ines);
const join = (lotId: string, g: number): Said => ({ kind: 'join', lotId, name: 'x', massMg: grams(g) });

describe('a lot joins a pot that is on', () => {
  it('is promised to it, comes out of it with its cost and its trace, and is free again when it is taken back', async () => {
    const first = await pieces();
    const second = await pieces();
    const batch = await plan('fish-fumet', [first.frame]);
    const at = await say(batch.id, join(second.frame, 300));
    expect(await free(second.frame)).toBe(grams(168));
    expect(await read(batch.id)).toMatchObject({
      baseMg: grams(768),
      // bones are strained out: more of them give no more fumet
      expectedMg: batch.expectedMg,
      inputs: [
        { lotId: first.frame, massMg: grams(468), as: 'base' },
        { lotId: second.frame, massMg: grams(300), as: 'base' },
      ],
    });
    await say(batch.id, { kind: 'back', eventId: at.id });
    expect(await free(second.frame)).toBe(grams(468));
    expect((await read(batch.id)).inputs).toHaveLength(1);
    await say(batch.id, join(second.frame, 100));
    await say(batch.id, join(second.frame, 50));
    expect((await read(batch.id)).inputs.at(-1)).toMatchObject({ massMg: grams(150) });
    const done = await finish(batch.id, grams(400), grams(550));
    expect(await free(second.frame)).toBe(grams(318));
    const lines = await select<{ lot_id: string | null; mass: number }>(
      kitchen.services.db,
      'select lot_id, mass_mg::float8 as mass from posting where movement_id = $1 and lot_id is not null order by mass_mg',
      [done.movementId],
    );
    expect(lines).toEqual([
      { lot_id: first.frame, mass: -grams(468) },
      { lot_id: second.frame, mass: -grams(150) },
      { lot_id: done.outputLot?.id, mass: grams(400) },
    ]);
  });

  it('is refused where the recipe would have refused it: oily bones, more than is free, heads above their share', async () => {
    const { frame, head } = await pieces();
    const other = await pieces();
    const batch = await plan('fish-fumet', [frame]);
    expect(await refused(batch.id, join(other.frame, 469))).toMatchObject({
      status: 409,
      body: { code: 'not_enough', detail: expect.stringContaining('468 g') },
    });
    // 468 g of frame carry 117 g of head, and not 130
    expect(await refused(batch.id, join(head, 130))).toMatchObject({
      status: 409,
      body: { code: 'nothing_accepted', detail: expect.stringContaining('22 %') },
    });
    await say(batch.id, join(head, 117));
    expect(await refused(batch.id, join(other.fillet, 100))).toMatchObject({ body: { code: 'nothing_accepted' } });
    expect(await refused(batch.id, join(uuidv7(), 100))).toMatchObject({ status: 404 });
    expect((await read(batch.id)).baseMg).toBe(grams(585));
    await must(ines, api.pots.cancel, { params: { batchId: batch.id }, body: {} });
    expect(await free(head)).toBe(grams(536));
  });

  it('raw is refused once what is in it was cooked through, until that step is taken back', async () => {
    const { frame, pin } = await pieces();
    const batch = await plan('fish-fumet', [frame]);
    const step = recipeById.get('fish-fumet')?.steps.findIndex((s) => s.kills === true) ?? -1;
    const { recipe } = await read(batch.id);
    const here = recipe.steps.findIndex((s) => s.kills === true);
    expect(step).toBeGreaterThanOrEqual(0);
    const cooked = await say(batch.id, { kind: 'step', step: here, skipped: false });
    expect(await refused(batch.id, join(pin, 20))).toMatchObject({
      status: 409,
      body: { code: 'nothing_accepted', detail: expect.stringContaining(`step ${here + 1}`) },
    });
    await say(batch.id, { kind: 'back', eventId: cooked.id });
    await say(batch.id, join(pin, 20));
    await must(ines, api.pots.cancel, { params: { batchId: batch.id }, body: {} });
  });

  it('of two tablets that join the last of a lot at once, one has it', async () => {
    const a = await pieces();
    const b = await pieces();
    const one = await plan('fish-fumet', [a.frame]);
    const two = await plan('fish-fumet', [b.frame]);
    const third = await pieces();
    const replies = await Promise.all([
      refused(one.id, join(third.frame, 400)),
      refused(two.id, join(third.frame, 400)),
    ]);
    expect(replies.map((r) => r.status).sort()).toEqual([200, 409]);
    expect(await free(third.frame)).toBe(grams(68));
    for (const { id } of [one, two]) await must(ines, api.pots.cancel, { params: { batchId: id }, body: {} });
  });
});

describe('the log of a cooling', () => {
  const setup = {
    mediumId: 'cold-room-open',
    vesselName: '12 l pot',
    vessel: { kind: 'round', diameterMm: 260, heightMm: 230 },
    count: 1,
    litres: 5,
    airC: 3,
    setsAtC: null,
  } as const;
  it('begins in its step, and is the lot’s that comes out', async () => {
    const { frame } = await pieces();
    const batch = await plan('fish-fumet', [frame]);
    const id = uuidv7();
    const at = new Date().toISOString();
    const body = {
      id,
      kind: 'cooling',
      lotId: null,
      batchId: batch.id,
      name: 'Fish fumet',
      setup,
      limitId: null,
      at,
      centiC: 8_500,
      source: 'probe',
    } as const;
    expect(await must(ines, api.pots.startCooling, { body })).toMatchObject({ lot: null, batchId: batch.id });
    const done = await finish(batch.id, grams(400), grams(460));
    const { open } = await must(ines, api.pots.coolings, {});
    expect(open.find((c) => c.id === id)?.lot?.id).toBe(done.outputLot?.id);
    const late = { ...body, id: uuidv7() };
    expect((await must(ines, api.pots.startCooling, { body: late })).lot?.id).toBe(done.outputLot?.id);
    expect(await ines.ask(api.pots.startCooling, { body: { ...body, id: uuidv7(), batchId: uuidv7() } })).toMatchObject(
      { status: 404 },
    );
  });
});

describe('goods', () => {
  it('are the base of a recipe of the house’s own, and an ingredient where the recipe says so', async () => {
    const soup = {
      ...recipeById.get('fish-fumet'),
      id: 'leek-soup',
      version: 1,
      kind: 'staff-dish',
      title: 'Leek soup',
      baseName: 'leeks',
      accepts: [],
      acceptsGoods: ['leek'],
      takes: 'raw',
      caps: [],
      refuses: [],
      questions: [],
      byProducts: [],
      allergens: [],
      ingredients: [
        {
          id: 'dairy',
          name: 'butter',
          perBase: 0.1,
          low: 0.05,
          high: 0.2,
          allergens: ['milk'],
          acceptsGoods: ['butter'],
        },
      ],
      output: { name: 'soup', low: 0.8, mean: 0.9, high: 1, measure: 'mass' },
      steps: [{ kind: 'cook', text: 'Sweat, wet, blend.', kills: true }],
    };
    const { baseStrained: _, ...recipe } = soup;
    await must(maren, api.pots.saveRecipe, {
      body: { recipe: recipe as never, from: 0, retired: false, note: 'from nothing' },
    });
    const leeks = await received(kitchen, ines, { species: null, form: null, goods: 'leek', grossMg: grams(1_412) });
    const butter = await received(kitchen, ines, { species: null, form: null, goods: 'butter', grossMg: grams(912) });
    const batch = await plan('leek-soup', [leeks.lotId]);
    expect(batch).toMatchObject({ baseMg: kilograms(1), foods: [] });
    const done = await finish(batch.id, grams(900));
    expect(await free(leeks.lotId)).toBe(0);
    // the butter came out of the larder: it is called dairy in this recipe
    expect(await free(butter.lotId)).toBe(grams(400));
    const made = await must(ines, api.larder.read, { params: { lotId: done.outputLot?.id ?? '' } });
    expect(made.allergens).toEqual(['milk']);
    const strange = { ...recipe, id: 'gold-soup', acceptsGoods: ['gold'] };
    expect(
      await maren.ask(api.pots.saveRecipe, {
        body: { recipe: strange as never, from: 0, retired: false, note: 'x' },
      }),
    ).toMatchObject({ status: 400, body: { detail: 'There are no goods gold.' } });
  });
});

describe('plates', () => {
  const hake = {
    id: 'hake-cream',
    version: 1,
    title: 'Hake, cream',
    components: [
      { name: 'hake', of: { kind: 'pieces', category: 'white-fish-fillet', species: 'hake' }, count: 1, grams: 800 },
      { name: 'cream', of: { kind: 'goods', goods: 'cream' }, count: null, grams: 100 },
      { name: 'fumet', of: { kind: 'batch', recipeId: 'fish-fumet' }, count: null, grams: 60 },
    ],
  } as const;
  const of = (plates: readonly ListedPlate[]) => plates.find((p) => p.plate.id === hake.id);
  it('say how many lie ready, what keeps them from being more, and what one costs; nothing that is held back counts', async () => {
    const { closed } = await closedHake(kitchen, ines);
    const fillets = closed.lots.filter((l) => l.name.toLowerCase().includes('fillet'));
    const cream = await received(kitchen, ines, {
      species: null,
      form: null,
      goods: 'cream',
      grossMg: grams(662),
      paidMinor: 500,
    });
    const [filletLot] = await select<{ category: string }>(
      kitchen.services.db,
      'select category from lot where id = $1',
      [fillets[0]?.lotId],
    );
    const plate = {
      ...hake,
      components: hake.components.map((c) =>
        c.of.kind === 'pieces' ? { ...c, of: { ...c.of, category: filletLot?.category ?? '' } } : c,
      ),
    };
    const saved = await must(maren, api.pots.savePlate, { body: { plate, from: 0, retired: false } });
    expect(saved.plate.version).toBe(1);
    const [fish, sauce] = saved.figures.components;
    expect(sauce).toMatchObject({ covers: 2, onHandMg: grams(250), perCoverMinor: 200 });
    expect(fish?.covers).toBeGreaterThanOrEqual(2);
    expect(saved.allergens).toEqual(expect.arrayContaining(['fish/hake', 'milk']));
    await must(maren, api.larder.keep, { params: { lotId: cream.lotId }, body: { kind: 'hold', reason: 'smells' } });
    const held = of((await must(ines, api.pots.plates, {})).plates);
    expect(held?.figures).toMatchObject({ covers: 0 });
    expect(held?.figures.unknownCost).toContain('cream');
    expect(held?.allergens).toContain('milk');
  });
  it('count what a batch was made for and not what came out beside it, and nothing frozen; unknown is not none', async () => {
    const { frame } = await pieces();
    const any = {
      id: 'any-fish',
      version: 1,
      title: 'Any fish, demi',
      components: [
        { name: 'fish', of: { kind: 'pieces', category: 'oily-fish-portion', species: null }, count: 1, grams: 150 },
        { name: 'fumet', of: { kind: 'batch', recipeId: 'fish-fumet' }, count: null, grams: 50 },
        { name: 'demi', of: { kind: 'batch', recipeId: 'demi' }, count: null, grams: 50 },
      ],
    } as const;
    const figuresOf = async () =>
      (await must(ines, api.pots.plates, {})).plates.find((p) => p.plate.id === any.id)?.figures.components[1];
    const saved = await must(maren, api.pots.savePlate, {
      body: { plate: { ...any, components: [...any.components] }, from: 0, retired: false },
    });
    expect(saved.unknownAllergens).toEqual(expect.arrayContaining(['fish', 'demi']));
    const before = (await figuresOf())?.onHandMg ?? 0;
    const batch = await plan('fish-fumet', [frame]);
    const done = await must(ines, api.pots.finish, {
      params: { batchId: batch.id },
      body: { outputMg: grams(300), spentMg: grams(400), spentTo: 'wash', fatMg: grams(20), note: null },
    });
    expect((await figuresOf())?.onHandMg).toBe(before + grams(300));
    await must(ines, api.larder.keep, {
      params: { lotId: done.outputLot?.id ?? '' },
      body: { kind: 'freeze', placeId: 'freezer' },
    });
    expect((await figuresOf())?.onHandMg).toBe(before);
  });
  it('keep their versions, are refused with what is nothing here, and are taken off', async () => {
    const again = { ...hake, title: 'Hake, cream, late', components: hake.components.slice(1) };
    expect(
      await maren.ask(api.pots.savePlate, { body: { plate: again as never, from: 0, retired: false } }),
    ).toMatchObject({ status: 409, body: { code: 'changed_since' } });
    const next = await must(maren, api.pots.savePlate, { body: { plate: again as never, from: 1, retired: false } });
    expect(next.plate).toMatchObject({ version: 2, title: 'Hake, cream, late' });
    const strange = { ...again, components: [{ ...hake.components[1], of: { kind: 'goods', goods: 'gold' } }] };
    expect(
      await maren.ask(api.pots.savePlate, { body: { plate: strange as never, from: 2, retired: false } }),
    ).toMatchObject({ status: 400, body: { detail: 'cream: there are no such goods.' } });
    expect(
      await ines.ask(api.pots.savePlate, { body: { plate: again as never, from: 2, retired: false } }),
    ).toMatchObject({
      status: 403,
    });
    await must(maren, api.pots.savePlate, { body: { plate: again as never, from: 2, retired: true } });
    expect(of((await must(ines, api.pots.plates, {})).plates)).toMatchObject({ retired: true, plate: { version: 3 } });
  });
});

describe('photographs of how it should look', () => {
  it('are kept by the house and named by a step; one of nowhere is refused', async () => {
    const { id } = await must(maren, api.pots.photograph, { body: { base64: smallestPng } });
    const fumet = recipeById.get('fish-fumet');
    if (fumet === undefined) throw new Error('no fumet');
    const shown = (photo: string) => ({
      ...fumet,
      id: 'fumet-shown',
      photo,
      steps: fumet.steps.map((s, i) => (i === 0 ? { ...s, photo } : s)),
    });
    const body = (photo: string) => ({
      recipe: shown(photo) as never,
      from: 0,
      retired: false,
      note: 'with a picture',
    });
    const wrong = await maren.ask(api.pots.saveRecipe, { body: body(uuidv7()) });
    expect(wrong).toMatchObject({ status: 400, body: { detail: expect.stringContaining('not in this house') } });
    const saved = await must(maren, api.pots.saveRecipe, { body: body(id) });
    expect(saved.recipe.steps[0]?.photo).toBe(id);
    expect(
      await maren.ask(api.pots.photograph, { body: { base64: Buffer.from('no picture at all').toString('base64') } }),
    ).toMatchObject({ status: 400, body: { code: 'not_a_picture' } });
    expect(await ines.ask(api.pots.photograph, { body: { base64: smallestPng } })).toMatchObject({ status: 403 });
  });
});

describe('own minutes of a step on the bench', () => {
  it('are the middle of the last times, of the same plan, species and form', async () => {
    const stage = 'round-fish-two-fillets';
    const sheet = await must(maren, api.bench.plan, { params: { planId: stage } });
    const [first, ...rest] = sheet.plan.stages;
    if (first === undefined) throw new Error('no stage');
    const timed = first.steps.map((s, i) => (i === 0 ? { ...s, minutes: { low: 5, typical: 10, high: 20 } } : s));
    const own = { ...sheet.plan, id: 'fillets-timed', stages: [{ ...first, steps: timed }, ...rest] };
    await must(maren, api.bench.savePlan, { body: { plan: own as never, basedOn: 0 } });
    const begin = async () => {
      const { lotId } = await received(kitchen, ines);
      return must(ines, api.bench.start, { body: { lotId, planId: 'fillets-timed', animals: 1, massMg: null } });
    };
    const from = Date.parse('2026-11-24T10:00:00.000Z');
    const at = (minute: number): string => new Date(from + minute * 60_000).toISOString();
    for (const minutes of [8, 14]) {
      const { id, ownTimes } = await begin();
      expect(ownTimes).toEqual([]);
      const params = { breakdownId: id };
      await must(ines, api.bench.event, {
        params,
        body: { kind: 'timer', step: 0, label: 'rest', dueAt: at(10), at: at(0) },
      });
      await must(ines, api.bench.event, {
        params,
        body: { kind: 'step', step: 0, mark: 'done', note: null, at: at(minutes) },
      });
      await weighedAndClosed(ines, id, hakePieces);
    }
    const { id, ownTimes } = await begin();
    expect(ownTimes).toEqual([{ step: 0, minutes: 11, batches: 2 }]);
    await must(ines, api.bench.weigh, { params: { breakdownId: id }, body: takeBody('frame', 'stock', 468) });
  });
});
