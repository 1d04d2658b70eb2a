/** Every plan that ships is worked to its end here, with the simulator's animals, through the API: each stage to a closed balance. */
import { allPlans, speciesById } from '@zabrik/catalogue';
import { api, type Breakdown } from '@zabrik/contract';
import { grams, type PlanStage } from '@zabrik/core';
import { drawAnimal, seededRandom } from '@zabrik/core/simulator';
import { v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openTestKitchen, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { closed, closedHake, hakePieces, must, received, startHake, takeBody } from '../testing/work.ts';

let kitchen: TestKitchen;
let ines: Tablet;
let maren: Tablet;

beforeAll(async () => {
  kitchen = await openTestKitchen();
  ines = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
  maren = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
});
afterAll(() => kitchen.close());

/** A drawn animal whose drip is one of the nineteen of twenty that the balance lets pass. */
const piecesOf = (stage: PlanStage, startMg: number, seed: string) => {
  for (let i = 0; ; i += 1) {
    const animal = drawAnimal(
      {
        startMg,
        shares: stage.pieces.map((p) => ({ pieceId: p.id, mean: p.share.mean, sd: p.share.sd })),
        drip: stage.drip,
        mainPieces: [],
        framePiece: undefined,
        leftOnFrame: 0,
        condition: 1,
      },
      seededRandom(`${seed}/${i}`),
    );
    if (animal.dripMg <= startMg * (stage.drip.mean + 1.8 * stage.drip.sd)) return animal.pieces;
  }
};

/** Weighs every piece of a stage by kind, in whole grams, and closes it. */
async function work(tablet: Tablet, breakdown: Breakdown) {
  const stage = breakdown.plan.stages.find((s) => s.id === breakdown.stageId);
  if (stage === undefined) throw new Error(`no stage ${breakdown.stageId}`);
  const params = { breakdownId: breakdown.id };
  for (const { pieceId, massMg } of piecesOf(stage, breakdown.startMg, `${breakdown.planId}/${stage.id}`)) {
    const piece = stage.pieces.find((p) => p.id === pieceId);
    const g = Math.round(massMg / 1_000);
    if (piece === undefined || g === 0) continue;
    await must(tablet, api.bench.weigh, {
      params,
      body: { ...takeBody(pieceId, piece.destination, g), count: piece.count * breakdown.animals },
    });
  }
  return closed(tablet, breakdown.id);
}

const walkOf = (plan: string, species: string, form: string) => {
  const typicalG = speciesById.get(species)?.forms.find((f) => f.id === form)?.typicalG ?? 1_500;
  // small animals come by the batch: half a kilo at least, or the scale's own error would hide a missing piece
  return { plan, species, form, animals: Math.max(1, Math.ceil(500 / typicalG)), typicalG };
};
/** Every plan from what it is written for, and from what enters it at a later stage. The catalogue's own test walks every form there is. */
const starts = allPlans.flatMap((plan) =>
  plan.starts
    .filter((start, i) => i === 0 || start.at !== undefined)
    .map((start) => walkOf(plan.id, start.species, start.forms[0] ?? '')),
);

describe('every plan of the handbook, from its start and from where parts of an animal enter it', () => {
  it.each(starts)(
    '$plan, from $species $form, to its last stage',
    async ({ plan, species, form, animals, typicalG }) => {
      const delivery = await received(kitchen, ines, {
        species,
        form,
        animals,
        grossMg: grams(Math.round(typicalG * animals)),
        tareMg: 0,
        landedOn: null,
      });
      const first = await must(ines, api.bench.start, {
        body: { lotId: delivery.lotId, planId: plan, animals, massMg: null },
      });
      await work(ines, first);
      const worked = new Set([first.stageId]);
      for (let i = 0; i < 8; i += 1) {
        const { waiting } = await must(ines, api.bench.waiting, {});
        const here = waiting.filter((w) => w.breakdownId === first.id || w.planTitle === first.planTitle);
        // a stage fed by several earlier ones waits until all of them are closed
        const ready = here.filter((w) => {
          const from = first.plan.stages.filter((s) => s.pieces.some((p) => p.next === w.stageId));
          return from.every((s) => worked.has(s.id));
        });
        const [next] = ready;
        if (next === undefined) break;
        const lots = ready.filter((w) => w.stageId === next.stageId).flatMap((w) => w.lots);
        const opened = await must(ines, api.bench.goOn, {
          body: { lots: lots.map((l) => ({ lotId: l.lotId, massMg: null })) },
        });
        expect(opened.rootId).toBe(first.id);
        expect(opened.startMg).toBe(lots.reduce((sum, l) => sum + l.massMg, 0));
        await work(ines, opened);
        worked.add(opened.stageId);
      }
      expect([...worked].sort()).toEqual(first.plan.stages.map((s) => s.id).sort());
      const sheet = await must(maren, api.ledger.sheet, { params: { breakdownId: first.id } });
      expect(sheet.through.open).toBe(false);
      // nothing is counted twice and nothing is lost on the way through the stages
      expect(sheet.through.recoveredShare + sheet.through.wasteShare + sheet.through.lossShare).toBeCloseTo(1, 6);
      expect(sheet.chain).toHaveLength(first.plan.stages.length);
    },
  );
});

describe('stages', () => {
  const startOf = async (planId: string, species: string, form: string, g: number, animals = 1, way?: 'by-animal') => {
    const delivery = await received(kitchen, ines, {
      species,
      form,
      animals,
      grossMg: grams(g),
      tareMg: 0,
      landedOn: null,
    });
    return must(ines, api.bench.start, {
      body: { lotId: delivery.lotId, planId, animals, massMg: null, ...(way === undefined ? {} : { way }) },
    });
  };
  const close = (breakdownId: string) => closed(ines, breakdownId, 'a test stage');

  it('multiply: half of a tail loin gives the same share of the purchase as all of it', async () => {
    const first = await startOf('tail-two-loins', 'monkfish', 'tail', 1_500);
    const params = { breakdownId: first.id };
    for (const [piece, tray, g, count] of [
      ['loin', 'larder', 990, 2],
      ['bone', 'stock', 232, 1],
      ['skin', 'waste', 127, 1],
      ['membrane', 'waste', 75, 1],
      ['trim', 'filling', 53, 2],
    ] as const)
      await must(ines, api.bench.weigh, { params, body: { ...takeBody(piece, tray, g), count } });
    const closed = await must(ines, api.bench.close, { params, body: { unbalancedReason: null } });
    const loin = closed.lots.find((l) => l.name.includes('loin'));
    const { waiting } = await must(ines, api.bench.waiting, {});
    expect(waiting.find((w) => w.breakdownId === first.id)).toMatchObject({
      stageName: 'Medallions',
      restNote: expect.stringContaining('chilled') as string,
    });
    const half = await must(ines, api.bench.goOn, {
      body: { lots: [{ lotId: loin?.lotId ?? '', massMg: grams(495) }] },
    });
    expect(half.startShare).toBeCloseTo(0.66, 9);
    await must(ines, api.bench.weigh, {
      params: { breakdownId: half.id },
      body: { ...takeBody('medallion', 'portion', 406), count: 6 },
    });
    await must(ines, api.bench.weigh, { params: { breakdownId: half.id }, body: takeBody('tips', 'staff', 80) });
    await close(half.id);
    const sheet = await must(ines, api.ledger.sheet, { params: { breakdownId: half.id } });
    const medallions = sheet.rows.find((r) => r.pieceId === 'medallion');
    expect(medallions?.shareOfStage).toBeCloseTo(406 / 495, 9);
    expect(medallions?.shareOfPurchase).toBeCloseTo((406 / 495) * 0.66, 9);
    expect(medallions?.count).toBe(6);
    // the other half still lies there, and its first stage cannot be reopened under it
    expect(
      (await must(ines, api.bench.waiting, {})).waiting.find((w) => w.breakdownId === first.id)?.lots[0]?.freeMg,
    ).toBe(grams(495));
    expect(await maren.ask(api.bench.reopen, { params, body: { reason: 'a doubt' } })).toMatchObject({
      status: 409,
      body: { code: 'used_since' },
    });
  });

  it('a piece that stands for a form starts a plan of its own, and belongs to the same purchase', async () => {
    const first = await startOf('carcass-primals', 'lamb', 'whole', 19_000);
    await work(ines, first);
    const { lots } = await must(ines, api.larder.list, { query: { cuttable: 'yes', limit: 200 } });
    const saddle = lots.find((l) => l.breakdownId === first.id && l.form === 'saddle');
    const fork = await must(ines, api.bench.start, {
      body: { lotId: saddle?.id ?? '', planId: 'saddle-cannons', animals: 1, massMg: null },
    });
    expect(fork.rootId).toBe(first.id);
    expect(fork.startShare).toBeCloseTo((saddle?.madeMg ?? 0) / first.startMg, 9);
  });

  it('refuse lots that wait for nothing, or for different stages', async () => {
    const crab = await startOf('crab-picked', 'brown-crab', 'cooked', 1_700, 2);
    const closed = await work(ines, crab);
    const body = closed.lots.find((l) => l.name.includes('body core'));
    const claws = closed.lots.find((l) => l.name.includes('claws'));
    const flap = closed.lots.find((l) => l.name.includes('flap'));
    for (const lots of [[flap], [claws, body]])
      expect(
        await ines.ask(api.bench.goOn, { body: { lots: lots.map((l) => ({ lotId: l?.lotId ?? '', massMg: null })) } }),
      ).toMatchObject({ status: 409, body: { code: 'plan_does_not_fit' } });
    const picking = await must(ines, api.bench.goOn, { body: { lots: [{ lotId: claws?.lotId ?? '', massMg: null }] } });
    expect(picking.animals).toBe(2);
  });

  it('a crab that lacks a claw: said, it leaves the expectation, and what it gave is compared with its like alone', async () => {
    const start = () => startOf('crab-picked', 'brown-crab', 'cooked', 850);
    const say = (breakdownId: string, body: object) =>
      ines.ask(api.bench.event, {
        params: { breakdownId },
        body: { at: new Date().toISOString(), ...body } as never,
      });
    const withBoth = await start();
    await work(ines, withBoth);
    const crab = await start();
    const params = { breakdownId: crab.id };
    const read = () => must(ines, api.bench.read, { params });
    const means = (b: Breakdown) => new Map(b.beliefs.map((x) => [x.pieceId, x]));
    const before = means(crab).get('back')?.records ?? 0;
    expect(before).toBeGreaterThan(0);
    expect(await say(crab.id, { kind: 'came-without', pieceId: 'claws', units: 3 })).toMatchObject({ status: 400 });
    expect(await say(crab.id, { kind: 'came-without', pieceId: 'beak', units: 1 })).toMatchObject({ status: 400 });
    expect(await say(crab.id, { kind: 'came-without', pieceId: 'claws', units: 1 })).toMatchObject({ status: 200 });
    const lacking = await read();
    expect(lacking.found.cameWithout).toEqual({ claws: 1 });
    // half of 0.23 is not there: the others are of what is
    expect(means(lacking).get('claws')?.mean).toBeCloseTo(0.115 / 0.885, 9);
    expect(means(lacking).get('back')).toMatchObject({ records: 0 });
    expect(means(lacking).get('back')?.mean).toBeCloseTo(0.34 / 0.885, 9);
    const take = (pieceId: string, tray: 'larder' | 'waste' | 'stock', g: number, count = 1) =>
      must(ines, api.bench.weigh, { params, body: { ...takeBody(pieceId, tray, g), count } });
    await take('claws', 'larder', 110);
    // what is weighed was there: no more of it can be missing, and the claw that is missing stays so
    expect(await say(crab.id, { kind: 'came-without', pieceId: 'claws', units: 2 })).toMatchObject({
      status: 400,
      body: { detail: expect.stringContaining('1 of 2 are weighed') as string },
    });
    // and a barnacle on its back that no plan knows
    const piece = { id: 'other-1', name: 'barnacles', category: 'crustacean-inedible', destination: 'stock' };
    expect(await say(crab.id, { kind: 'other-piece', piece })).toMatchObject({
      status: 409,
      body: { code: 'tray_refused' },
    });
    expect(
      await say(crab.id, { kind: 'other-piece', piece: { ...piece, destination: 'waste', category: 'gold' } }),
    ).toMatchObject({ status: 400 });
    expect(
      await say(crab.id, { kind: 'other-piece', piece: { ...piece, id: 'claws', destination: 'waste' } }),
    ).toMatchObject({ status: 400 });
    expect(await say(crab.id, { kind: 'other-piece', piece: { ...piece, destination: 'waste' } })).toMatchObject({
      status: 200,
    });
    expect(await ines.ask(api.bench.weigh, { params, body: takeBody('other-1', 'stock', 20) })).toMatchObject({
      status: 409,
      body: { code: 'tray_refused' },
    });
    await take('other-1', 'waste', 20);
    const rest = 850 - 110 - 20 - 43;
    for (const [id, tray, share, count] of [
      ['legs', 'larder', 0.11, 8],
      ['flap', 'stock', 0.015, 1],
      ['gills', 'waste', 0.025, 1],
      ['body', 'larder', 0.22, 1],
      ['sac', 'waste', 0.01, 1],
      ['back', 'larder', 0.34, 1],
    ] as const)
      await take(id, tray, Math.round((rest * share) / 0.72), count);
    await closed(ines, crab.id);
    const sheet = await must(maren, api.ledger.sheet, { params });
    expect(sheet.cameWithout).toEqual([{ pieceId: 'claws', name: 'claws in shell', units: 1, of: 2 }]);
    expect(sheet.rows.find((r) => r.pieceId === 'other-1')).toMatchObject({
      name: 'barnacles',
      massMg: grams(20),
      edible: false,
    });
    expect(sheet.rows.find((r) => r.pieceId === 'back')?.handbook.mean).toBeCloseTo(0.34 / 0.885, 9);
    // the next whole crab learns nothing of it, the next that lacks a claw does
    const whole = await start();
    expect(means(whole).get('back')?.records).toBe(before);
    await say(whole.id, { kind: 'came-without', pieceId: 'claws', units: 1 });
    const second = await must(ines, api.bench.read, { params: { breakdownId: whole.id } });
    expect(means(second).get('back')?.records).toBe(1);
    expect(means(second).get('back')?.mean).not.toBeCloseTo(means(whole).get('back')?.mean ?? 0, 2);
    // said in error, and a weight that another tablet took meanwhile, both put it right
    await say(whole.id, { kind: 'came-without', pieceId: 'claws', units: 0 });
    expect((await must(ines, api.bench.read, { params: { breakdownId: whole.id } })).found.cameWithout).toEqual({});
    await say(whole.id, { kind: 'came-without', pieceId: 'sac', units: 1 });
    await must(ines, api.bench.weigh, { params: { breakdownId: whole.id }, body: takeBody('sac', 'waste', 9) });
    expect((await must(ines, api.bench.read, { params: { breakdownId: whole.id } })).found.cameWithout).toEqual({});
    await must(ines, api.bench.close, { params: { breakdownId: whole.id }, body: { unbalancedReason: 'a test' } });
    expect((await must(maren, api.ledger.sheet, { params: { breakdownId: whole.id } })).cameWithout).toEqual([]);
  });

  it('what is joined to a piece comes with its mass, cost, allergens and date, and is no yield of the animal', async () => {
    const hake = await closedHake(kitchen, ines);
    const belly = hake.closed.lots.find((l) => l.destination === 'filling');
    const bellyId = belly?.lotId ?? '';
    const lot = async (lotId: string) =>
      (await must(ines, api.larder.trace, { params: { lotId } })).lots.find((l) => l.id === lotId);
    const costOf = async (code: string) => {
      const { lots } = await must(ines, api.larder.list, { query: { search: code } });
      return lots.find((l) => l.code === code);
    };
    const bellyBefore = await costOf(belly?.code ?? '');
    const tail = await startOf('tail-two-loins', 'monkfish', 'tail', 1_500);
    const params = { breakdownId: tail.id };
    const say = (body: object, breakdownId = tail.id) =>
      ines.ask(api.bench.event, { params: { breakdownId }, body: { at: new Date().toISOString(), ...body } as never });
    const join = {
      kind: 'bring-in',
      pieceId: 'loin',
      name: 'hake belly',
      massMg: grams(30),
      lotId: bellyId,
      allergens: [],
    };
    const crust = { ...join, name: 'Lemon crust', massMg: grams(20), lotId: null, allergens: ['gluten/wheat'] };
    for (const [body, status] of [
      [{ ...join, pieceId: 'beak' }, 400],
      [{ ...crust, allergens: ['gold'] }, 400],
      [{ ...join, massMg: grams(80) }, 409],
      [{ ...join, lotId: uuidv7() }, 404],
      [{ kind: 'bring-back', eventId: uuidv7() }, 400],
    ] as const)
      expect(await say(body)).toMatchObject({ status });
    const doIt = (change: object) =>
      must(maren, api.larder.keep, { params: { lotId: bellyId }, body: change as never });
    await doIt({ kind: 'hold', reason: 'smells' });
    expect(await say(join)).toMatchObject({ status: 409, body: { code: 'on_hold' } });
    await doIt({ kind: 'hold', reason: null });
    const { useBy } = bellyBefore ?? {};
    await doIt({ kind: 'date', useBy: '2026-01-01', reason: 'it smells' });
    expect(await say(join)).toMatchObject({ status: 409, body: { code: 'cannot_keep' } });
    await doIt({ kind: 'date', useBy, reason: 'it does not', confirmed: true });
    const first = await say(join);
    expect(first).toMatchObject({ status: 200 });
    // it is promised: not brought twice, and no other bench has more than the rest
    expect(await say(join)).toMatchObject({
      status: 400,
      body: { detail: expect.stringContaining('take it back') as string },
    });
    const other = await startOf('tail-two-loins', 'monkfish', 'tail', 1_500);
    expect(await say({ ...join, massMg: grams(50) }, other.id)).toMatchObject({
      status: 409,
      body: { code: 'not_enough' },
    });
    expect(await say({ kind: 'bring-back', eventId: (first.body as { id: string }).id })).toMatchObject({
      status: 200,
    });
    expect(await say({ ...join, massMg: grams(50) }, other.id)).toMatchObject({ status: 200 });
    await must(ines, api.bench.cancel, { params: { breakdownId: other.id }, body: {} });
    expect(await say(join)).toMatchObject({ status: 200 });
    expect(await say(crust)).toMatchObject({ status: 200 });
    // it is no input: the purchase is one tail; what somebody must not touch counts all the same
    const now = await must(ines, api.bench.read, { params });
    expect(now.inputs.map((i) => i.massMg)).toEqual([grams(1_500)]);
    expect(now.allergens).toEqual(['gluten/wheat', 'fish/hake', 'fish/monkfish']);
    const take = (piece: string, tray: string, g: number, count = 1) =>
      must(ines, api.bench.weigh, { params, body: { ...takeBody(piece, tray, g), count } });
    for (const [piece, tray, g] of [
      ['bone', 'stock', 232],
      ['skin', 'waste', 127],
      ['membrane', 'waste', 75],
    ] as const)
      await take(piece, tray, g);
    await take('trim', 'filling', 53, 2);
    expect(await ines.ask(api.bench.close, { params, body: { unbalancedReason: 'a test' } })).toMatchObject({
      status: 400,
      body: { detail: 'hake belly was brought to a piece that is not weighed: weigh it, or take hake belly back.' },
    });
    await take('loin', 'larder', 1_040, 2);
    const done = await must(ines, api.bench.close, { params, body: { unbalancedReason: null } });
    expect(done.unaccountedMg).toBe(grams(1_500 + 50 - 232 - 127 - 75 - 53 - 1_040));
    const loin = done.lots.find((l) => l.name.includes('loin'));
    const stands = await costOf(loin?.code ?? '');
    expect(stands?.massMg).toBe(grams(1_040));
    expect(stands?.allergens).toEqual(expect.arrayContaining(['fish/hake', 'fish/monkfish', 'gluten/wheat']));
    // of what did not have it, none has it
    const bone = await costOf(done.lots.find((l) => l.destination === 'stock')?.code ?? '');
    expect(bone?.allergens).toEqual(['fish/monkfish']);
    const sheet = await must(ines, api.ledger.sheet, { params });
    const row = sheet.rows.find((r) => r.pieceId === 'loin');
    expect(row).toMatchObject({ massMg: grams(990), broughtMg: grams(50) });
    expect(row?.shareOfStage).toBeCloseTo(990 / 1_500, 9);
    // 30 of 70 g of the belly's cost lie on the loin, beside its own
    const bellyCost = Math.round(((bellyBefore?.costMinor ?? 0) * 30) / 70);
    expect(bellyCost).toBeGreaterThan(0);
    expect(stands?.costMinor).toBe((row?.costMinor[sheet.bookedSchool ?? 'weight'] ?? 0) + bellyCost);
    expect(await costOf(belly?.code ?? '')).toMatchObject({
      massMg: grams(40),
      costMinor: (bellyBefore?.costMinor ?? 0) - bellyCost,
    });
    expect(stands?.useBy).toBe([bellyBefore?.useBy ?? '', (await lot(tail.lotId))?.useBy ?? '9'].sort()[0]);
    // half of the loins stands for half of the tail's own, whatever lies round them
    const half = await must(ines, api.bench.goOn, {
      body: { lots: [{ lotId: loin?.lotId ?? '', massMg: grams(520) }] },
    });
    expect(half.startShare).toBeCloseTo(0.66, 9);
    await must(ines, api.bench.cancel, { params: { breakdownId: half.id }, body: {} });
    // opened again it is promised again, and closed again the same
    await must(maren, api.bench.reopen, { params, body: { reason: 'a doubt' } });
    expect(await costOf(belly?.code ?? '')).toMatchObject({ massMg: grams(70), costMinor: bellyBefore?.costMinor });
    const third = await startOf('tail-two-loins', 'monkfish', 'tail', 1_500);
    expect(await say({ ...join, massMg: grams(50) }, third.id)).toMatchObject({
      status: 409,
      body: { code: 'not_enough' },
    });
    await must(ines, api.bench.close, { params, body: { unbalancedReason: null } });
    expect(await costOf(belly?.code ?? '')).toMatchObject({ massMg: grams(40) });
    // the belly's own animal still has all of it
    const own = await must(ines, api.ledger.sheet, { params: { breakdownId: hake.breakdown.id } });
    expect(own.through.edibleShare).toBeCloseTo((803 + 790 + 70) / 2_860, 6);
  });

  it('a timer of the bench rings with those of the stove, until its step is done or the stage is closed', async () => {
    const crab = await startOf('crab-picked', 'brown-crab', 'whole', 1_800, 2);
    const params = { breakdownId: crab.id };
    const dueAt = new Date(Date.now() + 720_000).toISOString();
    const say = (body: object) =>
      must(ines, api.bench.event, { params, body: { at: new Date().toISOString(), ...body } as never });
    const mine = async () => (await must(maren, api.pots.timers, {})).timers.filter((t) => t.breakdownId === crab.id);
    const { id } = await say({ kind: 'timer', step: 1, label: 'Boil', dueAt });
    expect(await mine()).toMatchObject([{ id, batchId: null, title: 'Brown crab', label: 'Boil', dueAt }]);
    // moved, it is one timer still, that rings later
    const later = new Date(Date.now() + 780_000).toISOString();
    const moved = await say({ kind: 'timer', step: 1, label: 'Boil', dueAt: later, replaces: id });
    expect(await mine()).toMatchObject([{ id: moved.id, dueAt: later }]);
    await say({ kind: 'timer-off', timerId: moved.id });
    expect(await mine()).toEqual([]);
    await say({ kind: 'timer', step: 1, label: 'Boil', dueAt });
    await say({ kind: 'step', step: 1, mark: 'late', note: null });
    expect(await mine()).toEqual([]);
    await say({ kind: 'step', step: 1, mark: 'open', note: null });
    expect(await mine()).toHaveLength(1);
    await work(ines, crab);
    expect(await mine()).toEqual([]);
  });

  it('the roll of a rabbit waits for its saddle: not begun before, and then made of what two stages left', async () => {
    const rabbit = await startOf('rabbit-jointed', 'rabbit', 'whole', 1_400);
    await work(ines, rabbit);
    const mine = async (stageId: string) =>
      (await must(ines, api.bench.waiting, {})).waiting.filter(
        (w) => w.stageId === stageId && w.planTitle === rabbit.planTitle,
      );
    const [early] = await mine('s3');
    expect(early?.missing).toEqual(['small fillets', 'loins']);
    const lotsOf = (w: typeof early) => (w?.lots ?? []).map((l) => ({ lotId: l.lotId, massMg: null }));
    expect(await ines.ask(api.bench.goOn, { body: { lots: lotsOf(early) } })).toMatchObject({
      status: 409,
      body: { code: 'needs_confirmation', detail: expect.stringContaining('small fillets, loins') as string },
    });
    const [saddle] = await mine('s2');
    await work(ines, await must(ines, api.bench.goOn, { body: { lots: lotsOf(saddle) } }));
    const ready = await mine('s3');
    expect(ready).toHaveLength(1);
    expect(ready[0]).toMatchObject({ missing: [], animals: 1 });
    expect(ready[0]?.lots).toHaveLength(3);
    const roll = await must(ines, api.bench.goOn, { body: { lots: lotsOf(ready[0]) } });
    expect(roll).toMatchObject({ stageId: 's3', rootId: rabbit.id, animals: 1 });
    expect(roll.startMg).toBe(ready[0]?.lots.reduce((sum, l) => sum + l.massMg, 0));
  });

  it('a side that was bought is one side: its counts are halved, and it goes on by itself', async () => {
    const side = await startOf('side-block-for-pastry', 'salmon', 'side-skin-on', 1_400);
    expect(side).toMatchObject({ stageId: 's2', stageIndex: 0, stageCount: 2 });
    expect(side.plan.stages[0]?.pieces.find((p) => p.id === 'skin')?.count).toBe(1);
    await work(ines, side);
    const fish = await startOf('side-block-for-pastry', 'salmon', 'gutted', 4_500);
    await work(ines, fish);
    const next = async (stageId: string) =>
      (await must(ines, api.bench.waiting, {})).waiting.find(
        (w) => w.stageId === stageId && w.planTitle === fish.planTitle,
      );
    const sides = await next('s2');
    await work(
      ines,
      await must(ines, api.bench.goOn, {
        body: { lots: (sides?.lots ?? []).map((l) => ({ lotId: l.lotId, massMg: null })) },
      }),
    );
    const blocks = (await must(ines, api.bench.waiting, {})).waiting.filter(
      (w) => w.stageId === 's3' && w.planTitle === fish.planTitle,
    );
    expect(blocks).toHaveLength(2);
    expect(
      await ines.ask(api.bench.goOn, {
        body: { lots: blocks.flatMap((b) => b.lots.map((l) => ({ lotId: l.lotId, massMg: null }))) },
      }),
    ).toMatchObject({ status: 409, body: { code: 'plan_does_not_fit' } });
  });

  it('a batch weighed animal by animal knows the mean and spread of each piece', async () => {
    const birds = await startOf('small-game-bird-breasts', 'wood-pigeon', 'whole', 1_000, 2, 'by-animal');
    const params = { breakdownId: birds.id };
    for (const [animal, g] of [
      [1, 130],
      [2, 118],
    ] as const)
      await must(ines, api.bench.weigh, { params, body: { ...takeBody('breast', 'portion', g), count: 2, animal } });
    await close(birds.id);
    const sheet = await must(ines, api.ledger.sheet, { params });
    expect(sheet.perAnimal).toEqual([
      expect.objectContaining({
        pieceId: 'breast',
        animals: 2,
        meanMg: grams(124),
        lowMg: grams(118),
        highMg: grams(130),
      }),
    ]);
    expect(sheet.perAnimal[0]?.sdMg).toBeCloseTo(grams(12) / Math.SQRT2, 3);
  });

  it('keep what happens beside weighing: steps, passes, pauses, notes; and a note to a tray goes to its lot', async () => {
    const bird = await startOf('duck-whole', 'duck', 'whole', 2_400);
    const params = { breakdownId: bird.id };
    const at = (minutes: number): string =>
      new Date(new Date(bird.startedAt).getTime() + minutes * 60_000).toISOString();
    const key = uuidv7();
    const pause = { kind: 'pause', at: at(1) } as const;
    await must(ines, api.bench.event, { params, body: pause }, key);
    await must(ines, api.bench.event, { params, body: pause }, key); // sent twice, kept once
    await must(ines, api.bench.event, {
      params,
      body: { kind: 'step', step: 3, mark: 'skipped', note: 'boned crown', at: at(2) },
    });
    await must(ines, api.bench.event, {
      params,
      body: { kind: 'tray-note', destination: 'stock', text: 'for Wednesday', at: at(3) },
    });
    const read = await must(ines, api.bench.read, { params });
    expect(read.events.map((e) => e.body.kind)).toEqual(['pause', 'step', 'tray-note']);
    await must(ines, api.bench.weigh, { params, body: takeBody('carcass', 'stock', 480) });
    const { lots } = await close(bird.id);
    expect((await must(ines, api.larder.read, { params: { lotId: lots[0]?.lotId ?? '' } })).note).toBe('for Wednesday');
    expect(await ines.ask(api.bench.event, { params, body: { kind: 'resume', at: at(4) } })).toMatchObject({
      status: 409,
      body: { code: 'stage_closed' },
    });
  });

  it('how unlike two fillets were is known at the next fish, weighed one by one', async () => {
    await closedHake(kitchen, ines);
    const { breakdown } = await startHake(kitchen, ines);
    const fillet = breakdown.beliefs.find((b) => b.pieceId === 'fillet');
    const earlier = fillet?.units.df ?? 0;
    expect(earlier).toBeGreaterThanOrEqual(1);
    // by hand, each fish before: 803 and 790 about 796.5, squares 2 · (6.5 / 796.5)²
    expect(fillet?.units.squares).toBeCloseTo(earlier * 2 * (6.5 / 796.5) ** 2, 9);
    expect(breakdown.beliefs.find((b) => b.pieceId === 'frame')?.units).toEqual({ squares: 0, df: 0 });
  });

  it('what was weighed by kind goes on by kind: four trotters, all four asked for', async () => {
    const trotters = await received(kitchen, ines, {
      species: 'pork',
      form: 'trotter',
      animals: 4,
      grossMg: grams(2_400),
      tareMg: 0,
    });
    const first = await must(ines, api.bench.start, {
      body: { lotId: trotters.lotId, planId: 'trotter-boned', animals: 4, massMg: null, way: 'pooled' },
    });
    await work(ines, first);
    const { waiting } = await must(ines, api.bench.waiting, {});
    const next = waiting.find((w) => w.breakdownId === first.id);
    const second = await must(ines, api.bench.goOn, {
      body: { lots: (next?.lots ?? []).map((l) => ({ lotId: l.lotId, massMg: null })) },
    });
    expect(second).toMatchObject({ way: 'pooled', animals: 4 });
  });

  it('a piece on two trays is judged once, as the whole it is, and a second go is no second piece', async () => {
    const { breakdown: hake } = await startHake(kitchen, ines);
    const params = { breakdownId: hake.id };
    for (const [piece, tray, g] of hakePieces)
      if (piece !== 'frame') await must(ines, api.bench.weigh, { params, body: takeBody(piece, tray, g) });
    // the frame: 300 g in one go, 100 g in a second, 68 g of it to another tray
    await must(ines, api.bench.weigh, { params, body: takeBody('frame', 'stock', 300) });
    await must(ines, api.bench.weigh, { params, body: { ...takeBody('frame', 'stock', 100), count: 0 } });
    await must(ines, api.bench.weigh, { params, body: { ...takeBody('frame', 'waste', 68), count: 0 } });
    await closed(ines, hake.id);
    const sheet = await must(ines, api.ledger.sheet, { params: { breakdownId: hake.id } });
    const frames = sheet.rows.filter((r) => r.pieceId === 'frame');
    expect(frames.map((r) => [r.destination, r.count, r.massMg])).toEqual([
      ['stock', 1, grams(400)],
      ['waste', 1, grams(68)],
    ]);
    // by hand: 468 of 2,860 is 16.36 %, whichever tray it lies on
    for (const row of frames) {
      expect(row.shareOfPiece).toBeCloseTo(468 / 2_860, 9);
      expect(row.trays).toBe(2);
    }
  });

  it('are handed over to someone who works at the bench, and to no one else', async () => {
    const bird = await startOf('duck-whole', 'duck', 'whole', 2_300);
    const params = { breakdownId: bird.id };
    const { people } = await must(ines, api.bench.people, {});
    const jory = people.find((p) => p.name === 'Jory Pellam');
    expect(people.map((p) => p.name)).not.toContain('Wren Haldane');
    const at = '2026-11-24T10:05:00.000Z';
    await must(ines, api.bench.event, { params, body: { kind: 'hand-over', toPersonId: jory?.id ?? '', at } });
    expect((await must(ines, api.bench.read, { params })).holder).toBe('Jory Pellam');
    for (const toPersonId of [kitchen.personOf('Wren Haldane'), uuidv7()])
      expect(await ines.ask(api.bench.event, { params, body: { kind: 'hand-over', toPersonId, at } })).toMatchObject({
        status: 400,
      });
  });

  it('reopen with a reason, by a chef, and close again', async () => {
    const bird = await startOf('duck-whole', 'duck', 'whole', 2_400);
    await work(ines, bird);
    const params = { breakdownId: bird.id };
    expect(await ines.ask(api.bench.reopen, { params, body: { reason: 'neck forgotten' } })).toMatchObject({
      status: 403,
    });
    const again = await must(maren, api.bench.reopen, { params, body: { reason: 'neck forgotten' } });
    expect(again.state).toBe('open');
    expect(again.weighings.length).toBeGreaterThan(6);
    await must(ines, api.bench.close, { params, body: { unbalancedReason: null } });
    expect((await must(ines, api.ledger.sheet, { params })).reopenedFrom).toBe(1);
  });
});
