/** Whatever is wrong in a field of any command: 400, the field named, nothing changed. */
import { planById, recipeById } from '@zabrik/catalogue';
import { type Ask, api, type Endpoint, noTerms } from '@zabrik/contract';
import { allEndpoints } from '@zabrik/contract/openapi';
import { grams } from '@zabrik/core';
import { v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { selectOne } from '../db/select.ts';
import { changed, type Path } from '../testing/bodies.ts';
import { openTestKitchen, pathOf, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { deliveryBody, must, received, startHake, takeBody } from '../testing/work.ts';

let kitchen: TestKitchen;
let ines: Tablet;
let maren: Tablet;
beforeAll(async () => {
  kitchen = await openTestKitchen();
  ines = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
  maren = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
});
afterAll(() => kitchen.stop());

type Body = Readonly<Record<string, unknown>>;

const bad: readonly unknown[] = [
  undefined,
  null,
  '',
  'x'.repeat(600),
  'not-a-thing',
  -1,
  1.5,
  1e15,
  true,
  [],
  {},
  '2026-13-45',
];

/** Every place in a body where something stands; of a list its first entry. */
function places(value: unknown, at: Path = []): Path[] {
  if (typeof value !== 'object' || value === null) return [at];
  const entries = Array.isArray(value) ? Object.entries(value).slice(0, 1) : Object.entries(value);
  return [...(at.length > 0 ? [at] : []), ...entries.flatMap(([key, inner]) => places(inner, [...at, key]))];
}

const somebody = async () => {
  const added = await maren.ask(api.house.addPerson, { body: { name: `Odd ${uuidv7()}`, role: 'viewer' } });
  return { personId: added.body.id };
};
const everySetting = {
  name: 'x',
  school: 'weight',
  labourMinorPerHour: 5,
  energyMinorPerKwh: 5,
  tolerance: { share: 0.01, massMg: 5 },
  viewersSeeCosts: true,
  vessels: [
    {
      id: 'pot-a',
      name: 'x',
      litres: 5,
      kind: 'pot',
      shape: { kind: 'round', diameterMm: 260, heightMm: 230 },
    },
  ],
  burners: [{ id: 'gas', name: 'x', watts: 5_000, efficiency: 0.4 }],
  machines: [{ id: 'cutter', name: 'x', kind: 'blender', watts: 900 }],
  places: [{ id: 'cold-room', name: 'x', kind: 'cold-room', holds: 'raw' }],
  scales: [{ id: 'bench', name: 'x', accuracyClass: 'III', intervalMg: 5, maxMg: 5, address: '127.0.0.1:9' }],
  practiceScale: true,
  tax: { name: 'x', prices: 'with' },
  idleMinutes: { butcher: 5, 'sous-chef': 5, 'head-chef': 5, viewer: 5 },
  units: { mass: 'imperial', temperature: 'F', volume: 'us', clock: '12', dates: 'month-first', decimal: 'point' },
  probeAt: '127.0.0.1:9',
  printerAt: '127.0.0.1:9',
  creditMinorPerKg: { 'white-fish-frame': 5 },
  pantryMinorPerKg: { water: 5 },
} as const;
const at = '2026-11-24T10:00:00.000Z';
const open = async () => ({ breakdownId: (await startHake(kitchen, ines)).breakdown.id });
const squid = planById.get('squid-cleaned');
const [stage] = squid?.stages ?? [];
// one stage, one step, one piece: every kind of field a plan has, and not each of them forty times
const plan = {
  ...squid,
  id: 'squid-our-way',
  stages: [{ ...stage, steps: stage?.steps.slice(0, 1), pieces: stage?.pieces.slice(0, 1) }],
};
const species = {
  id: 'pond-carp',
  name: 'Pond carp',
  scientific: 'Cyprinus carpio',
  group: 'round-fish',
  allergen: 'fish',
  forms: [{ id: 'whole', name: 'whole', purchase: true, whole: true, typicalG: 2_400 }],
  yields: [],
  inspection: [{ check: 'gills', accept: 'red', reject: 'brown', critical: true }],
};

const course = { id: 'main', name: 'main course', grams: 150 };
// every kind of field a recipe has, and not each of them forty times
const whole = recipeById.get('fish-mousseline');
const recipe = {
  ...whole,
  id: 'mousseline-our-way',
  refuses: whole?.refuses.slice(0, 1),
  caps: [{ category: 'fish-belly', maxShare: 0.3, reason: 'soft' }],
  ingredients: [{ ...whole?.ingredients[0], accepts: ['fish-belly'], acceptsUses: ['fish-fumet'] }],
  questions: [
    {
      ...whole?.questions[0],
      ways: [
        { id: 'a', name: 'A', gives: 'x', perBase: { cream: 1 }, minutes: 5, outputFactor: 1.1, takes: 'raw' },
        { id: 'b', name: 'B', gives: 'x' },
      ],
    },
  ],
  marks: [{ name: 'half', factor: 0.5, note: 'x' }],
  heatC: { low: 60, high: 70 },
  litresPerKg: 2,
  gramsPerPlate: 120,
  category: 'rendered-fat',
  steps: [
    {
      kind: 'cook',
      text: 'x',
      minutes: { low: 1, typical: 2, high: 3 },
      tempC: { low: 60, high: 70 },
      watch: 'x',
      ways: ['a'],
    },
  ],
  keeps: whole?.keeps.slice(0, 1),
};

/** Each thing that can be written down at the stove. */
const batchEvents: readonly Body[] = [
  { kind: 'start' },
  { kind: 'step', step: 0, skipped: false },
  { kind: 'timer', step: 0, label: 'x', dueAt: '2026-11-25T10:00:00.000Z' },
  { kind: 'timer-off', timerId: uuidv7() },
  { kind: 'probe', centiC: 8_800, source: 'probe' },
  { kind: 'level', levelMm: 110, massMg: 5 },
  { kind: 'mark', vesselId: 'pot-12', burnerId: 'gas-large', targetMg: 5 },
  { kind: 'add', ingredientId: 'water', name: 'water', massMg: 5 },
  { kind: 'join', lotId: uuidv7(), name: 'x', massMg: 5 },
  { kind: 'note', text: 'x' },
  { kind: 'back', eventId: uuidv7() },
];

/** Each thing that can be written down about a cutting, with every field it may have. */
const cuttingEvents: readonly Body[] = [
  {
    kind: 'piece',
    no: 1,
    measures: { massMg: 5, lengthMm: 400, widths: [{ at: 0.25, mm: 90 }], thicknesses: [{ at: 0.25, mm: 30 }] },
  },
  {
    kind: 'weigh',
    piece: 1,
    line: 'main',
    name: 'main course',
    destination: 'portion',
    massMg: 5,
    count: 1,
    predictedMg: 5,
    fromMm: 0,
    toMm: 80,
    replaces: uuidv7(),
  },
  { kind: 'back', eventId: uuidv7() },
  {
    kind: 'setup',
    setup: {
      kind: 'portions',
      templateId: 'fillet-round',
      sizes: [
        {
          id: 'main',
          name: 'main course',
          targetMg: 5,
          toleranceShare: 0.05,
          valueMinor: 780,
          most: 4,
          from: ['centre'],
          span: { min: 10, max: 90 },
          body: { min: 5, max: 60 },
        },
      ],
      angleDeg: 0,
      squareMm: [0, 0],
      kerfMm: 0,
      clingMg: 0,
      tail: 'end',
      endMinorPerKg: 600,
      endTo: 'filling',
    },
  },
  {
    kind: 'setup',
    setup: {
      kind: 'roll',
      templateId: 'loin',
      perRoll: 2,
      coreMg: 0,
      wrap: { kind: 'sheet', widthMm: 50, lengthMm: 120, thicknessMm: 2 },
      overlapShare: 0.1,
      tieSpacingMm: 30,
      rest: { minHours: 6, maxHours: 24 },
      dripShare: 0.01,
      targetMg: 5,
      toleranceShare: 0.05,
    },
  },
  {
    kind: 'setup',
    setup: {
      kind: 'slices',
      lengthMm: 200,
      widthMm: 60,
      heightMm: 40,
      sliceMm: 8,
      angleDeg: 30,
      bladeMm: 0,
      rowMm: 30,
      density: 1.06,
      massMg: 5,
      ways: [{ id: 'raw', name: 'raw', share: 1, destination: 'portion' }],
      endTo: 'staff',
    },
  },
  {
    kind: 'setup',
    setup: {
      kind: 'mould',
      mould: { kind: 'dariole', topMm: 60, bottomMm: 45, heightMm: 55 },
      moulds: 6,
      density: 1,
      fillShare: 0.95,
      liningMm: 5,
      liningDensity: 1.05,
      cookLossShare: 0.04,
      courses: [course],
      courseId: 'main',
    },
  },
];

const commands: readonly (readonly [Endpoint, () => Promise<{ params?: Record<string, string>; body: Body }>])[] = [
  [
    api.receive.accept,
    async () => ({
      body: deliveryBody(kitchen, {
        deliveryId: uuidv7(),
        orderId: null,
        orderPosition: 0,
        invoice: 'INV 7',
        goods: null,
        verdict: 'accepted',
        refusedMg: 0,
        refusedReason: null,
        inspection: [{ pointId: 'eyes', good: true }],
        came: 'fresh',
        details: { supplierLot: 'L1', catchArea: '27.4.b' },
        boxes: [{ grossMg: grams(3_272), tareMg: grams(412) }],
        codes: ['10L1'],
        placeId: 'cold-room',
      }),
    }),
  ],
  [api.house.saveViewers, async () => ({ body: { seeCosts: true } })],
  [api.house.addPerson, async () => ({ body: { name: `Odd ${uuidv7()}`, role: 'viewer', hourlyMinor: 5 } })],
  [
    api.house.changePerson,
    async () => ({ params: await somebody(), body: { name: 'Odd', role: 'viewer', hourlyMinor: 5, version: 1 } }),
  ],
  [api.house.leave, async () => ({ params: await somebody(), body: { left: true, version: 1 } })],
  [api.house.saveSettings, async () => ({ body: { version: 1, settings: everySetting } })],
  [api.house.tryDevice, async () => ({ body: { kind: 'scale', address: '127.0.0.1:9' } })],
  [api.house.checkScale, async () => ({ body: { scale: 'bench', points: [{ loadMg: 500, shownMg: 501 }] } })],
  [api.house.setPin, async () => ({ params: await somebody(), body: { pin: '80461' } })],
  [api.access.changePin, async () => ({ body: { pin: '1357', next: '80461' } })],
  [
    api.access.lendTablet,
    async () => ({
      params: { tabletId: 'a'.repeat(64) },
      body: { name: 'Fish bench', people: [kitchen.personOf('Jory Pellam')] },
    }),
  ],
  [api.programs.makeToken, async () => ({ body: { name: 'x', scope: 'read', days: 9, pin: '1357' } })],
  [api.programs.addHook, async () => ({ body: { name: 'x', url: 'http://127.0.0.1:9/told', topics: ['movement'] } })],
  [api.jobs.ask, async () => ({ body: { kind: 'tables', format: 'csv' } })],
  [
    api.access.setUp,
    async () => ({
      body: {
        code: 'AAAA-AAAA',
        name: 'x',
        currency: 'GBP',
        timezone: 'Europe/London',
        profileId: 'uk',
        units: everySetting.units,
        headChef: { name: 'x', pin: '80461', password: 'xxxxxxxxxxxx' },
      },
    }),
  ],
  [
    api.access.recover,
    async () => ({
      body: { slug: 'home', code: 'AAAA', personId: uuidv7(), pin: '80461', password: 'xxxxxxxxxxxx' },
    }),
  ],
  [api.access.known, async () => ({ body: { keys: [uuidv7()] } })],
  [api.receive.addSupplier, async () => ({ body: { name: `Quay ${uuidv7()}` } })],
  [
    api.receive.saveSupplier,
    async () => {
      const name = `Quay ${uuidv7()}`;
      const { id } = await must(maren, api.receive.addSupplier, { body: { name } });
      const item = {
        species: 'hake',
        form: 'gutted',
        goods: null,
        theirCode: 'H',
        theirName: 'Hake',
        packMg: grams(5),
      };
      return {
        params: { supplierId: id },
        body: {
          version: 1,
          name,
          retired: false,
          terms: { ...noTerms, orderDays: [1], cutOff: '16:00', items: [item] },
        },
      };
    },
  ],
  [
    api.receive.photograph,
    async () => ({
      params: { lineId: (await received(kitchen, ines)).id },
      body: { base64: 'AAAAAAAAAAAAAAAAAAAAAAAA' },
    }),
  ],
  [
    api.receive.order,
    async () => ({
      body: {
        supplierId: kitchen.home?.suppliers.get('Bram Quay Fish') ?? '',
        dueOn: '2026-11-26',
        note: 'x',
        lines: [{ species: 'hake', form: 'gutted', goods: null, count: 2, massMg: grams(5_000), minorPerKg: 1_100 }],
      },
    }),
  ],
  [
    api.receive.sendPrices,
    async () => ({
      body: {
        listId: uuidv7(),
        supplierId: kitchen.home?.suppliers.get('Bram Quay Fish') ?? '',
        file: 'week.csv',
        validFrom: '2026-11-24',
        last: true,
        rows: [{ line: 2, item: 'Hake', minorPerKg: 1_100, unit: 'kg' }],
      },
    }),
  ],
  [
    api.bench.start,
    async () => ({
      body: {
        lotId: (await received(kitchen, ines)).lotId,
        planId: 'round-fish-two-fillets',
        animals: 1,
        massMg: grams(900),
        way: 'pooled',
      },
    }),
  ],
  [api.bench.goOn, async () => ({ body: { lots: [{ lotId: uuidv7(), massMg: grams(100) }], way: 'pooled' } })],
  [
    api.bench.weigh,
    async () => ({
      params: await open(),
      body: { ...takeBody('head', 'stock', 500), count: 1, animal: 1, scale: 'bench' },
    }),
  ],
  [api.bench.weigh, async () => ({ params: await open(), body: { kind: 'undo', replaces: uuidv7(), at } })],
  ...(
    [
      { kind: 'step', step: 1, mark: 'done', note: 'x', at },
      { kind: 'pass', step: 1, at },
      { kind: 'pause', at },
      { kind: 'resume', at },
      { kind: 'tray-note', destination: 'stock', text: 'x', at },
      { kind: 'hand-over', toPersonId: uuidv7(), at },
    ] as const
  ).map((body) => [api.bench.event, async () => ({ params: await open(), body })] as const),
  [api.bench.close, async () => ({ params: await open(), body: { unbalancedReason: 'x' } })],
  [api.bench.reopen, async () => ({ params: await open(), body: { reason: 'x' } })],
  [api.bench.savePlan, async () => ({ body: { plan, basedOn: 0 } })],
  [api.bench.retirePlan, async () => ({ params: { planId: 'squid-cleaned' }, body: { retired: true } })],
  [api.bench.saveSpecies, async () => ({ body: { species } })],
  [api.bench.scaleCommand, async () => ({ body: { command: 'tare', scale: 'bench' } })],
  [
    api.larder.takeOut,
    async () => ({
      params: { lotId: (await startHake(kitchen, ines)).delivery.lotId },
      body: { massMg: 1, to: 'waste', reason: 'dropped', note: 'x' },
    }),
  ],
  [
    api.larder.keep,
    async () => ({
      params: { lotId: (await received(kitchen, ines)).lotId },
      body: { kind: 'move', placeId: 'fridge', massMg: 5, confirmed: true, note: 'x' },
    }),
  ],
  ...(
    [
      { kind: 'date', useBy: '2026-11-24', reason: 'x', confirmed: true },
      { kind: 'reserve', reservedFor: 'x' },
      { kind: 'reading', centiC: 120 },
      { kind: 'hold', reason: 'x' },
    ] as const
  ).map(
    (body) =>
      [api.larder.keep, async () => ({ params: { lotId: (await received(kitchen, ines)).lotId }, body })] as const,
  ),
  [
    api.larder.split,
    async () => ({ params: { lotId: (await received(kitchen, ines)).lotId }, body: { massMg: 5, pieces: 1 } }),
  ],
  [
    api.larder.trim,
    async () => ({
      params: {
        lotId: (await received(kitchen, ines, { species: null, form: null, goods: 'leek', grossMg: 900, tareMg: 0 }))
          .lotId,
      },
      body: { massMg: 500, readyMg: 200, keptMg: 100, keptTo: 'stock', note: 'x' },
    }),
  ],
  [api.larder.merge, async () => ({ body: { lotIds: [uuidv7(), uuidv7()], confirmed: true } })],
  [
    api.larder.startTub,
    async () => ({
      body: {
        recipeId: 'fish-fumet',
        name: 'x',
        placeId: 'cold-room',
        from: [{ lotId: uuidv7(), massMg: 5 }],
        confirmed: true,
      },
    }),
  ],
  [
    api.larder.fill,
    async () => ({ params: { lotId: uuidv7() }, body: { from: [{ lotId: uuidv7(), massMg: 5 }], confirmed: true } }),
  ],
  [
    api.larder.takeOn,
    async () => ({
      body: {
        what: { kind: 'piece', species: 'hake', category: 'white-fish-portion', name: 'x', ready: false },
        massMg: 5,
        pieces: 1,
        useBy: '2026-12-03',
        placeId: 'cold-room',
        frozen: false,
        costMinor: 5,
        note: 'x',
      },
    }),
  ],
  [
    api.larder.count,
    async () => ({
      body: {
        placeId: 'cold-room',
        note: 'x',
        counts: [{ lotId: (await received(kitchen, ines)).lotId, countedMg: 5, reason: 'x' }],
      },
    }),
  ],
  [
    api.larder.printLabels,
    async () => ({ body: { lots: [{ lotId: (await received(kitchen, ines)).lotId, copies: 1 }], size: '57x32' } }),
  ],
  [
    api.house.saveLimits,
    async () => ({
      body: { profileId: 'uk', changes: [{ limitId: 'uk.chill.target', figure: 4, why: 'x' }], note: 'x' },
    }),
  ],
  [api.house.seeCaution, async () => ({ body: { cautionId: 'receiving', about: 'x' } })],
  [api.simulation.probe, async () => ({ body: { centiC: 120 } })],
  [
    api.pots.plan,
    async () => ({ body: { recipeId: 'fish-fumet', lotIds: [uuidv7()], vesselId: 'pot-12', onHandMg: { cream: 5 } } }),
  ],
  ...[
    { kind: 'mass', massMg: 5 },
    { kind: 'plates', count: 3 },
    { kind: 'pieces', count: 3 },
  ].map((want): (typeof commands)[number] => [
    api.pots.plan,
    async () => ({
      body: {
        recipeId: 'fish-fumet',
        lotIds: [uuidv7()],
        vesselId: null,
        onHandMg: {},
        ways: ['min-45'],
        shares: { water: 1.2 },
        want,
      },
    }),
  ]),
  [
    api.pots.finish,
    async () => ({
      params: { batchId: uuidv7() },
      body: { outputMg: 1, spentMg: 1, spentTo: 'wash', fatMg: 1, labourMinutes: 5, note: 'x' },
    }),
  ],
  [api.pots.photograph, async () => ({ body: { base64: 'AAAAAAAAAAAAAAAAAAAAAAAA' } })],
  ...(
    [
      { kind: 'pieces', category: 'white-fish-portion', species: 'hake' },
      { kind: 'batch', recipeId: 'fish-fumet' },
      { kind: 'goods', goods: 'cream' },
    ] as const
  ).map(
    (of) =>
      [
        api.pots.savePlate,
        async () => ({
          body: {
            plate: { id: 'hake', version: 1, title: 'x', components: [{ name: 'x', of, count: 1, grams: 5 }] },
            from: 0,
            retired: false,
          },
        }),
      ] as const,
  ),
  [api.pots.saveRecipe, async () => ({ body: { recipe, from: 0, retired: false, note: 'x' } })],
  ...batchEvents.map((body): (typeof commands)[number] => [
    api.pots.event,
    async () => ({ params: { batchId: uuidv7() }, body: { at, body } }),
  ]),
  ...[
    { kind: 'round', diameterMm: 260, heightMm: 230 },
    { kind: 'long', lengthMm: 500, widthMm: 300, heightMm: 65 },
  ].map((vessel): (typeof commands)[number] => [
    api.pots.startCooling,
    async () => ({
      body: {
        id: uuidv7(),
        kind: 'cooling',
        lotId: uuidv7(),
        name: 'x',
        setup: { mediumId: 'cold-room-open', vesselName: 'x', vessel, count: 1, litres: 5, airC: 3, setsAtC: 15 },
        limitId: 'x',
        at,
        centiC: 5_700,
        source: 'probe',
      },
    }),
  ]),
  [
    api.pots.readCooling,
    async () => ({ params: { coolingId: uuidv7() }, body: { at, centiC: 5_700, source: 'typed' } }),
  ],
  [api.pots.closeCooling, async () => ({ params: { coolingId: uuidv7() }, body: { outcome: 'x' } })],
  [api.ledger.reverse, async () => ({ params: { movementId: uuidv7() }, body: { reason: 'x' } })],
  [
    api.jobs.ask,
    async () => ({ body: { kind: 'movements-csv', from: '2026-11-01', until: '2026-11-30', cells: 'raw' } }),
  ],
  [api.jobs.ask, async () => ({ body: { kind: 'movements-epcis', from: '2026-11-01', until: '2026-11-30' } })],
  [api.jobs.ask, async () => ({ body: { kind: 'house-file' } })],
  [api.access.signIn, async () => ({ body: { personId: kitchen.personOf('Jory Pellam'), pin: '1357' } })],
  [api.simulation.pan, async () => ({ body: { what: 'load', massMg: 5, scale: 'bench' } })],
  [
    api.simulation.pan,
    async () => ({
      body: { what: 'piece', breakdownId: uuidv7(), pieceId: 'head', unit: 0, count: 1, scale: 'bench' },
    }),
  ],
  [
    api.cutting.start,
    async () => ({ body: { id: uuidv7(), kind: 'portions', from: [{ lotId: uuidv7(), massMg: null }], at } }),
  ],
  ...cuttingEvents.map((body): (typeof commands)[number] => [
    api.cutting.event,
    async () => ({ params: { cuttingId: uuidv7() }, body: { at, body } }),
  ]),
  [api.cutting.close, async () => ({ params: { cuttingId: uuidv7() }, body: { leftMg: 0, unbalancedReason: 'x' } })],
];

const books = () =>
  selectOne(
    kitchen.services.db,
    `select (select count(*) from movement) m, (select count(*) from posting) p, (select count(*) from weighing) w,
    (select count(*) from lot) l, (select count(*) from breakdown) b, (select count(*) from batch) r, (select count(*) from command) c,
    (select count(*) from bench_event) e, (select count(*) from cutting_event) ce, (select count(*) from cutting) cu, (select count(*) from batch_event) re, (select count(*) from cooling) co,
    (select count(*) from cooling_reading) cr, (select count(*) from house_recipe) hu, (select count(*) from house_plate) pl, (select count(*) from cut_plan) hp, (select count(*) from house_species) hs`,
    [],
  );

describe('bad input of every field', () => {
  it('is tried on every command that has one', () => {
    const withBody = allEndpoints.filter((e) => e.body !== undefined).map((e) => e.id);
    const tried = new Set<string>(commands.map(([e]) => e.id));
    // nothing stands in the body of these
    expect(withBody.filter((id) => !tried.has(id))).toEqual([
      'access.firstDayOver',
      'bench.cancel',
      'cutting.cancel',
      'pots.cancel',
      'jobs.callOff',
    ]);
  });

  it.each(commands.map(([e, make], i) => [`${i + 1} ${e.id}`, e, make] as const))(
    '%s: 400, the field named, nothing changed',
    async (_id, e, make) => {
      const { params = {}, body } = await make();
      expect(e.body?.safeParse(body).error?.issues ?? []).toEqual([]);
      const before = await books();
      let tried = 0;
      const all = places(body);
      for (const place of all) {
        const field = place.join('.');
        for (const value of bad) {
          const wrong = changed(body, place, value);
          if (e.body?.safeParse(JSON.parse(JSON.stringify(wrong))).success === true) continue;
          tried += 1;
          const reply = await maren.raw(e.method, pathOf(e, params), wrong, { 'idempotency-key': uuidv7() });
          expect(reply, `${field} = ${JSON.stringify(value)}`).toMatchObject({
            status: 400,
            body: { code: 'invalid' },
          });
          const named = (reply.body['fields'] as { path: string }[]).map((f) => f.path);
          expect(
            named.some((path) => path === field || path.startsWith(`${field}.`)),
            `${field} = ${JSON.stringify(value)} named ${named.join()}`,
          ).toBe(true);
        }
      }
      const extra = await maren.raw(
        e.method,
        pathOf(e, params),
        { ...body, surprise: 1 },
        { 'idempotency-key': uuidv7() },
      );
      expect(extra).toMatchObject({ status: 400, body: { field: 'surprise' } });
      expect(tried).toBeGreaterThan(all.length * 3);
      expect(await books()).toEqual(before);
    },
  );

  it('of an id in the path is a 400 that names it', async () => {
    expect(await ines.raw('get', '/api/v1/lots/not-an-id')).toMatchObject({ status: 400, body: { field: 'lotId' } });
  });

  it('that means nothing is refused by what it means', async () => {
    const refused = async (o: Partial<Ask<typeof api.receive.accept>['body']>) =>
      ines.ask(api.receive.accept, { body: deliveryBody(kitchen, o) });
    expect(await refused({ species: 'dragon' })).toMatchObject({ status: 400, body: { field: 'species' } });
    expect(await refused({ form: 'carcass' })).toMatchObject({ status: 400, body: { field: 'form' } });
    expect(await refused({ tareMg: grams(5_000) })).toMatchObject({ status: 400, body: { field: 'tareMg' } });
  });
});
