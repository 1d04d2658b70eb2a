import { costingSchools, PRACTICE_SCALE, placeKinds, provenances } from '@zabrik/core';
import { z } from 'zod';
import { deviceAddress } from '../deviceAddress.ts';
import { endpoint } from '../endpoint.ts';
import {
  amountMinor,
  cursor,
  day,
  destination,
  id,
  instant,
  limit,
  massMg,
  newName,
  note,
  nothing,
  share,
  shortText,
  signedMassMg,
  slug,
  version,
} from '../fields.ts';
import { limitSchema } from '../limits.ts';
import { planHeadSchema, refusedSchema, speciesSchema } from '../plan.ts';
import { roles, SHIFT_MINUTES, SHORTEST_IDLE_MINUTES, skills } from '../roles.ts';
import { unitsSchema } from '../units.ts';
import { pin } from './access.ts';
import { mouldSchema } from './cutting.ts';
import { burnerSchema, vesselSchema } from './pots.ts';

export const scaleSchema = z.strictObject({
  id: slug.refine((name) => name !== PRACTICE_SCALE, 'kept for the practice scale'),
  name: shortText,
  accuracyClass: z.enum(['II', 'III', 'IIII']),
  intervalMg: massMg,
  maxMg: massMg,
  address: deviceAddress.exactOptional(),
});

const testPoint = z.strictObject({ loadMg: massMg, shownMg: signedMassMg });
export const scaleCheckSchema = z.strictObject({
  id,
  at: instant,
  by: shortText,
  scale: slug,
  scaleName: shortText,
  accuracyClass: z.enum(['II', 'III', 'IIII']),
  intervalMg: massMg,
  points: z.array(testPoint).readonly(),
});
export type ScaleCheckListed = z.output<typeof scaleCheckSchema>;

export const placeSchema = z.strictObject({
  id: slug,
  name: shortText,
  kind: z.enum(placeKinds),
  holds: z.enum(['raw', 'ready', 'any']).describe('raw and ready-to-eat stand apart'),
});

/** What else stands in the kitchen. */
export const equipmentKinds = ['oven', 'chiller', 'probe', 'board', 'tray', 'sheet'] as const;
export type EquipmentKind = (typeof equipmentKinds)[number];
/** What a board is kept for. */
export const boardFamilies = ['fish', 'shellfish', 'poultry', 'game', 'meat', 'vegetables', 'ready'] as const;
export const equipmentSchema = z.strictObject({
  id: slug,
  name: shortText,
  kind: z.enum(equipmentKinds),
  longMm: z.number().min(1).max(3_000).nullable().describe('of a tray, or a sheet something is rolled in'),
  wideMm: z.number().min(1).max(3_000).nullable(),
  watts: z.number().min(20).max(100_000).nullable().describe('of an oven'),
  holdsMg: massMg.nullable().describe('what a chiller takes at once'),
  errorCentiC: z.int().min(0).max(500).nullable().describe('how far a probe may be out, as its papers say'),
  cuts: z.enum(boardFamilies).nullable().describe('what a board is kept for'),
});
export type Equipment = z.output<typeof equipmentSchema>;
/** Of what kind goods are: how they are judged at the door. */
export const goodsGroups = ['vegetable', 'herb', 'dairy', 'dry', 'bought-stock'] as const;
/** What a house buys that the catalogue does not know. */
export const ownGoodsSchema = z.strictObject({
  id: slug.refine((of) => of.startsWith('own-'), 'begins with own-'),
  name: shortText,
  group: z.enum(goodsGroups),
  lifeDays: z.int().min(1).max(3_650).describe('usual days from receipt; the supplier’s date wins'),
  place: z.enum(placeKinds),
  allergens: z.array(z.string().max(60)).max(40).readonly(),
  ready: z.boolean().describe('eaten as it is'),
});
export type OwnGoods = z.output<typeof ownGoodsSchema>;
export const houseMouldSchema = z.strictObject({ id: slug, name: shortText, mould: mouldSchema });
export type HouseMould = z.output<typeof houseMouldSchema>;

/** From which line of a supplier's price lists the price of an ingredient is read. */
const pantryFrom = z.record(z.string().max(64), z.strictObject({ supplierId: id, item: z.string().min(1).max(120) }));

const taxSchema = z.strictObject({ name: z.string().trim().min(1).max(20), prices: z.enum(['without', 'with']) });

