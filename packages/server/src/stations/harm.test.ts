/** What could hurt a guest, through the API: dates, what is cooked and what is raw, allergens, wild game, mass that was never food. */
import { type Ask, api } from '@zabrik/contract';
import { grams } from '@zabrik/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { usualProfile } from '../db/limits.ts';
import { select } from '../db/select.ts';
import { openTestKitchen, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { closedHake, must, received, takeBody } from '../testing/work.ts';

let kitchen: TestKitchen;
let ines: Tablet;
let maren: Tablet;
beforeAll(async () => {
  kitchen = await openTestKitchen();
  ines = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
  maren = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
});
afterAll(() => kitchen.stop());

const read = (lotId: string) => must(ines, api.larder.read, { params: { lotId } });
const plan = (recipeId: string, lotIds: string[], o: Partial<Ask<typeof api.pots.plan>['body']> = {}) =>
  must(ines, api.pots.plan, { body: { recipeId, lotIds, vesselId: null, onHandMg: {}, ...o } });
const finish = (batchId: string, outputMg: number, o: Partial<Ask<typeof api.pots.finish>['body']> = {}) =>
  must(ines, api.pots.finish, { params: { batchId }, body: { outputMg, spentMg: null, note: null, ...o } });
const frame = async () =>
  (await closedHake(kitchen, ines)).closed.lots.find((l) => l.name.toLowerCase().includes('frame'))?.lotId ?? '';
const todayIn = (days = 0) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);
const lines = (movementId: string | null) =>
  select<{ lotId: string | null; sink: string | null; reason: string | null; mass: number; cost: number }>(
    kitchen.services.db,
    'select lot_id as "lotId", sink, reason, mass_mg as mass, cost_minor as cost from posting where movement_id = $1 order by id',
    [movementId],
  );

/** A crab boiled, with its meat dated as it is told. */
async function boiledCrab(useBy: string) {
  const crab = await received(kitchen, ines, {
    species: 'brown-crab',
    form: 'whole',
    came: 'live',
    grossMg: grams(3_600),
    tareMg: 0,
    useBy,
  });
  const batch = await plan('crustacean-boil', [crab.lotId]);
  return { crab, batch };
}

