/** The house's own plans and species: versions, refusals with every fault, the round trip of a file. */
import { api, cutPlanSchema } from '@zabrik/contract';
import { grams } from '@zabrik/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openTestKitchen, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { deliveryBody, must, received, takeBody } from '../testing/work.ts';

let kitchen: TestKitchen;
let maren: Tablet;
let ines: Tablet;
let theirs: Tablet;
beforeAll(async () => {
  kitchen = await openTestKitchen();
  maren = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
  ines = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
  theirs = await kitchen.signIn(kitchen.personOf('Maren Ostle', kitchen.other));
});
afterAll(() => kitchen.close());

const read = (planId: string) => must(maren, api.bench.plan, { params: { planId } });

describe('cut plans of a house', () => {
  it('start as the handbook’s, and a change is the house’s own next version, nobody else’s', async () => {
    const { plan, own } = await read('loin-steaks');
    expect(own).toBe(false);
    const saved = await must(maren, api.bench.savePlan, {
      body: { plan: { ...plan, title: 'Loin to thick steaks' }, basedOn: plan.version },
    });
    expect(saved).toMatchObject({ own: true, plan: { title: 'Loin to thick steaks', version: plan.version + 1 } });
    expect(saved.versions.map((v) => v.by)).toEqual(['Maren Ostle', null]);
    const listed = (await must(ines, api.house.catalogue, {})).plans.find((p) => p.id === plan.id);
    expect(listed).toMatchObject({ title: 'Loin to thick steaks', own: true });
    expect((await must(theirs, api.bench.plan, { params: { planId: plan.id } })).plan.title).toBe(plan.title);
  });

  it('are kept by the breakdowns that were begun with them', async () => {
    const { plan } = await read('tail-two-loins');
    const lot = await received(kitchen, ines, { species: 'monkfish', form: 'tail', grossMg: grams(1_500), tareMg: 0 });
    const begun = await must(ines, api.bench.start, {
      body: { lotId: lot.lotId, planId: plan.id, animals: 1, massMg: null },
    });
    await must(maren, api.bench.savePlan, { body: { plan: { ...plan, title: 'Another way' }, basedOn: plan.version } });
    const now = await must(ines, api.bench.read, { params: { breakdownId: begun.id } });
    expect(now.planTitle).toBe(plan.title);
    expect(now.plan.version).toBe(plan.version);
  });

  it('whose piece has the longest name that is taken can be worked to the end; a longer one is not taken', async () => {
    const { plan } = await read('squid-cleaned');
    const kept = plan.stages[0]?.pieces.find((p) => p.destination !== 'waste');
    if (kept === undefined) throw new Error('nothing is kept of it');
    const named = (length: number) => ({
      ...plan,
      stages: plan.stages.map((s) => ({
        ...s,
        pieces: s.pieces.map((p) => (p.id === kept.id ? { ...p, name: 'x'.repeat(length) } : p)),
      })),
    });
    expect(await maren.ask(api.bench.savePlan, { body: { plan: named(61), basedOn: plan.version } })).toMatchObject({
      status: 400,
    });
    await must(maren, api.bench.savePlan, { body: { plan: named(60), basedOn: plan.version } });
    const lot = await received(kitchen, ines, { species: 'squid', form: 'whole', grossMg: grams(500), tareMg: 0 });
    const begun = await must(ines, api.bench.start, {
      body: { lotId: lot.lotId, planId: plan.id, animals: 1, massMg: null },
    });
    await must(ines, api.bench.weigh, {
      params: { breakdownId: begun.id },
      body: takeBody(kept.id, kept.destination, 200),
    });
    const { lots } = await must(ines, api.bench.close, {
      params: { breakdownId: begun.id },
      body: { unbalancedReason: 'only the first' },
    });
    expect(lots[0]?.name).toContain('x'.repeat(60));
  });

  it('answer 409 when someone saved meanwhile, and when a new one’s name is taken', async () => {
    const { plan } = await read('squid-cleaned');
    await must(maren, api.bench.savePlan, { body: { plan, basedOn: plan.version } });
    for (const basedOn of [plan.version, 0])
      expect(await maren.ask(api.bench.savePlan, { body: { plan, basedOn } })).toMatchObject({
        status: 409,
        body: { code: 'changed_since' },
      });
  });

  it('are refused with every fault in words and where it is, and nothing is saved', async () => {
    const { plan } = await read('rack-frenched');
    const [stage] = plan.stages;
    const [piece, ...rest] = stage?.pieces ?? [];
    if (stage === undefined || piece === undefined) throw new Error('no stage');
    const broken = {
      ...plan,
      starts: [{ species: 'unicorn', forms: ['whole'] }],
      stages: [
        {
          ...stage,
          pieces: [
            {
              ...piece,
              category: 'horn',
              share: { ...piece.share, mean: 0.4 },
              next: 's1',
              refused: [{ destination: piece.destination, reason: 'because' }],
            },
            ...rest,
            ...rest.slice(0, 1),
          ],
        },
      ],
    };
    const reply = await maren.ask(api.bench.savePlan, { body: { plan: broken, basedOn: plan.version } });
    expect(reply.status).toBe(400);
    const said = JSON.stringify(reply.body);
    for (const words of [
      'no species unicorn',
      'no kind of piece horn',
      'not to 100 %',
      'only go on to a later',
      'refused there',
      'Two pieces',
    ])
      expect(said).toContain(words);
    expect((await read('rack-frenched')).own).toBe(false);
  });

  it('are the chefs’ to change', async () => {
    const { plan } = await read('loin-steaks');
    expect(await ines.ask(api.bench.savePlan, { body: { plan, basedOn: plan.version } })).toMatchObject({
      status: 403,
    });
    expect(
      await ines.ask(api.bench.retirePlan, { params: { planId: plan.id }, body: { retired: true } }),
    ).toMatchObject({
      status: 403,
    });
  });

  it('retire and come back, and cannot be begun meanwhile', async () => {
    const params = { planId: 'prawn-peeled' };
    expect((await must(maren, api.bench.retirePlan, { params, body: { retired: true } })).retired).toBe(true);
    const lot = await received(kitchen, ines, {
      species: 'prawn',
      form: 'whole',
      animals: 28,
      grossMg: grams(1_000),
      tareMg: 0,
    });
    const body = { lotId: lot.lotId, planId: params.planId, animals: 28, massMg: null };
    expect(await ines.ask(api.bench.start, { body })).toMatchObject({ status: 400 });
    const back = await must(maren, api.bench.retirePlan, { params, body: { retired: false } });
    expect(back.versions.length).toBe(3);
    expect((await must(ines, api.bench.start, { body })).way).toBe('pooled');
  });

  it('travel as files: what goes out comes in, by the schema that is published', async () => {
    const { plan } = await read('hare-jointed');
    const file = JSON.parse(JSON.stringify(plan)) as typeof plan;
    expect(cutPlanSchema.parse(file)).toEqual(plan);
    const there = await must(theirs, api.bench.savePlan, { body: { plan: { ...file, id: 'our-hare' }, basedOn: 0 } });
    expect(there.plan).toEqual({ ...plan, id: 'our-hare', version: 1 });
    const schema = (await maren.raw('get', '/api/v1/schemas/cut-plan.json')).body as { properties: object };
    expect(Object.keys(schema.properties)).toEqual(expect.arrayContaining(['id', 'stages', 'starts']));
  });
});