/** Minutes by role; a session lasts no longer than a long shift all the same. */
const idleSchema = z.record(z.enum(roles), z.int().min(SHORTEST_IDLE_MINUTES).max(SHIFT_MINUTES));

export const houseSchema = z.strictObject({
  id,
  slug,
  name: shortText,
  currency: z.string().length(3),
  timezone: z.string(),
  school: z.enum(costingSchools),
  scales: z.tuple([scaleSchema], scaleSchema).readonly(),
  practiceScale: z.boolean().describe('a simulated scale to practise on, whose weights are marked and never booked'),
  /** Market value of by-products, minor units per kilogram, by category, or by category/species where one species is worth another sum. */
  creditMinorPerKg: z.record(z.string(), amountMinor),
  creditSaid: z.record(z.string(), day).describe('the day on which each of them was last said'),
  /** Price of bought-in ingredients, minor units per kilogram. */
  pantryMinorPerKg: z.record(z.string(), amountMinor),
  pantryFrom,
  labourMinorPerHour: amountMinor.nullable().describe('what an hour at the bench costs'),
  vessels: z.array(vesselSchema),
  burners: z.array(burnerSchema),
  machines: z
    .array(
      z.strictObject({
        id: slug,
        name: shortText,
        kind: z.enum(['blender']),
        watts: z.number().min(20).max(20_000).describe('the motor, as its plate says'),
      }),
    )
    .readonly()
    .describe('what works fillings: the heat of its blade counts'),
  equipment: z.array(equipmentSchema).readonly(),
  moulds: z.array(houseMouldSchema).readonly().describe('by their inside measures'),
  goods: z.array(ownGoodsSchema).readonly().describe('bought beside what the catalogue knows'),
  energyMinorPerKwh: amountMinor.nullable().describe('what a kilowatt-hour costs'),
  tax: taxSchema
    .nullable()
    .describe('whether prices and costs are with or without the tax on what is bought; null: nothing is said of one'),
  units: unitsSchema,
  probeAt: deviceAddress.nullable().describe('where the probe thermometer answers'),
  printerAt: deviceAddress.nullable().describe('where the label printer answers'),
  places: z.array(placeSchema).readonly(),
  idleMinutes: idleSchema.describe('how long a tablet may lie untouched before it asks again who stands there'),
  /** What the scales may differ before it is a claim. */
  tolerance: z.strictObject({ share, massMg }),
  limits: z.strictObject({ profileId: z.string(), title: z.string() }),
  version,
  simulated: z.boolean().describe('the simulated bench may be used'),
  costs: z
    .enum(['shown', 'hidden'])
    .describe('hidden: the house keeps costs from viewers, and every amount in an answer to this person is 0'),
  viewersSeeCosts: z.boolean(),
});
export type House = z.output<typeof houseSchema>;

/** A cut plan as a list shows it. */
export const planListSchema = planHeadSchema.extend({
  stages: z.array(
    z.strictObject({
      id: z.string(),
      name: z.string(),
      steps: z.int(),
      minutes: z.strictObject({ low: z.number(), typical: z.number(), high: z.number() }),
    }),
  ),
  pooled: z.boolean(),
  own: z.boolean().describe('made or changed by this house'),
  retired: z.boolean(),
});
export type PlanListed = z.output<typeof planListSchema>;

export const goodsSchema = z.strictObject({
  id: slug,
  name: shortText,
  group: z.enum(goodsGroups),
  lifeDays: z.int().positive(),
  place: z.enum(placeKinds),
  allergens: z.array(z.string()).readonly(),
  ready: z.boolean().exactOptional(),
  ingredient: z.string().exactOptional(),
  trim: z
    .strictObject({
      mean: share,
      low: share,
      high: share,
      goesTo: z.string().exactOptional(),
      never: z.string().exactOptional().describe('why no pot takes its trim'),
      provenance: z.enum(provenances),
      source: z.string(),
    })
    .exactOptional(),
});

export const inspectionClassSchema = z.strictObject({
  id: slug,
  name: shortText,
  points: z
    .array(
      z.strictObject({
        id: slug,
        sense: z.enum(['look', 'smell', 'press', 'measure']),
        ask: shortText,
        good: shortText,
        bad: shortText,
        critical: z.boolean(),
      }),
    )
    .readonly(),
});

/** A limit with what the house made of it. */
export const houseLimitSchema = z.strictObject({
  limit: limitSchema,
  shownAs: z.enum(['limit', 'check-your-code']),
  changed: z
    .strictObject({ figure: z.number(), published: z.number(), looser: z.boolean(), why: z.string() })
    .nullable(),
});
export type HouseLimit = z.output<typeof houseLimitSchema>;