describe('what is boiled in water', () => {
  it('is no heavier for the water, which is poured away and not paid for as steam', async () => {
    const { batch } = await boiledCrab(todayIn(2));
    expect(batch.expectedMg.mean).toBeLessThanOrEqual(grams(3_600));
    const done = await finish(batch.id, grams(3_400), { labourMinutes: 0 });
    const booked = await lines(done.movementId);
    const water = batch.ingredients.reduce((sum, i) => sum + i.massMg, 0);
    const poured = booked.find((l) => l.reason === 'poured away')?.mass ?? 0;
    expect(poured).toBe(water);
    const gone = booked.find((l) => l.reason === 'evaporation')?.mass ?? 0;
    expect(gone).toBe(grams(200));
    // by hand: all of it heated by 80 K at 4 kJ a kilo and degree, 0.2 kg as steam at 2,256.5 kJ, half of it lost beside the pot, 24 a kWh
    const kWh = (((grams(3_600) + water) / 1e6) * 4 * 80 + 0.2 * 2_256.5) / 3_600 / 0.5;
    expect(booked.find((l) => l.reason === 'energy')?.cost).toBe(-Math.round(kWh * 24));
    expect(booked.reduce((sum, l) => sum + l.mass, 0)).toBe(0);
  });

  it('keeps its by-products apart: a lot of their own with a worth, or the bin with a reason', async () => {
    const trotters = await received(kitchen, ines, {
      species: 'pork',
      form: 'trotter',
      animals: 2,
      grossMg: grams(1_200),
      tareMg: 0,
      useBy: todayIn(3),
    });
    const batch = await plan('braise-and-hold', [trotters.lotId], { ways: ['no-sear'] }).catch(() => undefined);
    if (batch === undefined) throw new Error('a trotter is braised');
    const wrong = await ines.ask(api.pots.finish, {
      params: { batchId: batch.id },
      body: { outputMg: grams(700), spentMg: null, note: null, beside: [{ id: 'feathers', massMg: 1, kept: true }] },
    });
    expect(wrong).toMatchObject({ status: 400, body: { field: 'beside' } });
    const done = await finish(batch.id, grams(780), {
      beside: [
        { id: 'liquor', massMg: grams(820), kept: true },
        { id: 'bones', massMg: grams(150), kept: false },
      ],
      keptAs: 'chilled',
    });
    const booked = await lines(done.movementId);
    expect(booked.find((l) => l.reason === 'braise-and-hold/bones')).toMatchObject({ sink: 'waste', mass: grams(150) });
    const { lots } = await must(ines, api.larder.list, { query: { search: 'braising liquor', limit: 10 } });
    expect(lots[0]).toMatchObject({ massMg: grams(820), ready: true, destination: 'larder' });
    // the stock was the pantry's: its celery is in the braise and in the liquor
    expect(lots[0]?.allergens).toEqual(expect.arrayContaining(['celery']));
    expect(booked.reduce((sum, l) => sum + l.cost, 0)).toBe(0);
    const meat = await read(done.outputLot?.id ?? '');
    expect(meat).toMatchObject({ useBy: todayIn(3), dateMaxC: 3 });
    // five degrees is within the law's eight, and outside what three days of keeping presume
    await must(ines, api.larder.keep, { params: { lotId: meat.id }, body: { kind: 'reading', centiC: 500 } });
    const judged = (await read(meat.id)).judged.map((j) => [j.about, j.verdict]);
    expect(judged).toEqual([
      ['storage', 'within'],
      ['date', 'outside'],
    ]);
  });
});

describe('a date', () => {
  it('is of the state said at the end, and of no state the recipe does not know', async () => {
    const batch = await plan('fish-fumet', [await frame()]);
    const wrong = await ines.ask(api.pots.finish, {
      params: { batchId: batch.id },
      body: { outputMg: grams(400), spentMg: null, note: null, keptAs: 'under-fat' },
    });
    expect(wrong).toMatchObject({ status: 400, body: { field: 'keptAs' } });
    const done = await finish(batch.id, grams(400), { keptAs: 'chilled' });
    expect(await read(done.outputLot?.id ?? '')).toMatchObject({ useBy: todayIn(2), dateMaxC: 3 });
  });
});