describe('species of a house', () => {
  it('can be received, cut with an own plan, and are named in every list; other houses do not know them', async () => {
    const species = {
      id: 'pike',
      name: 'Pike',
      scientific: 'Esox lucius',
      group: 'round-fish',
      allergen: 'fish' as const,
      forms: [{ id: 'whole', name: 'whole', purchase: true, whole: true, typicalG: 2_400 }],
      yields: [],
      inspection: [],
    };
    await must(maren, api.bench.saveSpecies, { body: { species } });
    const { plan } = await read('round-fish-two-fillets');
    await must(maren, api.bench.savePlan, {
      body: { plan: { ...plan, id: 'pike-fillets', starts: [{ species: 'pike', forms: ['whole'] }] }, basedOn: 0 },
    });
    const lot = await received(kitchen, ines, { species: 'pike', form: 'whole', grossMg: grams(2_300), tareMg: 0 });
    const begun = await must(ines, api.bench.start, {
      body: { lotId: lot.lotId, planId: 'pike-fillets', animals: 1, massMg: null },
    });
    expect(begun).toMatchObject({ speciesName: 'Pike', formName: 'whole' });
    expect(
      await theirs.ask(api.receive.accept, {
        body: deliveryBody(kitchen, { species: 'pike', form: 'whole' }, kitchen.other),
      }),
    ).toMatchObject({ status: 400 });
    expect(
      await maren.ask(api.bench.saveSpecies, {
        body: { species: { ...species, forms: species.forms.map((f) => ({ ...f, purchase: false })) } },
      }),
    ).toMatchObject({ status: 400 });
  });
});