export const cautionSchema = z.strictObject({
  id: z.string(),
  area: z.enum(['work', 'food']),
  show: z.array(z.enum(['open', 'first', 'log', 'block', 'print'])).readonly(),
  text: z.string(),
});
export type CautionShown = z.output<typeof cautionSchema>;

const limitChange = z.strictObject({
  limitId: z.string().min(1).max(64),
  figure: z.number().min(-80).max(1_000),
  why: note,
});

const clock = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'a time, such as 07:30');
/** Days of the week, Monday 1 to Sunday 7, with the hours on each; an end before its begin is on the next day. */
export const shiftSchema = z.strictObject({
  days: z.array(z.int().min(1).max(7)).min(1).max(7),
  from: clock,
  until: clock,
});
export type Shift = z.output<typeof shiftSchema>;

/** What is said of a person beside name and role. */
const ofWork = {
  skills: z.array(z.enum(skills)).max(skills.length),
  mustNotTouch: z.array(z.string().min(1).max(40)).max(20).describe('allergens they must not touch'),
  shifts: z.array(shiftSchema).max(14),
} as const;

export const personSchema = z.strictObject({
  id,
  name: shortText,
  role: z.enum(roles),
  hourlyMinor: amountMinor.nullable().describe('what an hour of this person costs; null: as the house says'),
  ...ofWork,
  hasPin: z.boolean(),
  hasPassword: z.boolean(),
  leftAt: instant.nullable(),
  version,
});
export type HousePerson = z.output<typeof personSchema>;

const ofPerson = z.strictObject({ personId: id });
export const settingsSchema = z.strictObject({
  name: newName,
  school: z.enum(costingSchools),
  labourMinorPerHour: amountMinor.nullable(),
  energyMinorPerKwh: amountMinor.nullable(),
  tolerance: z.strictObject({ share: z.number().min(0).max(0.5), massMg: z.int().min(0).max(100_000_000) }),
  viewersSeeCosts: z.boolean(),
  vessels: z.array(vesselSchema.extend({ name: newName })).max(60),
  burners: z.array(burnerSchema.extend({ name: newName })).max(40),
  machines: z
    .array(
      z.strictObject({ id: slug, name: newName, kind: z.enum(['blender']), watts: z.number().min(20).max(20_000) }),
    )
    .max(20),
  equipment: z.array(equipmentSchema.extend({ name: newName })).max(100),
  moulds: z.array(houseMouldSchema.extend({ name: newName })).max(40),
  goods: z.array(ownGoodsSchema.extend({ name: newName })).max(300),
  places: z
    .array(placeSchema.extend({ name: newName }))
    .min(1)
    .max(40),
  scales: z.tuple([scaleSchema.extend({ name: newName })], scaleSchema.extend({ name: newName })).readonly(),
  practiceScale: z.boolean(),
  idleMinutes: idleSchema,
  tax: taxSchema.nullable(),
  units: unitsSchema,
  probeAt: deviceAddress.nullable(),
  printerAt: deviceAddress.nullable(),
  creditMinorPerKg: z.record(z.string().max(130), amountMinor),
  pantryMinorPerKg: z.record(z.string().max(64), amountMinor),
  pantryFrom,
});
/** What of a house can be changed on its screens. */
export type HouseSetting = keyof z.output<typeof settingsSchema>;