describe('allergens', () => {
  it('of a fumet sweated in butter have milk, of one that is not have none', async () => {
    const made = async (ways: string[]) => {
      const batch = await plan('fish-fumet', [await frame()], { ways });
      return (await read((await finish(batch.id, grams(400))).outputLot?.id ?? '')).allergens;
    };
    expect(await made(['sweat'])).toEqual(['fish/hake', 'milk', 'celery', 'sulphites']);
    expect(await made(['cold'])).toEqual(['fish/hake', 'celery', 'sulphites']);
  });

  it('of a recipe of the house’s own have to be said before it is saved', async () => {
    const { recipes } = await must(maren, api.pots.recipes, {});
    const ragu = recipes.find((u) => u.recipe.id === 'ragu')?.recipe;
    if (ragu === undefined) throw new Error('no ragu');
    const own = {
      ...ragu,
      id: 'our-ragu',
      title: 'Our ragu',
      version: 1,
      // its ways change what is not in ours
      questions: [],
      steps: ragu.steps.map(({ ways: _, ...step }) => step),
      allergens: [],
      ingredients: [
        { id: 'paste', name: 'a paste', perBase: 0.1, low: 0, high: 1, allergens: [], unsaid: true as const },
      ],
    };
    const unsaid = await maren.ask(api.pots.saveRecipe, {
      body: { recipe: own, from: 0, retired: false, note: 'ours' },
    });
    expect(unsaid).toMatchObject({ status: 400, body: { field: 'recipe.ingredients.0.allergens' } });
    const [{ unsaid: _, ...paste }] = own.ingredients as [(typeof own.ingredients)[0]];
    const saved = await must(maren, api.pots.saveRecipe, {
      body: {
        recipe: { ...own, ingredients: [{ ...paste, allergens: ['nuts/almond'] }] },
        from: 0,
        retired: false,
        note: 'ours',
      },
    });
    expect(saved.recipe.ingredients[0]?.allergens).toEqual(['nuts/almond']);
    // the handbook's cream cannot be said to have no milk
    const mousseline = recipes.find((u) => u.recipe.id === 'poultry-mousseline')?.recipe;
    if (mousseline === undefined) throw new Error('no mousseline');
    const cleared = await must(maren, api.pots.saveRecipe, {
      body: {
        recipe: { ...mousseline, ingredients: mousseline.ingredients.map((i) => ({ ...i, allergens: [] })) },
        from: mousseline.version,
        retired: false,
        note: 'x',
      },
    });
    expect(cleared.recipe.ingredients.find((i) => i.id === 'cream')?.allergens).toEqual(['milk']);
  });

  it('a stock, a gravy of it and a filling with the gravy, written from nothing, carry what is in them all the way', async () => {
    const ingredient = (id: string, perBase: number, allergens: string[], more: object = {}) => ({
      id,
      name: id,
      perBase,
      low: perBase / 2,
      high: perBase * 2,
      allergens,
      ...more,
    });
    const blank = {
      version: 1,
      acceptsUses: [],
      takes: 'any' as const,
      trays: [],
      refuses: [],
      caps: [],
      questions: [],
      ready: true,
      marks: [],
      vessel: 'pot' as const,
      minutes: { low: 10, typical: 20, high: 40 },
      cautions: [],
      keeps: [],
      shelfLifeDays: 2,
      allergens: [],
      provenance: 'estimate' as const,
      source: 'ours',
      steps: [{ kind: 'boil' as const, text: 'Boil it.', kills: true as const }],
    };
    const output = (name: string, mean: number, measure: 'litres' | 'mass') => ({
      name,
      low: mean / 2,
      mean,
      high: mean * 2,
      measure,
    });
    const own = [
      {
        ...blank,
        id: 'quay-stock',
        kind: 'stock' as const,
        title: 'Quay stock',
        baseName: 'frames',
        accepts: ['white-fish-frame'],
        baseStrained: true as const,
        ingredients: [ingredient('water', 1, []), ingredient('lovage', 0.02, ['celery'], { becomes: 'strained' })],
        output: output('stock', 0.9, 'litres'),
      },
      {
        ...blank,
        id: 'quay-gravy',
        kind: 'pan-sauce' as const,
        title: 'Quay gravy',
        baseName: 'stock',
        accepts: [],
        acceptsUses: ['quay-stock'],
        ingredients: [ingredient('roux', 0.06, ['gluten/wheat', 'milk'])],
        output: output('gravy', 0.8, 'litres'),
      },
      {
        ...blank,
        id: 'quay-filling',
        kind: 'filling' as const,
        title: 'Quay filling',
        baseName: 'trim',
        accepts: ['white-fish-trim'],
        ingredients: [
          ingredient('gravy', 0.4, [], { acceptsUses: ['quay-gravy'] }),
          ingredient('mustard', 0.01, ['mustard']),
        ],
        output: output('filling', 1.3, 'mass'),
      },
    ];
    const keep = (recipe: (typeof own)[number]) =>
      must(maren, api.pots.saveRecipe, {
        body: { recipe: recipe as never, from: 0, retired: false, note: 'from nothing' },
      });
    // a gravy of a stock that nobody has written yet is no gravy
    expect(
      await maren.ask(api.pots.saveRecipe, {
        body: { recipe: own[1] as never, from: 0, retired: false, note: 'too early' },
      }),
    ).toMatchObject({ status: 400, body: { field: 'recipe.acceptsUses' } });
    for (const recipe of own) await keep(recipe);
    const make = async (id: string, lotIds: string[], out: number) => {
      const batch = await plan(id, lotIds);
      const done = await finish(batch.id, grams(out));
      return read(done.outputLot?.id ?? '');
    };
    const stock = await make('quay-stock', [await frame()], 400);
    expect(stock).toMatchObject({ name: 'Quay stock', allergens: ['fish/hake', 'celery'] });
    const gravy = await make('quay-gravy', [stock.id], 300);
    expect(gravy.allergens).toEqual(['gluten/wheat', 'fish/hake', 'milk', 'celery']);
    const { closed } = await closedHake(kitchen, ines);
    const belly = closed.lots.find((l) => l.name.includes('belly'))?.lotId ?? '';
    const batch = await plan('quay-filling', [belly, gravy.id]);
    expect(batch.inputs.map((i) => i.as).sort()).toEqual(['base', 'gravy']);
    const filling = await read((await finish(batch.id, grams(90))).outputLot?.id ?? '');
    expect(filling.allergens).toEqual(['gluten/wheat', 'fish/hake', 'milk', 'celery', 'mustard']);
  });

  it('of what went in at the bench stand on what comes off it', async () => {
    const mussels = await received(kitchen, ines, {
      species: 'mussel',
      form: 'whole',
      came: 'live',
      animals: 60,
      grossMg: grams(2_000),
      tareMg: 0,
    });
    const bench = await must(ines, api.bench.start, {
      body: { lotId: mussels.lotId, planId: 'shellfish-steamed-picked', animals: 60, massMg: null },
    });
    const params = { breakdownId: bench.id };
    for (const [piece, tray, g] of [
      ['reject', 'waste', 60],
      ['shell', 'waste', 1_000],
      ['meat', 'portion', 500],
      ['liquor', 'stock', 380],
    ] as const)
      await must(ines, api.bench.weigh, { params, body: takeBody(piece, tray, g) });
    const unsaid = await ines.ask(api.bench.close, { params, body: { unbalancedReason: 'steam' } });
    expect(unsaid).toMatchObject({ status: 409, body: { code: 'say_if_cooked' } });
    const cooked = { through: true, coreCentiC: 8_600, placeId: null, added: ['wine'] };
    const strange = await ines.ask(api.bench.close, {
      params,
      body: { unbalancedReason: 'steam', cooked: { ...cooked, added: ['gunpowder'] } },
    });
    expect(strange.status).toBe(400);
    const closed = await must(ines, api.bench.close, { params, body: { unbalancedReason: 'steam', cooked } });
    const meat = await read(closed.lots.find((l) => l.name.includes('meat'))?.lotId ?? '');
    expect(meat).toMatchObject({ ready: true, useBy: todayIn(1), allergens: ['sulphites', 'molluscs/mussel'] });
    expect(meat.readings.map((r) => r.centiC)).toEqual([8_600]);
    expect(meat.dateBasis).toMatch(/steamed, core 86\.0 °C/);
    // and on its last day it is dressed: what is only put together is no younger than the oldest thing in it
    await must(maren, api.larder.keep, {
      params: { lotId: meat.id },
      body: { kind: 'date', useBy: todayIn(), reason: 'eaten today', confirmed: true },
    });
    const batch = await plan('seafood-garnish', [meat.id]);
    const dressed = await read((await finish(batch.id, grams(480))).outputLot?.id ?? '');
    expect(dressed).toMatchObject({ useBy: todayIn(), dateBasis: expect.stringContaining('the oldest date') });
    expect(dressed.allergens).toEqual(['sulphites', 'molluscs/mussel']);
  });
});

