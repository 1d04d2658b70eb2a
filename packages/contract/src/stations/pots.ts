import { cookedAs, foods, keptAs, limitVerdicts, recipeKinds } from '@zabrik/core';
import { z } from 'zod';
import { endpoint } from '../endpoint.ts';
import {
  amountMinor,
  cursor,
  id,
  instant,
  limit,
  massMg,
  massOrNoneMg,
  note,
  nothing,
  shortText,
  slug,
  temperatureCentiC,
} from '../fields.ts';
import { limitSchema } from '../limits.ts';
import { ownTimesSchema, recipeSchema } from '../plan.ts';

export const batchStates = ['planned', 'on', 'done', 'called-off'] as const;

export const wantSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('mass'), massMg }),
  z.strictObject({ kind: z.literal('plates'), count: z.int().min(1).max(2_000) }),
  z.strictObject({ kind: z.literal('pieces'), count: z.int().min(1).max(10_000) }),
]);

const timerSchema = z.strictObject({
  id,
  label: z.string(),
  step: z.int().nullable(),
  startedAt: instant,
  dueAt: instant,
});

export const batchSchema = z.strictObject({
  id,
  state: z.enum(batchStates),
  recipeId: slug,
  version: z.int(),
  title: z.string(),
  kind: z.enum(recipeKinds),
  measure: z.enum(['litres', 'mass']).describe('how what comes out is measured; a litre is taken as a kilogram'),
  ways: z.array(slug).describe('the ways chosen, where cooks disagree'),
  inputs: z.array(
    z.strictObject({
      lotId: id,
      code: z.string(),
      name: z.string(),
      category: slug.nullable(),
      massMg,
      allergens: z.array(z.string()),
      as: z.string().describe('"base", or the ingredient it is'),
    }),
  ),
  ingredients: z.array(
    z.strictObject({ id: z.string(), name: z.string(), massMg: massOrNoneMg, fromLotsMg: massOrNoneMg }),
  ),
  foods: z.array(z.enum(foods)).describe('what of it is raw, as the limits speak of it; unknown where nobody can tell'),
  baseMg: massMg,
  expectedMg: z.strictObject({ low: z.int(), mean: z.int(), high: z.int() }),
  plates: z.int().nullable(),
  pieces: z.int().nullable(),
  limiting: z.string(),
  short: z.array(z.strictObject({ id: z.string(), name: z.string(), massMg })),
  vesselId: slug.nullable(),
  unpriced: z
    .array(z.string())
    .describe('what it took of the pantry at no price, because nobody has said one: it costs more than it shows'),
  outputMg: massMg.nullable(),
  outputLot: z.strictObject({ id, code: z.string(), name: z.string(), costMinor: amountMinor }).nullable(),
  movementId: id.nullable(),
  by: z.string(),
  plannedAt: instant,
  startedAt: instant.nullable(),
  doneAt: instant.nullable(),
});
export type Batch = z.output<typeof batchSchema>;

export const batchEventBodySchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('start') }),
  z.strictObject({ kind: z.literal('step'), step: z.int().min(0).max(60), skipped: z.boolean() }),
  z.strictObject({
    kind: z.literal('timer'),
    step: z.int().min(0).max(60).nullable(),
    label: shortText,
    dueAt: instant,
    replaces: id.optional().describe('the timer that rings then instead'),
  }),
  z.strictObject({ kind: z.literal('timer-off'), timerId: id }),
  z.strictObject({ kind: z.literal('probe'), centiC: temperatureCentiC, source: z.enum(['probe', 'typed']) }),
  z.strictObject({ kind: z.literal('level'), levelMm: z.number().min(0).max(2_000), massMg }),
  z.strictObject({
    kind: z.literal('mark'),
    vesselId: slug,
    burnerId: slug.nullable(),
    targetMg: massMg,
    salt: z
      .strictObject({ grams: z.number().gt(0).max(20_000), mostPerLitre: z.number().gt(0).max(300) })
      .exactOptional()
      .describe('salt in it, and the most a litre may have in the end'),
  }),
  z.strictObject({ kind: z.literal('add'), ingredientId: slug, name: shortText, massMg }),
  z.strictObject({
    kind: z.literal('join'),
    lotId: id,
    name: shortText.describe('as the tablet knows it'),
    massMg,
  }),
  z.strictObject({
    kind: z.literal('holds'),
    foods: z.array(z.enum(foods)).min(1).max(19).readonly().describe('what is raw in it, said by the cook'),
    how: z.enum(cookedAs),
  }),
  z.strictObject({ kind: z.literal('note'), text: note }),
  z.strictObject({ kind: z.literal('back'), eventId: id }),
]);
export const batchEventSchema = z.strictObject({ id, at: instant, by: z.string(), body: batchEventBodySchema });