export const house = {
  read: endpoint({
    id: 'house.read',
    method: 'get',
    path: '/house',
    command: false,
    may: 'everyone',
    summary: 'The house’s own settings',
    answer: houseSchema,
  }),
  pantry: endpoint({
    id: 'house.pantry',
    method: 'get',
    path: '/pantry',
    command: false,
    may: 'everyone',
    summary:
      'What each ingredient costs today: by the supplier’s list it is read from, else as the house typed it; what has no price is left out',
    answer: z.strictObject({
      prices: z.array(
        z.strictObject({
          id: z.string(),
          minorPerKg: amountMinor,
          list: z
            .strictObject({ supplierName: z.string(), item: z.string(), unit: z.string(), validFrom: day })
            .nullable()
            .describe('the line of a price list it is read from'),
        }),
      ),
    }),
  }),
  flow: endpoint({
    id: 'house.flow',
    method: 'get',
    path: '/flow',
    command: false,
    may: 'everyone',
    summary: 'The one figure that matters now at each station',
    answer: z.strictObject({
      receivedToday: z.int(),
      openBreakdowns: z.int(),
      lotsOnHand: z.int(),
      lotsDueToday: z.int(),
      batchesPlanned: z.int(),
      lastMainShare: z.number().nullable(),
      at: instant,
    }),
  }),
  catalogue: endpoint({
    id: 'house.catalogue',
    method: 'get',
    path: '/catalogue',
    command: false,
    may: 'everyone',
    summary: 'Species, cut plans and piece categories',
    answer: z.strictObject({
      species: z.array(speciesSchema),
      plans: z.array(planListSchema),
      categories: z
        .array(
          z.strictObject({
            id: z.string(),
            label: z.string(),
            group: z.string(),
            edible: z.boolean(),
            useWithinHours: z.number(),
            refused: refusedSchema.readonly().describe('trays that no piece of this kind goes to'),
            usual: destination.nullable().describe('the tray that most such pieces go to; null where no plan has one'),
          }),
        )
        .readonly(),
      goods: z.array(goodsSchema).readonly(),
      tubPurposes: z.array(z.strictObject({ id: slug, title: shortText, accepts: z.array(z.string()).readonly() })),
      inspection: z.array(inspectionClassSchema).readonly(),
    }),
  }),
  limits: endpoint({
    id: 'house.limits',
    method: 'get',
    path: '/limits',
    command: false,
    may: 'everyone',
    summary: 'The limits the house selected, each with its document, and who selected them and why',
    query: z.strictObject({ profile: z.string().max(64).optional().describe('another profile, to look at') }),
    answer: z.strictObject({
      profileId: z.string(),
      selected: z.boolean(),
      title: z.string(),
      scope: z.string(),
      deferral: z.string(),
      profiles: z.array(z.strictObject({ id: z.string(), title: z.string() })),
      limits: z.array(houseLimitSchema),
      history: z.array(
        z.strictObject({ at: instant, by: z.string(), profileId: z.string(), changes: z.int(), note: z.string() }),
      ),
    }),
  }),
  saveLimits: endpoint({
    id: 'house.saveLimits',
    method: 'post',
    path: '/limits',
    command: true,
    may: 'head-chef',
    summary: 'Select a profile, and change figures of it, with who and why',
    body: z.strictObject({ profileId: z.string().min(1).max(64), changes: z.array(limitChange).max(100), note }),
    answer: nothing,
  }),
  cautions: endpoint({
    id: 'house.cautions',
    method: 'get',
    path: '/cautions',
    command: false,
    may: 'everyone',
    summary: 'The usual cautions, and which of them this person has seen today',
    answer: z.strictObject({
      standing: z.string(),
      cautions: z.array(cautionSchema).readonly(),
      seenToday: z.array(z.string()),
    }),
  }),
  saveViewers: endpoint({
    id: 'house.saveViewers',
    method: 'post',
    path: '/viewers',
    command: true,
    may: 'head-chef',
    summary: 'What viewers may see of costs',
    body: z.strictObject({ seeCosts: z.boolean() }),
    answer: nothing,
  }),
  keeping: endpoint({
    id: 'house.keeping',
    method: 'get',
    path: '/keeping',
    command: false,
    may: 'chefs',
    summary: 'The backups of this machine, newest first, and when they were last rehearsed',
    answer: z.strictObject({
      backups: z.array(
        z.strictObject({
          name: z.string(),
          kind: z.enum(['dump', 'base']),
          at: instant,
          bytes: z.int().nonnegative(),
          second: z.enum(['kept', 'failed']).nullable().describe('whether it lies in the second place too'),
          secondWhy: z.string().nullable(),
          triedAt: instant.nullable().describe('when it was brought back for a rehearsal'),
          triedWhy: z.string().nullable().describe('what was wrong then; null when nothing was'),
        }),
      ),
      rehearsedAt: instant.nullable().describe('the last rehearsal that went well'),
      restored: z.array(z.strictObject({ at: instant, stateAt: instant })),
    }),
  }),
  people: endpoint({
    id: 'house.people',
    method: 'get',
    path: '/people',
    command: false,
    may: 'chefs',
    summary: 'Everybody of the house, who has left too',
    answer: z.strictObject({ people: z.array(personSchema) }),
  }),
  addPerson: endpoint({
    id: 'house.addPerson',
    method: 'post',
    path: '/people',
    command: true,
    may: 'head-chef',
    summary: 'Somebody new; signs in once there is a PIN',
    body: z.strictObject({
      name: newName,
      role: z.enum(roles),
      hourlyMinor: amountMinor.nullable().default(null),
      skills: ofWork.skills.default([]),
      mustNotTouch: ofWork.mustNotTouch.default([]),
      shifts: ofWork.shifts.default([]),
    }),
    answer: personSchema,
  }),
  changePerson: endpoint({
    id: 'house.changePerson',
    method: 'post',
    path: '/people/:personId',
    command: true,
    may: 'head-chef',
    summary: 'Another name, role or hourly cost; whose role changes signs in anew',
    params: ofPerson,
    body: z.strictObject({
      name: newName,
      role: z.enum(roles),
      hourlyMinor: amountMinor.nullable(),
      skills: ofWork.skills.optional().describe('left out: as they were'),
      mustNotTouch: ofWork.mustNotTouch.optional(),
      shifts: ofWork.shifts.optional(),
      version,
    }),
    answer: personSchema,
  }),
  leave: endpoint({
    id: 'house.leave',
    method: 'post',
    path: '/people/:personId/leave',
    command: true,
    may: 'head-chef',
    summary: 'Somebody leaves, or comes back: the name stays in the books, every session ends at once',
    params: ofPerson,
    body: z.strictObject({ left: z.boolean(), version }),
    answer: personSchema,
  }),
  setPin: endpoint({
    id: 'house.setPin',
    method: 'post',
    path: '/people/:personId/pin',
    command: false,
    may: 'head-chef',
    summary: 'A new PIN for somebody: never shown again',
    params: ofPerson,
    body: z.strictObject({ pin }),
    answer: nothing,
  }),
  saveSettings: endpoint({
    id: 'house.saveSettings',
    method: 'post',
    path: '/house',
    command: true,
    may: 'head-chef',
    summary: 'Changes settings of the house: those that are named, the others stay',
    body: z.strictObject({ version, settings: settingsSchema.partial() }),
    answer: z.strictObject({ version }),
  }),
  devices: endpoint({
    id: 'house.devices',
    method: 'get',
    path: '/devices',
    command: false,
    may: 'chefs',
    summary: 'The scales of the house, whether each answers now, and how each was last checked',
    answer: z.strictObject({
      scales: z.array(
        z.strictObject({
          id: slug,
          connected: z.boolean(),
          address: z.string().nullable().describe('where it is listened to: of the house, else of the start command'),
          checks: z.array(scaleCheckSchema).describe('newest first, ten at most'),
        }),
      ),
      probe: z.string().nullable(),
      printer: z.string().nullable(),
    }),
  }),
  tryDevice: endpoint({
    id: 'house.tryDevice',
    method: 'post',
    path: '/devices/try',
    command: false,
    may: 'head-chef',
    summary: 'Asks at an address whether such a device answers, and what it shows',
    body: z.strictObject({ kind: z.enum(['scale', 'probe', 'printer']), address: deviceAddress }),
    answer: z.strictObject({
      answers: z.boolean(),
      plate: scaleSchema.pick({ accuracyClass: true, intervalMg: true, maxMg: true }).nullable(),
      netMg: signedMassMg.nullable(),
      centiC: z.int().nullable(),
    }),
  }),
  checkScale: endpoint({
    id: 'house.checkScale',
    method: 'post',
    path: '/devices/checks',
    command: true,
    may: 'chefs',
    summary: 'A scale was laid test weights on: what was loaded, what it showed',
    body: z.strictObject({ scale: slug, points: z.array(testPoint).min(1).max(20) }),
    answer: scaleCheckSchema,
  }),
  changes: endpoint({
    id: 'house.changes',
    method: 'get',
    path: '/house/changes',
    command: false,
    may: 'chefs',
    summary: 'Who changed what of the house, from what to what, newest first',
    query: z.strictObject({ limit, cursor }),
    answer: z.strictObject({
      changes: z.array(
        z.strictObject({
          id,
          at: instant,
          by: shortText,
          what: z.string(),
          about: shortText.nullable(),
          before: z.json().nullable(),
          after: z.json().nullable(),
        }),
      ),
      next: z.string().nullable(),
    }),
  }),
  seeCaution: endpoint({
    id: 'house.seeCaution',
    method: 'post',
    path: '/cautions/seen',
    command: 'may-wait',
    may: 'bench',
    summary: 'Someone has read a caution',
    body: z.strictObject({ cautionId: z.string().min(1).max(64), about: shortText.nullable() }),
    answer: nothing,
  }),
} as const;