describe('wild game', () => {
  const pigeons = (o: object) => ({
    species: 'wood-pigeon',
    form: 'whole',
    animals: 4,
    supplierId: kitchen.home?.suppliers.get('Bram Quay Fish') ?? '',
    origin: null,
    grossMg: grams(1_800),
    tareMg: 0,
    invoiceMg: grams(1_800),
    paidMinor: 1_000,
    temperatureCentiC: 300,
    landedOn: null,
    useBy: null,
    note: null,
    ...o,
  });

  it('without a record is asked about, and taken in on hold', async () => {
    const none = await ines.ask(api.receive.accept, { body: pigeons({}) });
    expect(none).toMatchObject({ status: 409, body: { code: 'needs_confirmation' } });
    const line = await must(ines, api.receive.accept, { body: pigeons({ confirmed: true }) });
    const lot = await read(line.lotId ?? '');
    expect(lot).toMatchObject({ raised: 'wild', held: expect.stringContaining('No record') });
    expect(
      await ines.ask(api.bench.start, {
        body: { lotId: lot.id, planId: 'small-game-bird-breasts', animals: 4, massMg: null },
      }),
    ).toMatchObject({ status: 409, body: { code: 'on_hold' } });
  });

  it('with its record is not, and what was raised is asked for none', async () => {
    const whole = await must(ines, api.receive.accept, { body: pigeons({ details: { declaration: '417' } }) });
    expect((await read(whole.lotId ?? '')).held).toBeNull();
    const raised = await must(ines, api.receive.accept, {
      body: pigeons({ species: 'roe-deer', form: 'saddle', animals: 1, details: { raised: 'farmed' } }),
    }).catch(() => undefined);
    if (raised !== undefined) expect((await read(raised.lotId ?? '')).raised).toBe('farmed');
    const rabbit = await must(ines, api.receive.accept, {
      body: pigeons({ species: 'rabbit', animals: 1, temperatureCentiC: 500 }),
    });
    // 4 °C for a rabbit, farmed or wild, not the 7 of large game
    expect(rabbit.judged).toMatchObject({ verdict: 'outside', limitId: 'uk.recv.poultry' });
  });
});