export const wholeBatchSchema = batchSchema.extend({
  recipe: recipeSchema.describe('as it was when planned, the ways chosen'),
  events: z.array(batchEventSchema),
  ownTimes: ownTimesSchema,
  pieceMg: massMg.nullable().describe('of one piece of its base; null where they are not counted'),
});
export type WholeBatch = z.output<typeof wholeBatchSchema>;

export const listedRecipeSchema = z.strictObject({
  recipe: recipeSchema,
  own: z.boolean().describe('changed or made by this house'),
  retired: z.boolean(),
  changed: z.strictObject({ by: z.string(), at: instant, note: z.string() }).nullable(),
  batches: z
    .array(z.strictObject({ batchId: id, ways: z.array(slug), ratio: z.number(), baseMg: massMg, at: instant }))
    .describe('what this house’s own batches gave, the latest first; output over base'),
});
export type ListedRecipe = z.output<typeof listedRecipeSchema>;

const vesselShape = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('round'),
    diameterMm: z.number().min(20).max(2_000),
    heightMm: z.number().min(10).max(2_000),
  }),
  z.strictObject({
    kind: z.literal('long'),
    lengthMm: z.number().min(20).max(3_000),
    widthMm: z.number().min(20).max(3_000),
    heightMm: z.number().min(10).max(2_000),
  }),
]);
export const vesselSchema = z.strictObject({
  id: slug,
  name: shortText,
  litres: z.number().positive(),
  kind: z.enum(['pot', 'pan']).exactOptional().describe('left out: a pot'),
  shape: vesselShape.exactOptional(),
});
export const burnerSchema = z.strictObject({
  id: slug,
  name: shortText,
  watts: z.number().min(100).max(60_000),
  efficiency: z.number().gt(0).lte(1),
});

export const coolingKinds = ['cooling', 'freezing'] as const;
export const coolingSetupSchema = z.strictObject({
  mediumId: slug.describe('the place it stands in'),
  vesselName: shortText,
  vessel: vesselShape,
  count: z.int().min(1).max(60).describe('how many such vessels it is divided over'),
  litres: z.number().gt(0).max(500).describe('in each of them'),
  airC: z.number().min(-60).max(60).nullable().describe('measured around it; null: as the place usually is'),
  setsAtC: z.number().min(-5).max(110).nullable().describe('below this it stands still: a stock that gels, a purée'),
});
export const coolingSchema = z.strictObject({
  id,
  kind: z.enum(coolingKinds),
  state: z.enum(['open', 'closed', 'called-off']),
  lot: z.strictObject({ id, code: z.string(), name: z.string() }).nullable(),
  batchId: id.nullable().describe('the batch whose cooling step it was begun in'),
  name: z.string(),
  setup: coolingSetupSchema,
  limit: limitSchema.nullable().describe('the limit selected when it was begun'),
  readings: z.array(
    z.strictObject({ id, at: instant, centiC: temperatureCentiC, source: z.enum(['probe', 'typed']), by: z.string() }),
  ),
  verdict: z.enum(limitVerdicts),
  outcome: z.string().nullable().describe('what was done about it'),
  by: z.string(),
  startedAt: instant,
  closedAt: instant.nullable(),
});
export type Cooling = z.output<typeof coolingSchema>;

