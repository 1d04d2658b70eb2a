/** What stands in the demo's larder beside this morning's cuts: a delivery with trouble in it, frozen bones, a tub, dry goods, prices. */
import { acceptBody, api } from '@zabrik/contract';
import { grams } from '@zabrik/core';
import { v7 as uuidv7 } from 'uuid';
import { readHouse } from '../db/house.ts';
import { saveLimits } from '../stations/house/limits.ts';
import { saveSettings } from '../stations/house/settings.ts';
import { count } from '../stations/larder/countLots.ts';
import { startTub } from '../stations/larder/fillTub.ts';
import { keep } from '../stations/larder/keep.ts';
import { placeOrder } from '../stations/receive/orders.ts';
import { takePrices } from '../stations/receive/prices.ts';
import { acceptDelivery, closeDelivery } from '../stations/receive/service.ts';
import { addSupplier, listSuppliers, saveSupplier } from '../stations/receive/suppliers.ts';
import type { Replay } from './replay.ts';
import * as scenario from './scenario.ts';

const HOUR = 3_600_000;
const none = { params: undefined, query: undefined } as const;

type Line = Partial<Parameters<typeof acceptBody.parse>[0] & object> & Record<string, unknown>;

export async function stockTheLarder(
  replay: Replay,
  now: Date,
  bones: readonly { readonly id: string; readonly massMg: number }[],
): Promise<void> {
  const { services } = replay;
  const ago = (hours: number): Date => new Date(now.getTime() - hours * HOUR);
  const day = (days: number): string => new Date(now.getTime() + days * 24 * HOUR).toISOString().slice(0, 10);
  const receive = (actor: string, at: Date, line: Line) =>
    replay.do(actor, at, api.receive.accept.id, (command) =>
      acceptDelivery(services, command, {
        ...none,
        body: acceptBody.parse({
          species: null,
          form: null,
          animals: 1,
          origin: null,
          tareMg: 0,
          temperatureCentiC: null,
          landedOn: null,
          useBy: null,
          note: null,
          ...line,
        }),
      }),
    );

  await replay.do('Maren Ostle', ago(24 * 30), api.house.saveLimits.id, (command) =>
    saveLimits(services, command, {
      ...none,
      body: {
        profileId: 'uk',
        changes: [
          { limitId: 'uk.recv.fish', figure: 3, why: 'Day boats land at our quay: on the bench within the hour.' },
        ],
        note: 'Our food-safety plan of this year, read through with the officer.',
      },
    }),
  );

  // an order that came in part this morning: short hake, mussels that went back, squid still to come
  const quay = replay.supplier('Bram Quay Fish');
  const order = await replay.do('Tobin Arkwell', ago(22), api.receive.order.id, (command) =>
    placeOrder(services, command, {
      ...none,
      body: {
        supplierId: quay,
        dueOn: day(0),
        note: null,
        lines: [
          { species: 'mackerel', form: 'whole', goods: null, count: 8, massMg: grams(2_400), minorPerKg: 690 },
          { species: 'mussel', form: 'whole', goods: null, count: null, massMg: grams(5_000), minorPerKg: 420 },
          { species: 'squid', form: 'whole', goods: null, count: null, massMg: grams(2_000), minorPerKg: 990 },
        ],
      },
    }),
  );
  const deliveryId = uuidv7();
  const head = { deliveryId, orderId: order.id, supplierId: quay, invoice: 'BQF 20417' };
  const mackerel = await receive('Ines Calloway', ago(2.4), {
    ...head,
    orderPosition: 0,
    species: 'mackerel',
    form: 'whole',
    animals: 8,
    grossMg: grams(3_130),
    tareMg: grams(820),
    boxes: [
      { grossMg: grams(1_650), tareMg: grams(410) },
      { grossMg: grams(1_480), tareMg: grams(410) },
    ],
    invoiceMg: grams(2_400),
    paidMinor: 1_656,
    temperatureCentiC: 160,
    origin: 'Marrow Bay, hand line',
    landedOn: day(-1),
    inspection: ['eyes', 'gills', 'skin', 'smell', 'flesh', 'cavity'].map((pointId) => ({ pointId, good: true })),
    details: { supplierLot: 'MB-1124', catchArea: '27.7.e', gear: 'hand line', method: 'caught' },
  });
  await receive('Ines Calloway', ago(2.3), {
    ...head,
    orderPosition: 1,
    species: 'mussel',
    form: 'whole',
    came: 'live',
    grossMg: grams(5_090),
    tareMg: grams(90),
    invoiceMg: grams(5_000),
    paidMinor: 2_100,
    temperatureCentiC: 940,
    verdict: 'refused',
    refusedReason: 'dead',
    inspection: [
      { pointId: 'tag', good: true },
      { pointId: 'closed', good: false },
      { pointId: 'broken', good: false },
      { pointId: 'smell', good: true },
    ],
    details: { healthMark: 'GB MR 114', catchArea: 'Marrow Bay, class B' },
    note: 'One in four gapes and stays open.',
  });
  await replay.do('Ines Calloway', ago(2.2), api.receive.close.id, (command) =>
    closeDelivery(services, command, { params: { deliveryId }, body: undefined, query: undefined }),
  );
  await replay.do('Tobin Arkwell', ago(1), api.receive.order.id, (command) =>
    placeOrder(services, command, {
      ...none,
      body: {
        supplierId: replay.supplier('Outer Skerry Boats'),
        dueOn: day(1),
        note: null,
        lines: [
          { species: 'hake', form: 'gutted', goods: null, count: 3, massMg: grams(8_500), minorPerKg: 1_090 },
          { species: 'gurnard', form: 'whole', goods: null, count: 12, massMg: grams(5_000), minorPerKg: 640 },
        ],
      },
    }),
  );

  const act = (actor: string, at: Date, lotId: string, body: Parameters<typeof keep>[2]['body']) =>
    replay.do(actor, at, api.larder.keep.id, (command) =>
      keep(services, command, { params: { lotId }, body, query: undefined }),
    );
  if (mackerel.lotId !== null) {
    await act('Ines Calloway', ago(2.1), mackerel.lotId, { kind: 'reading', centiC: 160 });
    await act('Jory Pellam', ago(1.2), mackerel.lotId, { kind: 'reading', centiC: 610 });
    await act('Jory Pellam', ago(0.6), mackerel.lotId, { kind: 'reading', centiC: 210 });
  }

  // vegetables and dry goods
  for (const [i, [goods, grossG, pence, hoursAgo]] of scenario.dryGoods.entries())
    await receive('Tobin Arkwell', ago(hoursAgo), {
      supplierId: replay.supplier('Hollin Farm Poultry'),
      goods,
      grossMg: grams(grossG),
      invoiceMg: grams(grossG),
      paidMinor: pence,
      animals: 1 + (i % 2),
    });

  // bones of the day before yesterday: frozen, most of them in a tub
  for (const { id } of bones)
    await act('Jory Pellam', ago(44), id, {
      kind: 'freeze',
      placeId: 'freezer',
      massMg: null,
      confirmed: false,
      note: null,
    });
  await replay.do('Jory Pellam', ago(43), api.larder.startTub.id, (command) =>
    startTub(services, command, {
      ...none,
      body: {
        recipeId: 'fish-fumet',
        name: 'Fish bones, freezer',
        placeId: 'freezer',
        from: bones.slice(0, -1).map(({ id }) => ({ lotId: id, massMg: null })),
        confirmed: true,
      },
    }),
  );
  const last = bones.at(-1);
  if (last !== undefined)
    await replay.do('Tobin Arkwell', ago(20), api.larder.count.id, (command) =>
      count(services, command, {
        ...none,
        body: {
          placeId: 'freezer',
          note: 'Before the weekend.',
          counts: [
            {
              lotId: last.id,
              countedMg: last.massMg - grams(2),
              countedPieces: null,
              seenMg: null,
              seenPieces: null,
              reason: 'drip',
            },
          ],
        },
      }),
    );

  // two price lists of the fish quay, a month apart
  for (const [weeks, factor] of [
    [4, 1],
    [0, 1.045],
  ] as const)
    await replay.do('Maren Ostle', ago(weeks * 7 * 24 + 3), api.receive.sendPrices.id, (command) =>
      takePrices(services, command, {
        ...none,
        body: {
          listId: uuidv7(),
          supplierId: quay,
          file: `bram-quay-${day(-weeks * 7)}.csv`,
          validFrom: day(-weeks * 7),
          last: true,
          rows: scenario.quayPrices.map(([item, minorPerKg], i) => ({
            line: i + 2,
            item,
            minorPerKg: Math.round((minorPerKg * (factor + (weeks === 0 ? ((i % 5) - 2) * 0.03 : 0))) / 5) * 5,
            unit: 'kg',
          })),
        },
      }),
    );

  // what is agreed with whom, and a dry store whose list the pantry is read from
  const store = await replay.do('Maren Ostle', ago(40 * 24), api.receive.addSupplier.id, (command) =>
    addSupplier(services, command, { ...none, body: { name: scenario.dryStore.name } }),
  );
  for (const [name, terms] of Object.entries(scenario.terms))
    await replay.do('Maren Ostle', ago(39 * 24), api.receive.saveSupplier.id, async (command) => {
      const now = (await listSuppliers(services.db, command)).find((s) => s.name === name);
      if (now === undefined) throw new Error(`nobody is called ${name}`);
      return saveSupplier(services, command, {
        ...none,
        params: { supplierId: now.id },
        body: { version: now.version, name, retired: false, terms: { ...now.terms, ...terms } },
      });
    });
  await replay.do('Maren Ostle', ago(3), api.receive.sendPrices.id, (command) =>
    takePrices(services, command, {
      ...none,
      body: {
        listId: uuidv7(),
        supplierId: store.id,
        file: 'gannet-street.csv',
        validFrom: day(-7),
        last: true,
        rows: scenario.dryStore.prices.map(([item, minorPerKg, unit], i) => ({ line: i + 2, item, minorPerKg, unit })),
      },
    }),
  );
  await replay.do('Maren Ostle', ago(2), api.house.saveSettings.id, async (command) => {
    const { version } = await readHouse(services.db, command);
    return saveSettings(services, command, {
      ...none,
      body: {
        version,
        settings: {
          pantryFrom: Object.fromEntries(
            Object.entries(scenario.dryStore.read).map(([id, item]) => [id, { supplierId: store.id, item }]),
          ),
        },
      },
    });
  });
}