it('a house is judged by its own country’s limits until it says otherwise', () => {
  const of = (...zones: string[]) => zones.map(usualProfile);
  expect(new Set(of('America/Toronto', 'America/Sao_Paulo', 'America/Mexico_City', 'Europe/Paris'))).toEqual(
    new Set(['eu']),
  );
  expect(new Set(of('America/New_York', 'Pacific/Honolulu', 'America/Indiana/Knox', 'America/Puerto_Rico'))).toEqual(
    new Set(['us-food-code-2022']),
  );
  expect(new Set(of('Europe/London', 'Europe/Belfast', 'Europe/Jersey'))).toEqual(new Set(['uk']));
});

describe('what is past its date', () => {
  const old = () =>
    received(kitchen, ines, { species: 'hake', form: 'gutted', grossMg: grams(1_836), tareMg: 0, useBy: todayIn(-1) });

  it('is not put on the bench, nor under the knife, before somebody has read it', async () => {
    const lot = await old();
    const start = { lotId: lot.lotId, planId: 'round-fish-two-fillets', animals: 1, massMg: null, way: null };
    const asked = await ines.ask(api.bench.start, { body: start });
    expect(asked.status).toBe(409);
    expect(JSON.stringify(asked.body)).toMatch(/needs_confirmation.*is past its date/);
    const cut = {
      id: crypto.randomUUID(),
      kind: 'portions' as const,
      from: [{ lotId: lot.lotId, massMg: null }],
      at: new Date().toISOString(),
    };
    const refused = await ines.ask(api.cutting.start, { body: cut });
    expect(JSON.stringify(refused.body)).toContain('needs_confirmation');
    expect(await must(ines, api.cutting.start, { body: { ...cut, confirmed: true } })).toMatchObject({ state: 'open' });
  });

  it('is not opened unasked, nor set down in the dry store', async () => {
    const lot = await old();
    const keep = (body: Ask<typeof api.larder.keep>['body']) =>
      ines.ask(api.larder.keep, { params: { lotId: lot.lotId }, body });
    const open = await keep({ kind: 'open', massMg: null });
    expect(JSON.stringify(open.body)).toMatch(/needs_confirmation.*past its date/);
    const places = (await must(ines, api.house.read, {})).places;
    const dry = places.find((p) => p.kind === 'ambient')?.id ?? '';
    const moved = await keep({ kind: 'move', placeId: dry, massMg: null });
    expect(JSON.stringify(moved.body)).toMatch(/needs_confirmation.*keeps only in the cold/);
    expect((await read(lot.lotId)).placeId).not.toBe(dry);
  });
});