/** A boned-out piece on hand, and what came out of it. */
export const bonedSchema = z.strictObject({
  lotId: id,
  code: z.string(),
  name: z.string(),
  pieces: z.int(),
  bonedMg: massMg,
  bonesMg: massOrNoneMg,
  fleshOutMg: massOrNoneMg,
  low: z.number().describe('filling that cooks take for its own mass'),
  high: z.number(),
});
export type Boned = z.output<typeof bonedSchema>;

export const plateSchema = z.strictObject({
  id: slug,
  version: z.int().min(1),
  title: shortText,
  components: z
    .array(
      z.strictObject({
        name: z.string().trim().min(1).max(60),
        of: z.discriminatedUnion('kind', [
          z.strictObject({
            kind: z.literal('pieces'),
            category: slug,
            species: slug.nullable().describe('null: of any animal'),
          }),
          z.strictObject({ kind: z.literal('batch'), recipeId: slug }),
          z.strictObject({ kind: z.literal('goods'), goods: slug }),
        ]),
        count: z.int().min(1).max(200).nullable().describe('so many on a plate; null where it is an amount'),
        grams: z.number().gt(0).max(10_000).describe('of each, or of the amount; a millilitre is taken as a gram'),
      }),
    )
    .min(1)
    .max(20),
});

export const listedPlateSchema = z.strictObject({
  plate: plateSchema,
  retired: z.boolean(),
  changed: z.strictObject({ by: z.string(), at: instant }),
  figures: z.strictObject({
    covers: z.int().min(0).describe('plates that can be served from what lies there'),
    limiting: z.array(z.string()).describe('the components that keep it from being more'),
    costMinor: amountMinor.describe('as far as it is known'),
    unknownCost: z.array(z.string()).describe('components of which nothing lies there to say what they cost'),
    components: z.array(
      z.strictObject({
        covers: z.int().min(0),
        onHandMg: massOrNoneMg,
        perCoverMinor: amountMinor.nullable(),
        otherSize: z.int().min(0).describe('pieces of another size, not counted'),
      }),
    ),
  }),
  allergens: z.array(z.string()),
  unknownAllergens: z
    .array(z.string())
    .describe('components that lie nowhere, and may be made of one thing or another'),
});
export type ListedPlate = z.output<typeof listedPlateSchema>;

