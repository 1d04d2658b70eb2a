/** Any lot up to its delivery and down to what left the house, from the records alone. */
import { api } from '@zabrik/contract';
import { grams, traceDown, traceUp } from '@zabrik/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
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

const trace = (lotId: string) => must(ines, api.larder.trace, { params: { lotId } });

describe('a trace', () => {
  it('finds the plate from the boat and the boat from the plate, to the gram', async () => {
    const a = await closedHake(kitchen, ines);
    const b = await closedHake(kitchen, ines);
    const lotOf = (closed: typeof a.closed, name: string) =>
      closed.lots.find((l) => l.name.includes(name))?.lotId ?? '';
    const batch = await must(ines, api.pots.plan, {
      body: {
        recipeId: 'fish-fumet',
        lotIds: [lotOf(a.closed, 'frame'), lotOf(b.closed, 'frame')],
        vesselId: null,
        onHandMg: {},
      },
    });
    const done = await must(ines, api.pots.finish, {
      params: { batchId: batch.id },
      body: { outputMg: grams(1_200), spentMg: grams(700), note: null },
    });
    const stock = done.outputLot?.id ?? '';
    await must(ines, api.larder.takeOut, {
      params: { lotId: stock },
      body: { massMg: grams(500), to: 'served', reason: null, note: null },
    });
    await must(ines, api.larder.takeOut, {
      params: { lotId: lotOf(a.closed, 'fillet') },
      body: { massMg: grams(320), to: 'served', reason: null, note: null },
    });

    const family = await trace(a.delivery.lotId);
    const down = traceDown(a.delivery.lotId, family.movements);
    expect(down.lots.map((l) => l.lotId)).toContain(stock);
    expect(down.lots.map((l) => l.lotId)).not.toContain(b.delivery.lotId);
    const onHand = down.lots.reduce((sum, l) => sum + (l.onHandMg * l.partMg) / l.madeMg, 0);
    const out = down.waysOut.reduce((sum, w) => sum + w.partMg, 0);
    expect(onHand + out).toBeCloseTo(grams(2_860), 0);
    expect(down.waysOut.find((w) => w.lotId === lotOf(a.closed, 'fillet') && w.sink === 'served')?.partMg).toBe(
      grams(320),
    );
    const kept = new Map(family.lots.map((l) => [l.id, l]));
    for (const l of down.lots) expect(kept.get(l.lotId)).toMatchObject({ massMg: l.onHandMg });
    expect(kept.get(a.delivery.lotId)).toMatchObject({
      origin: 'Marrow Bay',
      landedOn: '2026-11-23',
      supplierName: 'Bram Quay Fish',
      by: 'Ines Calloway',
    });

    const above = traceUp(stock, (await trace(stock)).movements);
    expect(above.map((l) => l.lotId)).toEqual(expect.arrayContaining([a.delivery.lotId, b.delivery.lotId]));
  });

  it('does not follow what was taken back', async () => {
    const { delivery, closed } = await closedHake(kitchen, ines);
    const frame = closed.lots.find((l) => l.name.includes('frame'))?.lotId ?? '';
    const gone = await must(ines, api.larder.takeOut, {
      params: { lotId: frame },
      body: { massMg: grams(100), to: 'waste', reason: 'dropped', note: null },
    });
    await must(maren, api.ledger.reverse, {
      params: { movementId: gone.movementId },
      body: { reason: 'it was another' },
    });
    const { movements } = await trace(delivery.lotId);
    expect(movements.map((m) => m.kind).sort()).toEqual(['close-stage', 'receive']);
    expect(traceDown(delivery.lotId, movements).waysOut.map((w) => w.reason)).not.toContain('dropped');
  });

  it('does not take a lot that was short for a part of one that was over in the same stock-take', async () => {
    const a = await received(kitchen, ines);
    const b = await received(kitchen, ines);
    const line = (lotId: string, countedMg: number) => ({ lotId, countedMg, reason: 'drip' as const });
    await must(ines, api.larder.count, {
      body: {
        placeId: null,
        counts: [line(a.lotId, grams(2_800)), line(b.lotId, grams(2_900))],
        note: null,
      },
    });
    for (const [mine, other] of [
      [a, b],
      [b, a],
    ] as const) {
      const { lots, movements } = await trace(mine.lotId);
      expect(lots.map((l) => l.id)).toEqual([mine.lotId]);
      expect(traceDown(mine.lotId, movements).lots.map((l) => l.lotId)).toEqual([mine.lotId]);
      expect(traceUp(mine.lotId, movements).map((l) => l.lotId)).not.toContain(other.lotId);
    }
  });

  it('forgets a merge that was taken back, and follows it while it stands', async () => {
    const a = await closedHake(kitchen, ines);
    const b = await closedHake(kitchen, ines);
    const fillets = [a, b].map((x) => x.closed.lots.find((l) => l.name.includes('fillet'))?.lotId ?? '');
    const merged = await must(ines, api.larder.merge, { body: { lotIds: fillets, confirmed: true } });
    const known = async () => (await trace(a.delivery.lotId)).lots.map((l) => l.id);
    expect(await known()).toContain(merged.lotId);
    await must(maren, api.ledger.reverse, {
      params: { movementId: merged.movementId },
      body: { reason: 'kept apart' },
    });
    expect(await known()).not.toContain(merged.lotId);
  });
});
