/** Sheets on paper: every list whole, with what the screen would show, and nothing of another house. */
import { api } from '@zabrik/contract';
import { grams } from '@zabrik/core';
import { PDFDocument } from 'pdf-lib';
import { v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { anyLot, listOnHand } from '../db/lotsOnHand.ts';
import { timeOnPaper } from '../paper/dateWords.ts';
import { openTestKitchen, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { deliveryBody, hakeLots, must, received, startHake } from '../testing/work.ts';

import { cuttingSheet } from './bench/sheets.ts';
import { larderSheet, stockTakeSheet } from './larder/sheets.ts';
import { readBatchRow } from './pots/queries.ts';
import { batchSheet } from './pots/sheets.ts';
import { deliverySheet, priceSheet } from './receive/sheets.ts';

let kitchen: TestKitchen;
let ines: Tablet;
let maren: Tablet;
let houseId = '';

beforeAll(async () => {
  kitchen = await openTestKitchen();
  ines = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
  maren = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
  houseId = (await must(ines, api.access.me, {})).house.id;
});
afterAll(() => kitchen.close());

/** All words of a sheet, in their order: a cell each. */
const textsOf = (content: unknown): string[] => {
  if (typeof content === 'string') return [content];
  if (Array.isArray(content)) {
    const runs = content as readonly unknown[];
    // one text set in two faces is one text
    if (runs.length > 0 && runs.every((r) => typeof r === 'object' && r !== null && 'font' in r))
      return [runs.map((r) => (r as unknown as { readonly text: string }).text).join('')];
    return runs.flatMap(textsOf);
  }
  if (typeof content !== 'object' || content === null) return [];
  const { text, table } = content as { readonly text?: unknown; readonly table?: { readonly body: unknown } };
  return [...(text === undefined ? [] : textsOf(text)), ...(table === undefined ? [] : textsOf(table.body))];
};

const onHand = async () =>
  (await listOnHand(kitchen.services.db, houseId, anyLot, 'place', '2026-12-01', 5_000, undefined)).lots;
const pdf = async (tablet: Tablet, path: string) => {
  const reply = await fetch(`${kitchen.base}/api/v1${path}`, { headers: { cookie: tablet.cookie } });
  return {
    status: reply.status,
    type: reply.headers.get('content-type'),
    bytes: new Uint8Array(await reply.arrayBuffer()),
  };
};
const pagesOf = async (bytes: Uint8Array): Promise<number> => (await PDFDocument.load(bytes)).getPageCount();

describe('the larder', () => {
  it('stands on paper whole: each lot once, with the sum of all, over as many pages as it takes', async () => {
    for (let i = 0; i < 70; i += 1) await received(kitchen, ines, { grossMg: grams(1_412 + i) });
    const lots = await onHand();
    const texts = textsOf(larderSheet(lots, '2026-12-01', (l) => l.placeId, ''));
    for (const { code } of lots) expect(texts.filter((t) => t === code).length, code).toBe(1);
    // 70 x 1,000 g, and 0 to 69 g on top of them
    expect(texts[0]).toBe('70 lots, 72.42 kg');
    const { status, type, bytes } = await pdf(ines, '/paper/larder.pdf?group=place');
    expect([status, type]).toEqual([200, 'application/pdf']);
    expect(await pagesOf(bytes)).toBeGreaterThanOrEqual(3);
  });

  it('says what is past, what is held and what is not free, so that nobody cuts it by the sheet', async () => {
    const { lotId } = await received(kitchen, ines, { animals: 2, grossMg: grams(6_152) });
    await must(ines, api.bench.start, {
      body: { lotId, planId: 'round-fish-two-fillets', animals: 1, massMg: grams(2_860) },
    });
    await must(maren, api.larder.keep, { params: { lotId }, body: { kind: 'hold', reason: 'smells' } });
    const lot = (await onHand()).find((l) => l.id === lotId);
    if (lot === undefined) throw new Error('not on hand');
    const words = (useBy: string | null): string =>
      textsOf(larderSheet([{ ...lot, useBy }], '2026-12-01', undefined, '')).join('|');
    expect(words('2026-11-30')).toContain('Mon 30 Nov\nPAST');
    expect(words('2026-12-01')).toContain('LAST DAY');
    expect(words('2026-12-02')).not.toMatch(/PAST|LAST/);
    expect(words(null)).toMatch(/no date.*/);
    expect(words(null)).toMatch(/ON HOLD: smells; 2,860 g on a bench or promised to a pot/);
  });

  it('what is asked for is what is printed, and stands over it', async () => {
    const all = await pagesOf((await pdf(ines, '/paper/larder.pdf')).bytes);
    const frozen = await pdf(ines, '/paper/larder.pdf?state=frozen');
    expect(await pagesOf(frozen.bytes)).toBeLessThan(all);
    expect((await pdf(ines, '/paper/larder.pdf?state=boiled')).status).toBe(400);
    expect(textsOf(larderSheet([], '2026-12-01', undefined, 'Only frozen'))).toEqual([
      'Only frozen',
      'Nothing is on hand.',
    ]);
  });
});

it('a stock-take sheet has each lot under its place with room to write', async () => {
  const lots = (await onHand()).slice(0, 5);
  const texts = textsOf(stockTakeSheet(lots, '2026-12-01', () => 'Cold room'));
  expect(texts).toContain('Cold room: 5 lots');
  expect(texts.filter((t) => t === '\n__________').length).toBe(5);
  expect((await pdf(ines, '/paper/stock-take.pdf?place=cold-room')).status).toBe(200);
});

it('the cutting list has what is under way, and of a lot only what is free', async () => {
  const { delivery } = await startHake(kitchen, ines);
  const lots = await onHand();
  const half = lots.find((l) => l.freeMg < l.massMg && l.freeMg > 0);
  if (half === undefined) throw new Error('nothing is half on the bench');
  const texts = textsOf(
    cuttingSheet(
      [{ what: 'Hake', code: delivery.code, plan: 'Two fillets', who: 'Ines Calloway', massMg: grams(2_860) }],
      [],
      [half],
      '2026-12-01',
    ),
  );
  expect(texts).toContain(delivery.code);
  expect(texts).toContain('3,000 g'.replace('3,000', ((half.freeMg as number) / 1_000).toLocaleString('en-GB')));
  expect(texts).toContain('Nothing waits.');
  expect((await pdf(ines, '/paper/cutting-list.pdf')).status).toBe(200);
});

it('prices stand by supplier, with what they were before; a viewer from whom costs are kept has no such sheet', async () => {
  const price = { supplierName: 'B', minorPerKg: 1_090, unit: 'kg', validFrom: '2026-11-24', beforeMinor: 1_000 };
  const texts = textsOf(
    priceSheet(
      [
        { ...price, item: 'Hake' },
        { ...price, item: 'Sole', supplierName: 'A', beforeMinor: null },
      ],
      'GBP',
      'without VAT',
    ),
  );
  expect(texts[0]).toBe('Prices without VAT');
  expect(texts.indexOf('A')).toBeLessThan(texts.indexOf('B'));
  expect(texts).toEqual(expect.arrayContaining(['£10.90 a kg', '£10.00 a kg', 'Tue 24 Nov 2026']));
  const wren = await kitchen.signIn(kitchen.personOf('Wren Haldane'));
  expect((await pdf(wren, '/paper/prices.pdf')).status).toBe(200);
  const { version } = await must(maren, api.house.read, {});
  await must(maren, api.house.saveSettings, { body: { version, settings: { viewersSeeCosts: false } } });
  expect((await pdf(wren, '/paper/prices.pdf')).status).toBe(403);
  expect((await pdf(ines, '/paper/prices.pdf')).status).toBe(200);
});

it('the card of a batch has what goes in, its own steps alone, and room for what is read', async () => {
  const { frame } = await hakeLots(kitchen, ines);
  const { id } = await must(ines, api.pots.plan, {
    body: { recipeId: 'fish-fumet', lotIds: [frame], vesselId: null, onHandMg: {} },
  });
  const row = await readBatchRow(kitchen.services.db, houseId, id);
  const texts = textsOf(batchSheet(row, 'GBP', true));
  expect(texts[0]).toMatch(/^468 g .*; expected .* of .*\. Planned by Ines Calloway\.$/);
  expect(texts).toContain(row.inputs[0]?.code);
  for (const i of row.ingredients.filter((x) => x.massMg > x.fromLotsMg))
    expect(texts).toContain(row.recipe.ingredients.find((x) => x.id === i.id)?.name);
  const mine = row.recipe.steps.filter((s) => s.ways === undefined || s.ways.some((w) => row.ways.includes(w)));
  expect(texts.filter((t) => t === '\n__________').length).toBe(mine.length);
  const { status, bytes } = await pdf(ines, `/paper/batches/${id}/card.pdf`);
  expect([status, (await PDFDocument.load(bytes)).getTitle()]).toEqual([200, row.recipe.title]);
});

it('a delivery has each line as it was weighed and decided, and what was not measured says so', async () => {
  const deliveryId = uuidv7();
  const line = await received(kitchen, ines, { deliveryId, grossMg: grams(3_272), invoiceMg: grams(2_900) });
  const warm = await must(ines, api.receive.accept, {
    body: deliveryBody(kitchen, {
      deliveryId,
      temperatureCentiC: null,
      verdict: 'part',
      refusedMg: grams(860),
      refusedReason: 'smell',
      inspection: [{ pointId: 'smell', good: false }],
    }),
  });
  const delivery = await must(ines, api.receive.read, { params: { deliveryId: warm.deliveryId } });
  const texts = textsOf(deliverySheet(delivery, 'GBP', 'with IVA', true));
  expect(texts).toEqual(
    expect.arrayContaining([line.code, '2,900 g', '2,860 g', '1.2 °C', 'accepted', 'not measured']),
  );
  expect(texts.some((t) => t.startsWith('860 g went back:'))).toBe(true);
  expect(texts.filter((t) => t.startsWith('£')).length).toBe(2);
  expect(texts.some((t) => t.endsWith('prices with IVA'))).toBe(true);
  expect(textsOf(deliverySheet(delivery, 'GBP', 'with IVA', false)).some((t) => /£|IVA/.test(t))).toBe(false);
  expect((await pdf(ines, `/paper/deliveries/${delivery.id}/delivery.pdf`)).status).toBe(200);
});

it('another house’s lots and batches are on none of ours', async () => {
  const theirs = await kitchen.signIn(kitchen.personOf('Ines Calloway', kitchen.other));
  expect(await pagesOf((await pdf(theirs, '/paper/larder.pdf')).bytes)).toBe(1);
  expect((await pdf(theirs, '/paper/batches/019a0000-0000-7000-8000-000000000001/card.pdf')).status).toBe(404);
});

it('a moment stands on paper by the house’s own clock', () => {
  expect(timeOnPaper(new Date('2026-12-01T13:30:00Z'), 'Europe/London')).toBe('Tue 1 Dec 2026, 13:30');
  expect(timeOnPaper(new Date('2026-12-01T23:30:00Z'), 'Europe/Paris')).toBe('Wed 2 Dec 2026, 00:30');
});
