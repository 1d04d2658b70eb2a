/** Cutting to weight through the API: from a lot to portions in the larder, with everything that may go wrong on the way. */
import { type Ask, api } from '@zabrik/contract';
import { grams } from '@zabrik/core';
import { v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openTestKitchen, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { closedHake, hakePieces, must, received, startHake, weighedAndClosed } from '../testing/work.ts';

let kitchen: TestKitchen;
let ines: Tablet;
let maren: Tablet;
beforeAll(async () => {
  kitchen = await openTestKitchen();
  ines = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
  maren = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
});
afterAll(() => kitchen.stop());

const at = '2026-11-25T10:00:00.000Z';
type Body = Ask<typeof api.cutting.event>['body']['body'];
type Kind = Ask<typeof api.cutting.start>['body']['kind'];

const portions = (change: Partial<Extract<Body, { kind: 'setup' }>['setup']> = {}): Body => ({
  kind: 'setup',
  setup: {
    kind: 'portions',
    templateId: 'fillet-round',
    sizes: [{ id: 'main', name: 'main course 160 g', targetMg: grams(160), toleranceShare: 0.05, valueMinor: 780 }],
    angleDeg: 0,
    squareMm: [0, 0],
    kerfMm: 0,
    clingMg: 0,
    tail: 'end',
    endMinorPerKg: 600,
    endTo: 'filling',
    ...change,
  } as Extract<Body, { kind: 'setup' }>['setup'],
});
const weigh = (line: string, g: number, o: Partial<Extract<Body, { kind: 'weigh' }>> = {}): Body => ({
  kind: 'weigh',
  piece: 1,
  line,
  name: line === 'end' ? 'ends' : 'main course 160 g',
  destination: line === 'end' ? 'filling' : 'portion',
  massMg: grams(g),
  count: 1,
  predictedMg: null,
  fromMm: null,
  toMm: null,
  replaces: null,
  ...o,
});

/** The fillets of a hake, put under the knife. */
async function onTheBoard(kind: Kind = 'portions') {
  const { closed } = await closedHake(kitchen, ines);
  const lot = closed.lots.find((l) => l.name.includes('fillet'));
  if (lot === undefined) throw new Error('no fillets');
  const id = uuidv7();
  await must(ines, api.cutting.start, { body: { id, kind, from: [{ lotId: lot.lotId, massMg: null }], at } });
  const say = (body: Body, key?: string) =>
    must(ines, api.cutting.event, { params: { cuttingId: id }, body: { at, body } }, key);
  const close = (o: Partial<Ask<typeof api.cutting.close>['body']> = {}) =>
    ines.ask(api.cutting.close, { params: { cuttingId: id }, body: { leftMg: 0, unbalancedReason: null, ...o } });
  return { id, lot, say, close };
}

describe('cutting to weight', () => {
  it('makes lots of portions and ends, with the mass, the cost, the date and the allergens of the fillets', async () => {
    const { id, lot, say, close } = await onTheBoard();
    const before = await must(ines, api.larder.read, { params: { lotId: lot.lotId } });
    expect(before.freeMg).toBe(0);
    expect((await must(ines, api.cutting.read, { params: { cuttingId: id } })).inputs[0]?.allergens).toEqual([
      'fish/hake',
    ]);
    await say({ kind: 'piece', no: 1, measures: { massMg: Math.round(lot.massMg / 2), lengthMm: 400 } });
    await say(portions());
    const each = [161, 158, 163, 160];
    for (const g of each) await say(weigh('main', g));
    const wrong = await say(weigh('main', 260));
    await say(weigh('main', 166, { replaces: wrong.id }));
    const twice = await say(weigh('main', 100));
    await say({ kind: 'back', eventId: twice.id });
    const kept = [...each, 166].reduce((sum, g) => sum + g, 0);
    const rest = Math.round(lot.massMg / 1_000) - kept;
    const refused = await close();
    expect(refused.status).toBe(409);
    expect(JSON.stringify(refused.body)).toContain('is not accounted for');
    await say(weigh('end', rest - 3, { piece: 2 }));
    const done = await close();
    expect(done.status).toBe(200);
    expect(done.body.lots.map((l) => [l.pieces, l.massMg, l.destination])).toEqual([
      [5, grams(kept), 'portion'],
      [1, grams(rest - 3), 'filling'],
    ]);
    const [portion, end] = done.body.lots;
    const made = await must(ines, api.larder.read, { params: { lotId: portion?.lotId ?? '' } });
    const trim = await must(ines, api.larder.read, { params: { lotId: end?.lotId ?? '' } });
    expect(made).toMatchObject({ category: 'white-fish-portion', allergens: ['fish/hake'], parentCodes: [lot.code] });
    expect(trim).toMatchObject({ category: 'white-fish-trim', allergens: ['fish/hake'] });
    expect(made.costMinor + trim.costMinor).toBe(before.costMinor);
    expect((made.useBy ?? '') <= (before.useBy ?? '')).toBe(true);
    const whole = await must(ines, api.cutting.read, { params: { cuttingId: id } });
    expect(whole).toMatchObject({ state: 'closed', weighedMg: grams(kept + rest - 3) });
    expect(whole.lots).toHaveLength(2);

    // taken back in the ledger, it lies on the board again with every weight
    await must(maren, api.ledger.reverse, {
      params: { movementId: done.body.movementId },
      body: { reason: 'one more' },
    });
    expect(await must(ines, api.cutting.read, { params: { cuttingId: id } })).toMatchObject({
      state: 'open',
      lots: [],
    });
    expect((await close()).status).toBe(200);
  });

  it('puts back what was not cut, and everything while nothing is weighed', async () => {
    const { lot, say, close } = await onTheBoard();
    await say(weigh('main', 160));
    const leftMg = lot.massMg - grams(160);
    const done = await close({ leftMg });
    expect(done.body).toMatchObject({ unaccountedMg: 0 });
    expect(await must(ines, api.larder.read, { params: { lotId: lot.lotId } })).toMatchObject({
      massMg: leftMg,
      freeMg: leftMg,
    });
    const again = await onTheBoard();
    await must(ines, api.cutting.cancel, { params: { cuttingId: again.id }, body: {} });
    expect(await must(ines, api.larder.read, { params: { lotId: again.lot.lotId } })).toMatchObject({
      freeMg: again.lot.massMg,
    });
    expect(
      (await ines.ask(api.cutting.event, { params: { cuttingId: again.id }, body: { at, body: weigh('main', 1) } }))
        .body,
    ).toMatchObject({
      code: 'cutting_closed',
    });
  });

  it('refuses in words what cannot be: a lot twice, a weight put right twice, nothing weighed, too much put back', async () => {
    const { id, lot, say, close } = await onTheBoard();
    const body = { id: uuidv7(), kind: 'portions' as const, from: [{ lotId: lot.lotId, massMg: grams(1) }], at };
    expect((await ines.ask(api.cutting.start, { body })).body).toMatchObject({ code: 'not_enough' });
    expect((await close()).body).toMatchObject({ code: 'nothing_weighed' });
    const first = await say(weigh('main', 150));
    await say(weigh('main', 160, { replaces: first.id }));
    const other = await ines.ask(api.cutting.event, {
      params: { cuttingId: id },
      body: { at, body: weigh('main', 170, { replaces: first.id }) },
    });
    expect(other.body).toMatchObject({ code: 'already_replaced' });
    expect((await ines.ask(api.cutting.cancel, { params: { cuttingId: id }, body: {} })).body).toMatchObject({
      code: 'has_weighings',
    });
    expect((await close({ leftMg: lot.massMg })).body).toMatchObject({ code: 'not_enough' });
    // closed all the same, the reason stands in the ledger
    expect((await close({ unbalancedReason: 'the rest was dropped' })).status).toBe(200);
    const otherHouse = await kitchen.signIn(kitchen.personOf('Ines Calloway', kitchen.other));
    expect((await otherHouse.ask(api.cutting.read, { params: { cuttingId: id } })).status).toBe(404);
  });

  it('counts a weight once however often a tablet sends it, and shows it to the others', async () => {
    const { id, say } = await onTheBoard();
    const key = uuidv7();
    await say(weigh('main', 160), key);
    await say(weigh('main', 160), key);
    const seen = await must(maren, api.cutting.read, { params: { cuttingId: id } });
    expect(seen.weighedMg).toBe(grams(160));
    const { open } = await must(maren, api.cutting.list, {});
    expect(open.find((c) => c.id === id)).toMatchObject({ weighedMg: grams(160), kind: 'portions' });
  });

  it('carries a roll across the night, then cuts it', async () => {
    const { say, close } = await onTheBoard('roll');
    await say({
      kind: 'setup',
      setup: {
        kind: 'roll',
        templateId: 'fillet-round',
        perRoll: 2,
        coreMg: 0,
        wrap: { kind: 'none' },
        overlapShare: 0.1,
        tieSpacingMm: 30,
        rest: { minHours: 6, maxHours: 24 },
        dripShare: 0.01,
        targetMg: grams(120),
        toleranceShare: 0.08,
      },
    });
    await say(weigh('roll', 1_222, { name: 'roll', destination: 'larder' }));
    const done = await close({ unbalancedReason: 'skin' });
    const roll = done.body.lots[0];
    const { resting } = await must(ines, api.cutting.list, {});
    const mine = resting.find((r) => r.lotId === roll?.lotId);
    expect(new Date(mine?.readyAt ?? 0).getTime() - new Date(mine?.madeAt ?? 0).getTime()).toBe(6 * 3_600_000);
    const id = uuidv7();
    await must(ines, api.cutting.start, {
      body: { id, kind: 'portions', from: [{ lotId: roll?.lotId ?? '', massMg: null }], at },
    });
    expect((await must(ines, api.cutting.list, {})).resting.some((r) => r.lotId === roll?.lotId)).toBe(false);
  });

  it('learns the house’s own form from pieces cut between marks, and remembers the last sizes', async () => {
    const ask = () =>
      must(ines, api.cutting.learnt, { query: { templateId: 'fillet-round', category: 'white-fish-portion' } });
    const nobody = await must(ines, api.cutting.learnt, {
      query: { templateId: 'breast', category: 'poultry-portion' },
    });
    expect(nobody).toMatchObject({ shape: null, last: null });
    const before = (await ask()).shape?.records ?? 0;
    const { lot, say, close } = await onTheBoard();
    await say({ kind: 'piece', no: 1, measures: { massMg: lot.massMg, lengthMm: 500 } });
    await say(portions({ endTo: 'staff' }));
    const marks = [0, 90, 180, 280, 400];
    for (let i = 0; i < 4; i += 1)
      await say(weigh('main', 170, { fromMm: marks[i] ?? 0, toMm: marks[i + 1] ?? 0, predictedMg: grams(160) }));
    await close({ unbalancedReason: 'the tail went to the cat' });
    const after = await ask();
    expect(after.shape?.records).toBe(before + 1);
    expect(after.last).toMatchObject({ kind: 'portions', endTo: 'staff' });
    expect((await ines.ask(api.cutting.learnt, { query: { templateId: 'no-such' } })).status).toBe(404);

    // what hakes taught is the hake's: a gurnard of the same category starts from the handbook
    const of = (species: string) =>
      must(ines, api.cutting.learnt, {
        query: { templateId: 'fillet-round', category: 'white-fish-portion', species },
      });
    expect((await of('hake')).shape?.records).toBe(before + 1);
    expect((await of('gurnard')).shape).toBeNull();
  });

  it('lists what can be cut to weight, and trim only where a mould is to be filled', async () => {
    const { lot } = await onTheBoard();
    const { closed } = await closedHake(kitchen, ines);
    const fillets = closed.lots.find((l) => l.name.includes('fillet'));
    const belly = closed.lots.find((l) => l.name.includes('belly'));
    const frame = closed.lots.find((l) => l.name.includes('frame'));
    const listed = async (toWeight: 'cut' | 'mould') =>
      (await must(ines, api.larder.list, { query: { toWeight, limit: 200 } })).lots.map((l) => l.id);
    const [cut, mould] = await Promise.all([listed('cut'), listed('mould')]);
    expect(cut).toContain(fillets?.lotId);
    expect(cut).not.toContain(belly?.lotId);
    expect(mould).toContain(belly?.lotId);
    for (const list of [cut, mould]) {
      expect(list).not.toContain(frame?.lotId);
      expect(list).not.toContain(lot.lotId); // it lies on the board already
    }
  });

  it('knows what the plan made and what each piece weighed when it came off', async () => {
    const { id } = await onTheBoard();
    const whole = await must(ines, api.cutting.read, { params: { cuttingId: id } });
    expect(whole.pieceId).toBe('fillet');
    expect(whole.inputs.map((i) => i.pieceMg)).toEqual([[grams(803), grams(790)]]);
  });

  it('is a stage of the purchase: both yields multiply on the sheet, with the portions and what was given away', async () => {
    const { lot, say, close } = await onTheBoard();
    const of = await must(ines, api.larder.read, { params: { lotId: lot.lotId } });
    const sheet = () => must(ines, api.ledger.sheet, { params: { breakdownId: of.breakdownId ?? '' } });
    const before = await sheet();
    expect(before.cuttings).toEqual([]);
    await say({ kind: 'piece', no: 1, measures: { massMg: grams(803), lengthMm: 400 } });
    await say(portions());
    for (const g of [161, 158, 163, 160, 166, 162, 164, 160]) await say(weigh('main', g));
    await say(weigh('end', 290));
    const done = await close();
    expect(done.status).toBe(200);
    const after = await sheet();
    // by hand: fillets 1,593 of 2,860; of them 1,294 in eight portions, 290 of ends, 9 lost; over 160 g: 1 + 3 + 6 + 2 + 4 = 16
    const [cut] = after.cuttings;
    expect(cut).toMatchObject({
      usedMg: grams(1_593),
      madeMg: grams(1_294),
      endMg: grams(290),
      portions: 8,
      giveAwayMg: grams(16),
    });
    expect(cut?.startShare).toBeCloseTo(1_593 / 2_860, 9);
    // the fillets stood as portions before they were cut: now the portions are what became portions
    expect(before.through.portionShare).toBeCloseTo(1_593 / 2_860, 9);
    expect(after.through.portionShare).toBeCloseTo(1_294 / 2_860, 9);
    const { recoveredShare, wasteShare, lossShare } = after.through;
    expect(recoveredShare + wasteShare + lossShare).toBeCloseTo(1, 9);
    expect(after.through.lossShare - before.through.lossShare).toBeCloseTo(9 / 2_860, 9);
    const listed = await must(ines, api.ledger.cuttings, { query: {} });
    expect(listed.cuttings[0]).toMatchObject({ usedMg: grams(1_593), portions: 8 });

    // half of the portions rolled and cut again, through the roll: shares go by what each took
    const [portionLot] = done.body.lots;
    const again = uuidv7();
    await must(ines, api.cutting.start, {
      body: { id: again, kind: 'slices', from: [{ lotId: portionLot?.lotId ?? '', massMg: grams(647) }], at },
    });
    await must(ines, api.cutting.event, {
      params: { cuttingId: again },
      body: { at, body: weigh('slices', 640, { destination: 'staff', name: 'slices' }) },
    });
    await must(ines, api.cutting.close, { params: { cuttingId: again }, body: { leftMg: 0, unbalancedReason: 'x' } });
    const twice = await sheet();
    expect(twice.through.portionShare).toBeCloseTo((1_294 - 647) / 2_860, 9);
    expect(twice.cuttings[1]?.startShare).toBeCloseTo(647 / 2_860, 9);
  });

  it('a fillet with a crust on it is cut as it is, and stands for its own part of the fish', async () => {
    const { breakdown } = await startHake(kitchen, ines);
    const params = { breakdownId: breakdown.id };
    await must(ines, api.bench.event, {
      params,
      body: {
        kind: 'bring-in',
        pieceId: 'fillet',
        name: 'Herb crust',
        massMg: grams(100),
        lotId: null,
        allergens: [],
        at,
      },
    });
    const { lots } = await weighedAndClosed(
      ines,
      breakdown.id,
      hakePieces.map(([piece, tray, g]) => [piece, tray, piece === 'fillet' ? g + 50 : g] as const),
    );
    const lot = lots.find((l) => l.name.includes('fillet'));
    expect(lot?.massMg).toBe(grams(1_693));
    const sheet = () => must(ines, api.ledger.sheet, { params });
    expect((await sheet()).through.portionShare).toBeCloseTo(1_593 / 2_860, 9);
    const id = uuidv7();
    await must(ines, api.cutting.start, {
      body: { id, kind: 'slices', from: [{ lotId: lot?.lotId ?? '', massMg: null }], at },
    });
    await must(ines, api.cutting.event, {
      params: { cuttingId: id },
      body: { at, body: weigh('slices', 1_693, { name: 'slices' }) },
    });
    await must(ines, api.cutting.close, { params: { cuttingId: id }, body: { leftMg: 0, unbalancedReason: null } });
    const after = await sheet();
    expect(after.cuttings[0]?.startShare).toBeCloseTo(1_593 / 2_860, 9);
    expect(after.through.portionShare).toBeCloseTo(1_593 / 2_860, 9);
    const { recoveredShare, wasteShare, lossShare } = after.through;
    expect(recoveredShare + wasteShare + lossShare).toBeCloseTo(1, 9);
  });

  it('a mould of two lots books what went in of each: 296 g of lining and 443 g of heart, not all of the first', async () => {
    const of = (species: string, form: string, g: number) =>
      received(kitchen, ines, { species, form, grossMg: grams(g), tareMg: 0, paidMinor: 1_000 });
    const [lining, heart] = [await of('brill', 'gutted', 688), await of('salmon', 'gutted', 488)];
    const id = uuidv7();
    await must(ines, api.cutting.start, {
      body: { id, kind: 'mould', from: [lining, heart].map((l) => ({ lotId: l.lotId, massMg: null })), at },
    });
    await must(ines, api.cutting.event, {
      params: { cuttingId: id },
      body: { at, body: weigh('mould', 739, { count: 8, name: 'mould for 8' }) },
    });
    const close = (o: Partial<Ask<typeof api.cutting.close>['body']>) =>
      ines.ask(api.cutting.close, {
        params: { cuttingId: id },
        body: { leftMg: grams(437), unbalancedReason: null, ...o },
      });
    const left = (g: number, h: number) => [
      { lotId: lining.lotId, massMg: grams(g) },
      { lotId: heart.lotId, massMg: grams(h) },
    ];
    // nobody can tell which of two unlike lots is left
    expect(JSON.stringify((await close({})).body)).toMatch(/what is left of each/);
    expect(JSON.stringify((await close({ left: left(437, 437) })).body)).toMatch(/not together/);
    const done = await close({ left: left(392, 45) });
    expect(done.status).toBe(200);
    const rest = async (lotId: string) => (await must(ines, api.larder.read, { params: { lotId } })).massMg;
    expect([await rest(lining.lotId), await rest(heart.lotId)]).toEqual([grams(392), grams(45)]);
    // by hand: 296 of 688 and 443 of 488 of 1,000 each
    const mould = await must(ines, api.larder.read, { params: { lotId: done.body.lots[0]?.lotId ?? '' } });
    expect(mould.costMinor).toBe(Math.round((1_000 * 296) / 688) + Math.round((1_000 * 443) / 488));
    expect(mould.allergens).toEqual(expect.arrayContaining(['fish/brill', 'fish/salmon']));
  });
});