describe('curing salt', () => {
  it('is asked for by kind and aim, and the batch weighs it so: tenfold more of the weak kind', async () => {
    const pork = () =>
      received(kitchen, ines, {
        species: 'pork',
        form: 'belly',
        grossMg: grams(2_000),
        tareMg: 0,
        useBy: todayIn(3),
      });
    const unsaid = await ines.ask(api.pots.plan, {
      body: {
        recipeId: 'country-forcemeat',
        lotIds: [(await pork()).lotId],
        vesselId: null,
        onHandMg: {},
        ways: ['cured'],
      },
    });
    expect(JSON.stringify(unsaid.body)).toMatch(/which curing salt/);
    const weighed = async (nitriteShare: number) => {
      const batch = await plan('country-forcemeat', [(await pork()).lotId], {
        ways: ['cured'],
        cure: { nitriteShare, ppm: 100 },
      });
      const mg = batch.ingredients.find((i) => i.id === 'curing-salt')?.massMg ?? 0;
      const mix = batch.baseMg + batch.ingredients.reduce((sum, i) => sum + i.massMg, 0);
      // by hand: what the tin brings over what it all weighs
      expect(((mg * nitriteShare) / mix) * 1e6).toBeCloseTo(100, 0);
      return mg;
    };
    const [us, eu] = [await weighed(0.0625), await weighed(0.00625)];
    expect(eu / us).toBeGreaterThan(9.9);
    // nobody adds it where no curing salt goes in
    const none = await ines.ask(api.pots.plan, {
      body: {
        recipeId: 'country-forcemeat',
        lotIds: [(await pork()).lotId],
        vesselId: null,
        onHandMg: {},
        ways: ['uncured'],
        cure: { nitriteShare: 0.0625, ppm: 100 },
      },
    });
    expect(none.status).toBe(400);
  });
});

describe('fish bought sealed', () => {
  it('is asked about before it thaws: vacuum-packed or frozen, and not what the house froze itself', async () => {
    const keep = (lotId: string, body: Ask<typeof api.larder.keep>['body']) =>
      ines.ask(api.larder.keep, { params: { lotId }, body });
    const sealed = await received(kitchen, ines, {
      species: 'hake',
      form: 'gutted',
      came: 'frozen',
      grossMg: grams(1_500),
      tareMg: 0,
    });
    const thaw = { kind: 'thaw' as const, placeId: 'cold-room', massMg: null };
    expect(JSON.stringify((await keep(sealed.lotId, thaw)).body)).toMatch(
      /needs_confirmation.*cut the pack open before it thaws/,
    );
    expect((await keep(sealed.lotId, { ...thaw, confirmed: true })).status).toBe(200);
    const own = await received(kitchen, ines, {
      species: 'hake',
      form: 'gutted',
      grossMg: grams(1_500),
      tareMg: 0,
      useBy: todayIn(3),
    });
    expect((await keep(own.lotId, { kind: 'freeze', placeId: 'freezer', massMg: null })).status).toBe(200);
    expect((await keep(own.lotId, thaw)).status).toBe(200);
  });
});
