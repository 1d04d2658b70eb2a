import { api } from '@zabrik/contract';
import { claimWords } from '@zabrik/contract/claim-words';
import { grams, parseGs1 } from '@zabrik/core';
import { startSimulatedPrinter, startSimulatedProbe } from '@zabrik/devices';
import sharp from 'sharp';
import { v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { selectOne } from '../db/select.ts';
import { openTestKitchen, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { deliveryBody, must, received, smallestPng } from '../testing/work.ts';

let kitchen: TestKitchen;
let ines: Tablet;
let maren: Tablet;
let printer: Awaited<ReturnType<typeof startSimulatedPrinter>>;
let probe: Awaited<ReturnType<typeof startSimulatedProbe>>;
let now = 0;
beforeAll(async () => {
  printer = await startSimulatedPrinter({ host: '127.0.0.1', port: 0 });
  probe = await startSimulatedProbe({ host: '127.0.0.1', port: 0, lagMs: 1_000, normal: () => 0, clock: () => now });
  kitchen = await openTestKitchen({ probe: `127.0.0.1:${probe.port}`, printer: `127.0.0.1:${printer.port}` });
  ines = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
  maren = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
});
afterAll(async () => {
  await kitchen.stop();
  await printer.stop();
  await probe.stop();
});

const quay = () => kitchen.home?.suppliers.get('Bram Quay Fish') ?? '';
const line = (o: Parameters<typeof deliveryBody>[1]) =>
  must(ines, api.receive.accept, { body: deliveryBody(kitchen, o) });

describe('a delivery of several lines', () => {
  it('is held against its order, claims what is short and what was refused, and says what is missing', async () => {
    const order = await must(maren, api.receive.order, {
      body: {
        supplierId: quay(),
        dueOn: '2026-11-24',
        note: null,
        lines: [
          { species: 'hake', form: 'gutted', goods: null, count: 2, massMg: grams(5_000), minorPerKg: 1_100 },
          { species: 'plaice', form: 'gutted', goods: null, count: 4, massMg: grams(2_000), minorPerKg: 780 },
          { species: 'mussel', form: 'whole', goods: null, count: null, massMg: grams(3_000), minorPerKg: 420 },
        ],
      },
    });
    const deliveryId = uuidv7();
    const head = { deliveryId, orderId: order.id, invoice: 'BQ 5512' };
    // two boxes of hake, 60 g short of the invoice
    const hake = await line({
      ...head,
      orderPosition: 0,
      animals: 2,
      grossMg: grams(5_760),
      tareMg: grams(820),
      boxes: [
        { grossMg: grams(3_000), tareMg: grams(410) },
        { grossMg: grams(2_760), tareMg: grams(410) },
      ],
      invoiceMg: grams(5_000),
      paidMinor: 5_500,
      details: { supplierLot: 'T2611A', catchArea: '27.7.e', gear: 'gill net', method: 'caught' },
      codes: ['10T2611A'],
    });
    expect(hake).toMatchObject({
      netMg: grams(4_940),
      differenceMg: -grams(60),
      boxes: [{}, {}],
      details: { supplierLot: 'T2611A' },
    });
    // plaice: a part smells
    const plaice = await line({
      ...head,
      orderPosition: 1,
      species: 'plaice',
      animals: 4,
      grossMg: grams(2_000),
      tareMg: 0,
      invoiceMg: grams(2_000),
      paidMinor: 1_560,
      verdict: 'part',
      refusedMg: grams(500),
      refusedReason: 'smell',
      inspection: [{ pointId: 'smell', good: false }],
    });
    const lot = await must(ines, api.larder.read, { params: { lotId: plaice.lotId ?? '' } });
    expect(lot).toMatchObject({ massMg: grams(1_500), costMinor: 1_170 });
    // mussels: gaping, refused whole, unweighed
    const mussels = await line({
      ...head,
      orderPosition: 2,
      species: 'mussel',
      form: 'whole',
      animals: 1,
      came: 'live',
      grossMg: null,
      tareMg: 0,
      invoiceMg: grams(3_000),
      paidMinor: 1_260,
      verdict: 'refused',
      refusedReason: 'dead',
      temperatureCentiC: 1_300,
    });
    expect(mussels).toMatchObject({ lotId: null, movementId: null, code: null, refusedMg: 0 });
    const closed = await must(ines, api.receive.close, { params: { deliveryId } });
    expect(closed.claim).toMatchObject({ claimMinor: 66 + 390 + 1_260 });
    expect(closed.missing).toMatchObject([
      { position: 1, massMg: grams(500) },
      { position: 2, massMg: grams(3_000) },
    ]);
    const words = claimWords({ name: 'The house', currency: 'GBP' }, closed);
    for (const part of [
      'To: Bram Quay Fish',
      'your invoice BQ 5512',
      'your lot T2611A',
      '60 g short',
      '500 g refused: smell',
      'dead on arrival',
      '£17.16',
    ])
      expect(words).toContain(part);
    const pdf = await ines.raw('get', `/api/v1/deliveries/${deliveryId}/claim.pdf`);
    expect(pdf.headers.get('content-type')).toBe('application/pdf');
    expect(String(pdf.body['text'])).toMatch(/^%PDF-/);
    // closed is closed, and the order waits for the rest
    expect(await ines.ask(api.receive.accept, { body: deliveryBody(kitchen, head) })).toMatchObject({
      status: 409,
      body: { code: 'delivery_closed' },
    });
    const { orders } = await must(ines, api.receive.orders, {});
    expect(orders.find((o) => o.id === order.id)?.lines.map((l) => l.cameMg)).toEqual([grams(4_940), grams(1_500), 0]);
    await must(maren, api.receive.callOff, { params: { orderId: order.id } });
    expect((await must(ines, api.receive.orders, {})).orders.map((o) => o.id)).not.toContain(order.id);
  });

  it('what is refused before it is weighed says no weight of its invoice that nobody read', async () => {
    const deliveryId = uuidv7();
    const unread = { grossMg: null, tareMg: 0, invoiceMg: null, verdict: 'refused', refusedReason: 'smell' } as const;
    const line = await must(ines, api.receive.accept, {
      body: deliveryBody(kitchen, { ...unread, deliveryId, paidMinor: 3_146 }),
    });
    expect(line).toMatchObject({ lotId: null, invoiceMg: null, differenceMg: 0, differenceMinor: 0 });
    const closed = await must(ines, api.receive.close, { params: { deliveryId } });
    expect(closed.claim).toMatchObject({ claimMinor: 3_146 });
    const words = claimWords({ name: 'The house', currency: 'GBP' }, closed);
    expect(words).toContain('invoiced at £31.46, not weighed; refused whole: smell');
    expect(words).not.toMatch(/ g invoiced/);
    const weighed = await ines.ask(api.receive.accept, { body: deliveryBody(kitchen, { invoiceMg: null }) });
    expect(weighed).toMatchObject({ status: 400, body: { field: 'invoiceMg' } });
  });

  it('refuses boxes that do not add up, a part larger than all, and another supplier’s delivery', async () => {
    const refused = async (o: Parameters<typeof deliveryBody>[1]) =>
      (await ines.ask(api.receive.accept, { body: deliveryBody(kitchen, o) })).body;
    expect(await refused({ boxes: [{ grossMg: grams(1), tareMg: 0 }] })).toMatchObject({ field: 'boxes' });
    expect(await refused({ verdict: 'part', refusedMg: grams(2_860), refusedReason: 'look' })).toMatchObject({
      field: 'refusedMg',
    });
    expect(await refused({ verdict: 'refused' })).toMatchObject({ field: 'refusedReason' });
    expect(await refused({ grossMg: null, tareMg: 0 })).toMatchObject({ field: 'grossMg' });
    expect(await refused({ inspection: [{ pointId: 'tag', good: true }] })).toMatchObject({ field: 'inspection' });
    expect(await refused({ goods: 'cream' })).toMatchObject({ field: 'goods' });
    const first = await received(kitchen, ines, { deliveryId: uuidv7() });
    const other = kitchen.home?.suppliers.get('Outer Skerry Boats') ?? '';
    expect(await refused({ deliveryId: first.deliveryId, supplierId: other })).toMatchObject({ field: 'supplierId' });
  });

  it('judges the temperature by the profile, and knows frozen from fresh', async () => {
    const warm = await line({ temperatureCentiC: 620 });
    expect(warm.judged).toMatchObject({
      verdict: 'outside',
      says: 'outside the limit you selected of at most 2 °C',
      certainty: 'medium',
    });
    const frozen = await received(kitchen, ines, { came: 'frozen', temperatureCentiC: -1_900 });
    expect(frozen.judged).toMatchObject({ verdict: 'within' });
    expect(await must(ines, api.larder.read, { params: { lotId: frozen.lotId } })).toMatchObject({
      state: 'frozen',
      placeId: 'freezer',
    });
  });
});

describe('photographs', () => {
  const add = (lineId: string, bytes: Uint8Array) =>
    ines.ask(api.receive.photograph, { params: { lineId }, body: { base64: Buffer.from(bytes).toString('base64') } });
  const stored = async () =>
    (await selectOne<{ n: number }>(kitchen.services.db, 'select count(*)::int as n from photograph', []))?.n;
  const png = Buffer.from(smallestPng, 'base64');

  it('are kept with their line and shown as what they are', async () => {
    const { id } = await received(kitchen, ines);
    const photo = await add(id, png);
    expect(photo.status).toBe(200);
    const { photographs } = await must(ines, api.receive.photographs, { params: { lineId: id } });
    expect(photographs).toMatchObject([{ id: photo.body.id, width: 1, height: 1, by: 'Ines Calloway' }]);
    const shown = await ines.raw('get', `/api/v1/photographs/${photo.body.id}`);
    expect(shown.headers.get('content-type')).toBe('image/png');
    expect(shown.headers.get('x-content-type-options')).toBe('nosniff');
  });

  it('keep what is seen and nothing else: not the place, not the camera, nothing behind or between; the right way up', async () => {
    const { id } = await received(kitchen, ines);
    const wide = sharp({ create: { width: 60, height: 40, channels: 3, background: '#b31' } });
    const jpeg = await wide
      .jpeg()
      .withExif({
        IFD0: { Make: 'Spied Optics' },
        IFD3: {
          GPSLatitudeRef: 'N',
          GPSLatitude: '51/1 30/1 3230/100',
          GPSLongitudeRef: 'W',
          GPSLongitude: '0/1 7/1 0/1',
        },
      })
      .withMetadata({ orientation: 6 })
      .toBuffer();
    expect(jpeg.includes('Spied Optics')).toBe(true);
    expect((await sharp(jpeg).metadata()).exif).toBeDefined();
    const page = '<html><script>alert(1)</script></html>';
    const both = Buffer.concat([png, Buffer.from(page)]);
    const shown = async (bytes: Uint8Array) => {
      const photo = await add(id, bytes);
      expect(photo.status).toBe(200);
      const reply = await fetch(`${kitchen.base}/api/v1/photographs/${photo.body.id}`, {
        headers: { cookie: ines.cookie },
      });
      return Buffer.from(await reply.arrayBuffer());
    };
    const kept = await shown(jpeg);
    expect(kept.includes('Spied Optics')).toBe(false);
    expect(await sharp(kept).metadata()).toMatchObject({ format: 'jpeg', width: 40, height: 60 });
    expect((await sharp(kept).metadata()).exif).toBeUndefined();
    expect((await shown(both)).includes('<html>')).toBe(false);
  });

  it('are refused in words when they are none, are broken, are a bomb or too large; nothing is stored', async () => {
    const { id } = await received(kitchen, ines);
    const before = await stored();
    const bomb = await sharp({ create: { width: 7_000, height: 6_000, channels: 3, background: '#fff' } })
      .png()
      .toBuffer();
    expect(bomb.length).toBeLessThan(300_000);
    const cases: readonly (readonly [Uint8Array, number, RegExp])[] = [
      [Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script/></svg>'), 400, /no JPEG, PNG or WebP/],
      [Buffer.from('GIF89a                    '), 400, /no JPEG, PNG or WebP/],
      [Buffer.from('<html>not a picture at all</html>'), 400, /no JPEG/],
      [png.subarray(0, 14), 400, /cut short/],
      [png.subarray(0, 50), 400, /cut short or broken/],
      [bomb, 400, /7000 by 6000/],
      [Buffer.concat([png, Buffer.alloc(3_000_000)]), 413, /3 MB at most|too much/],
    ];
    for (const [bytes, status, says] of cases) {
      const reply = await add(id, bytes);
      expect(reply.status, String(says)).toBe(status);
      expect(
        String((reply.body as Record<string, unknown>)['detail'] ?? (reply.body as Record<string, unknown>)['title']),
      ).toMatch(says);
    }
    const huge = await ines.raw(
      'post',
      `/api/v1/delivery-lines/${id}/photographs`,
      { base64: 'A'.repeat(6_000_000) },
      { 'idempotency-key': uuidv7() },
    );
    expect(huge.status).toBe(413);
    expect(await stored()).toBe(before);
  });
});

describe('prices', () => {
  const send = (
    listId: string,
    rows: { line: number; item: string; minorPerKg: number; unit: string }[],
    last: boolean,
    validFrom = '2026-11-20',
  ) =>
    maren.ask(api.receive.sendPrices, {
      body: { listId, supplierId: quay(), file: 'week 48.csv', validFrom, last, rows },
    });
  const row = (line: number, item: string, minorPerKg: number) => ({ line, item, minorPerKg, unit: 'kg' });
  const priceOf = async (item: string) => (await must(ines, api.receive.prices, { query: { search: item } })).prices[0];

  it('count when the last part has come, show what they were before, and are taken back', async () => {
    const [old, fresh] = [uuidv7(), uuidv7()];
    expect((await send(old, [row(2, 'Turbot 2-3', 2_400)], true, '2026-11-13')).status).toBe(200);
    expect((await send(fresh, [row(2, 'Turbot 2-3', 2_650)], false)).status).toBe(200);
    expect(await priceOf('Turbot')).toMatchObject({ minorPerKg: 2_400, beforeMinor: null });
    expect((await send(fresh, [row(3, 'Brill', 1_900)], true)).body).toMatchObject({ rows: 2 });
    expect(await priceOf('Turbot')).toMatchObject({ minorPerKg: 2_650, beforeMinor: 2_400 });
    const { points } = await must(ines, api.receive.priceHistory, {
      query: { item: 'Turbot 2-3', supplierId: quay() },
    });
    expect(points).toEqual([
      { day: '2026-11-13', minorPerKg: 2_400 },
      { day: '2026-11-20', minorPerKg: 2_650 },
    ]);
    expect(await send(fresh, [row(4, 'Cod', 1)], true)).toMatchObject({ status: 409, body: { code: 'changed_since' } });
    await must(maren, api.receive.undoPrices, { params: { listId: fresh } });
    expect(await priceOf('Turbot')).toMatchObject({ minorPerKg: 2_400 });
    expect(await maren.ask(api.receive.undoPrices, { params: { listId: fresh } })).toMatchObject({
      status: 409,
      body: { code: 'list_undone' },
    });
  });

  it('refuse a cell a spreadsheet would run, and more than fits; a butcher does not set them', async () => {
    const count = () =>
      selectOne(kitchen.services.db, 'select (select count(*) from price) p, (select count(*) from price_list) l', []);
    const before = await count();
    expect(await send(uuidv7(), [row(2, '=HYPERLINK("http://x")', 100)], true)).toMatchObject({
      status: 400,
      body: { field: 'rows.0.item' },
    });
    const reply = await maren.raw('post', '/api/v1/price-lists', 'x'.repeat(1_000_000), {
      'idempotency-key': uuidv7(),
    });
    expect(reply.status).toBe(413);
    expect(
      (
        await ines.ask(api.receive.sendPrices, {
          body: {
            listId: uuidv7(),
            supplierId: quay(),
            file: 'f',
            validFrom: '2026-11-20',
            last: true,
            rows: [row(2, 'x', 1)],
          },
        })
      ).status,
    ).toBe(403);
    expect(await count()).toEqual(before);
  });
});

describe('labels', () => {
  it('come out of the printer, say what the lot says, and a second one says it is one', async () => {
    const { lotId, code } = await received(kitchen, ines);
    const print = (size: '57x32' | 'a4-24') =>
      must(ines, api.larder.printLabels, { body: { lots: [{ lotId, copies: 2 }], size } });
    expect(await print('57x32')).toMatchObject({ labels: 2, reprints: 0 });
    expect(await print('a4-24')).toMatchObject({ labels: 2, reprints: 2 });
    const { jobs } = await must(ines, api.larder.printed, {});
    expect(jobs[0]).toMatchObject({ name: `${code} Hake, gutted, head on`, labels: 2 });
    const shown = await ines.raw('get', `/api/v1/labels/printed/${jobs[0]?.job}`);
    expect(String(shown.body['text'])).toMatch(/^%PDF-/);
    expect(await must(ines, api.larder.read, { params: { lotId } })).toMatchObject({ labels: 4 });
    expect(parseGs1(`91${code}`, 2026).fields[0]?.raw).toBe(code);
  });
});

it('the probe follows what it is stuck into, and says when it is steady', async () => {
  await must(ines, api.simulation.probe, { body: { centiC: 140 } });
  now += 200;
  expect(await must(ines, api.receive.probe, {})).toMatchObject({ state: 'moving' });
  now += 4_000;
  expect(await must(ines, api.receive.probe, {})).toMatchObject({ state: 'steady', centiC: 140, errorCentiC: 50 });
});

describe('limits', () => {
  it('are selected by the head chef with who and why; a looser figure is said to be one', async () => {
    const before = await must(ines, api.house.limits, { query: {} });
    expect(before).toMatchObject({ profileId: 'uk', selected: false });
    expect(before.limits.find((l) => l.limit.certainty === 'low')?.shownAs).toBe('check-your-code');
    const body = {
      profileId: 'us-food-code-2022',
      changes: [{ limitId: 'us.recv.tcs', figure: 6, why: 'our inspector’s letter' }],
      note: 'The group’s plan.',
    };
    expect((await ines.ask(api.house.saveLimits, { body })).status).toBe(403);
    await must(maren, api.house.saveLimits, { body });
    const after = await must(ines, api.house.limits, { query: {} });
    expect(after).toMatchObject({
      profileId: 'us-food-code-2022',
      selected: true,
      history: [{ by: 'Maren Ostle', note: 'The group’s plan.' }],
    });
    expect(after.limits.find((l) => l.limit.id === 'us.recv.tcs')?.changed).toEqual({
      figure: 6,
      published: 5,
      looser: true,
      why: 'our inspector’s letter',
    });
    expect((await line({ temperatureCentiC: 560 })).judged).toMatchObject({ verdict: 'within' });
    expect((await line({ temperatureCentiC: 610 })).judged).toMatchObject({ verdict: 'outside' });
    expect(
      await maren.ask(api.house.saveLimits, {
        body: { ...body, changes: [{ limitId: 'us.separate', figure: 1, why: 'x' }] },
      }),
    ).toMatchObject({ status: 400, body: { field: 'changes.0.limitId' } });
  });
});

it('a caution is shown until this person has read it today', async () => {
  await must(ines, api.house.seeCaution, { body: { cautionId: 'shot', about: 'wood pigeon' } });
  expect((await must(ines, api.house.cautions, {})).seenToday).toEqual(['shot']);
  expect((await must(maren, api.house.cautions, {})).seenToday).toEqual([]);
  expect((await ines.ask(api.house.seeCaution, { body: { cautionId: 'nonsense', about: null } })).status).toBe(400);
});

// last: the kitchen it opens takes the models with it
it('labels of a printer that is away are not written down as printed', async () => {
  const away = await openTestKitchen({ printer: '127.0.0.1:1' });
  const jory = await away.signIn(away.personOf('Jory Pellam'));
  const { lotId } = await received(away, jory);
  expect(
    await jory.ask(api.larder.printLabels, { body: { lots: [{ lotId, copies: 1 }], size: '57x32' } }),
  ).toMatchObject({
    status: 503,
    body: { code: 'printer_away' },
  });
  expect(await must(jory, api.larder.read, { params: { lotId } })).toMatchObject({ labels: 0 });
  expect(await must(jory, api.receive.probe, {})).toMatchObject({ state: 'away', centiC: null });
  await away.stop();
});