export const pots = {
  recipes: endpoint({
    id: 'pots.recipes',
    method: 'get',
    path: '/recipes',
    command: false,
    may: 'everyone',
    summary: 'What can be made: the handbook’s recipes, the house’s own in their place, and what its batches gave',
    answer: z.strictObject({ recipes: z.array(listedRecipeSchema) }),
  }),
  recipeVersions: endpoint({
    id: 'pots.recipeVersions',
    method: 'get',
    path: '/recipes/:recipeId/versions',
    command: false,
    may: 'everyone',
    summary: 'Every version of a recipe: the house’s, the latest first, and the handbook’s last',
    params: z.strictObject({ recipeId: slug }),
    answer: z.strictObject({
      versions: z.array(
        z.strictObject({ recipe: recipeSchema, by: z.string().nullable(), at: instant.nullable(), note: z.string() }),
      ),
    }),
  }),
  saveRecipe: endpoint({
    id: 'pots.saveRecipe',
    method: 'post',
    path: '/recipes',
    command: true,
    may: 'chefs',
    summary: 'The house’s own version of a recipe, or a recipe of its own',
    body: z.strictObject({
      recipe: recipeSchema,
      from: z.int().min(0).describe('the version it was changed from; 0 for a new one'),
      retired: z.boolean(),
      note,
    }),
    answer: listedRecipeSchema,
  }),
  list: endpoint({
    id: 'pots.list',
    method: 'get',
    path: '/batches',
    command: false,
    may: 'everyone',
    summary: 'Batches: those on, those planned, then the latest done',
    query: z.strictObject({ cursor, limit }),
    answer: z.strictObject({ batches: z.array(batchSchema), next: z.string().nullable() }),
  }),
  read: endpoint({
    id: 'pots.read',
    method: 'get',
    path: '/batches/:batchId',
    command: false,
    may: 'everyone',
    summary: 'A batch whole, with what was written down at the stove',
    params: z.strictObject({ batchId: id }),
    answer: wholeBatchSchema,
  }),
  timers: endpoint({
    id: 'pots.timers',
    method: 'get',
    path: '/batch-timers',
    command: false,
    may: 'everyone',
    summary: 'Timers that run or ring, of every batch and of all that lies on the bench',
    answer: z.strictObject({
      at: instant.describe('the server’s clock'),
      timers: z.array(
        timerSchema.extend({
          batchId: id.nullable().describe('the batch it is of; null: it is of the bench'),
          breakdownId: id.nullable().describe('what lies on the bench that it is of'),
          title: z.string(),
        }),
      ),
    }),
  }),
  bells: endpoint({
    id: 'pots.bells',
    method: 'get',
    path: '/houses/:slug/bells',
    command: false,
    may: 'open',
    summary: 'What rings in a house, for a tablet at which nobody is signed in: what is due when, and no more',
    params: z.strictObject({ slug }),
    answer: z.strictObject({
      at: instant.describe('the server’s clock'),
      bells: z.array(z.strictObject({ id, label: z.string(), title: z.string(), dueAt: instant })),
    }),
  }),
  plan: endpoint({
    id: 'pots.plan',
    method: 'post',
    path: '/batches',
    command: 'may-wait',
    may: 'bench',
    summary: 'Plan a batch from the lots chosen, scaled to what there is or to what is wanted',
    body: z.strictObject({
      recipeId: slug,
      lotIds: z.array(id).min(1).max(200),
      vesselId: slug.nullable(),
      onHandMg: z.record(z.string().max(40), massOrNoneMg),
      ways: z.array(slug).max(8).default([]),
      shares: z.record(slug, z.number().min(0).max(50)).default({}),
      want: wantSchema.nullable().default(null),
      cure: z
        .strictObject({ nitriteShare: z.number().gt(0).max(0.1), ppm: z.number().gt(0).max(200) })
        .nullable()
        .default(null)
        .describe('the curing salt in the tin by its label, and the sodium nitrite aimed at, mg per kg of the mix'),
    }),
    answer: batchSchema.extend({
      refused: z.array(z.strictObject({ lotId: id, reason: z.string() })),
    }),
  }),
  event: endpoint({
    id: 'pots.event',
    method: 'post',
    path: '/batches/:batchId/events',
    command: 'may-wait',
    may: 'bench',
    summary: 'Something done, read or set at the stove',
    params: z.strictObject({ batchId: id }),
    body: z.strictObject({ at: instant, body: batchEventBodySchema }),
    answer: batchEventSchema,
  }),
  finish: endpoint({
    id: 'pots.finish',
    method: 'post',
    path: '/batches/:batchId/finish',
    command: 'may-wait',
    may: 'bench',
    summary: 'The batch is done: weighed output, spent solids, and one balanced movement',
    params: z.strictObject({ batchId: id }),
    body: z.strictObject({
      outputMg: massMg,
      spentMg: massOrNoneMg
        .nullable()
        .describe('bones and solids left after straining; null: nobody weighed them, they count as they went in'),
      spentTo: z.enum(['waste', 'wash']).default('waste').describe('thrown away, or kept for a second wash'),
      fatMg: massOrNoneMg.default(0).describe('fat skimmed off and kept'),
      beside: z
        .array(z.strictObject({ id: slug, massMg, kept: z.boolean() }))
        .max(8)
        .default([])
        .describe('by-products of the recipe that were weighed: a lot each, or thrown away'),
      keptAs: z.enum(keptAs).nullable().default(null).describe('the state it is kept in; null: the usual one'),
      labourMinutes: z.number().min(0).max(2_880).nullable().default(null).describe('hands-on time'),
      at: instant.nullable().default(null).describe('when it was strained, by the tablet’s clock; null: now'),
      note: note.nullable(),
    }),
    answer: batchSchema,
  }),
  cancel: endpoint({
    id: 'pots.cancel',
    method: 'post',
    path: '/batches/:batchId/cancel',
    command: true,
    may: 'bench',
    summary: 'Call off a batch that is not done',
    params: z.strictObject({ batchId: id }),
    body: z.strictObject({}),
    answer: nothing,
  }),
  plates: endpoint({
    id: 'pots.plates',
    method: 'get',
    path: '/plates',
    command: false,
    may: 'everyone',
    summary: 'Plates by their components: how many can be served from what lies there, and what one costs',
    answer: z.strictObject({ plates: z.array(listedPlateSchema) }),
  }),
  savePlate: endpoint({
    id: 'pots.savePlate',
    method: 'post',
    path: '/plates',
    command: true,
    may: 'chefs',
    summary: 'Save a plate, or take it off',
    body: z.strictObject({
      plate: plateSchema,
      from: z.int().min(0).describe('the version it was changed from; 0 for a new one'),
      retired: z.boolean(),
    }),
    answer: listedPlateSchema,
  }),
  photograph: endpoint({
    id: 'pots.photograph',
    method: 'post',
    path: '/photographs',
    command: true,
    may: 'chefs',
    summary: 'Keep a photograph of how a step of a plan or a recipe should look: JPEG, PNG or WebP, up to 3 MB',
    body: z.strictObject({ base64: z.base64().min(16).max(4_400_000) }),
    answer: z.strictObject({ id }),
    takesBytes: 4_500_000,
  }),
  boned: endpoint({
    id: 'pots.boned',
    method: 'get',
    path: '/boned',
    command: false,
    may: 'everyone',
    summary: 'Boned-out birds and trotters that wait to be filled, each with what came out of it',
    answer: z.strictObject({ boned: z.array(bonedSchema) }),
  }),
  coolings: endpoint({
    id: 'pots.coolings',
    method: 'get',
    path: '/coolings',
    command: false,
    may: 'everyone',
    summary: 'What cools or freezes now, and the latest that did',
    answer: z.strictObject({ open: z.array(coolingSchema), closed: z.array(coolingSchema) }),
  }),
  startCooling: endpoint({
    id: 'pots.startCooling',
    method: 'post',
    path: '/coolings',
    command: 'may-wait',
    may: 'bench',
    summary: 'Begin a log of cooling or freezing',
    body: z.strictObject({
      id,
      kind: z.enum(coolingKinds),
      lotId: id.nullable(),
      batchId: id
        .nullable()
        .default(null)
        .describe('a batch that is on: what comes out of it has this log, once it is done'),
      name: shortText,
      setup: coolingSetupSchema,
      limitId: z.string().max(60).nullable(),
      at: instant,
      centiC: temperatureCentiC.describe('the first reading'),
      source: z.enum(['probe', 'typed']),
    }),
    answer: coolingSchema,
  }),
  readCooling: endpoint({
    id: 'pots.readCooling',
    method: 'post',
    path: '/coolings/:coolingId/readings',
    command: 'may-wait',
    may: 'bench',
    summary: 'A reading of what cools',
    params: z.strictObject({ coolingId: id }),
    body: z.strictObject({ at: instant, centiC: temperatureCentiC, source: z.enum(['probe', 'typed']) }),
    answer: coolingSchema,
  }),
  closeCooling: endpoint({
    id: 'pots.closeCooling',
    method: 'post',
    path: '/coolings/:coolingId/close',
    command: 'may-wait',
    may: 'bench',
    summary: 'Close a log; outside its limit, with what was done about it',
    params: z.strictObject({ coolingId: id }),
    body: z.strictObject({ outcome: note.nullable() }),
    answer: coolingSchema,
  }),
} as const;
