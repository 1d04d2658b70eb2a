/** The published shape of catalogue files: cut plans, species, recipes. The compiler holds them to the core's types. */
import {
  bodies,
  type CutPlan,
  cookedAs,
  destinations,
  keptAs,
  provenances,
  type Recipe,
  recipeKinds,
  type Species,
  stepKinds,
} from '@zabrik/core';
import { z } from 'zod';

const key = z.string().regex(/^[a-z0-9][a-z0-9-]{0,63}$/);
const sourced = z.strictObject({
  mean: z.number().gt(0).lt(1),
  sd: z.number().min(0).lt(0.5),
  provenance: z.enum(provenances),
  source: z.string().min(1).max(400),
});
const minutes = z.strictObject({
  low: z.number().positive().max(100_000),
  typical: z.number().positive().max(100_000),
  high: z.number().positive().max(100_000),
});
const bySize = z
  .array(z.strictObject({ upToG: z.number().positive().max(1_000_000), minutes }))
  .min(1)
  .max(8)
  .describe('the same by the mass of one piece, the smallest first');
const photo = z.uuid().describe('a photograph this house keeps');
const where = z.enum(destinations);

export const refusedSchema = z.array(z.strictObject({ destination: where, reason: z.string().min(1).max(400) }));

export const planPieceSchema = z.strictObject({
  id: key,
  // with the animal's name of 120 before it, it is a lot's of 200
  name: z.string().min(1).max(60),
  count: z.int().min(1).max(1_000),
  units: z.array(z.string().min(1).max(60)).min(1).exactOptional(),
  category: key,
  share: sourced,
  destination: where,
  alternatives: z.array(where),
  refused: refusedSchema,
  main: z.boolean(),
  edible: z.boolean(),
  yieldForm: key.exactOptional(),
  absentIn: z.array(key).exactOptional(),
  whenHeavy: z.string().exactOptional(),
  whenLight: z.string().exactOptional(),
  next: key.exactOptional(),
  becomes: key.exactOptional(),
  accumulates: z.boolean().exactOptional(),
  occasional: z.literal(true).exactOptional(),
  note: z.string().max(400).exactOptional(),
});

export const planStepSchema = z.strictObject({
  title: z.string().min(1).max(200),
  how: z.string().exactOptional(),
  why: z.string().exactOptional(),
  caution: z.string().exactOptional(),
  check: z.string().exactOptional(),
  orderMatters: z.boolean(),
  guard: z.strictObject({ warn: z.string().min(1).max(400), before: z.array(key) }).exactOptional(),
  minutes: minutes.exactOptional(),
  bySize: bySize.exactOptional(),
  measure: z
    .strictObject({
      what: z.string().min(1).max(60),
      low: z.number().min(0).max(10_000),
      high: z.number().min(0).max(10_000),
      unit: z.string().min(1).max(12),
    })
    .exactOptional(),
  passes: z.int().min(1).max(9).exactOptional(),
  photo: photo.exactOptional(),
  pieces: z.array(key),
});

export const planStageSchema = z.strictObject({
  id: key,
  name: z.string().min(1).max(120),
  minutes,
  passiveMinutes: z.number().positive().max(100_000).exactOptional(),
  rest: z
    .strictObject({
      lowMinutes: z.number().positive().max(100_000),
      typicalMinutes: z.number().positive().max(100_000),
      highMinutes: z.number().positive().max(100_000),
      note: z.string().max(400),
    })
    .exactOptional(),
  body: z.enum(bodies).exactOptional(),
  drip: sourced,
  dripIs: z.string().exactOptional(),
  fill: z
    .strictObject({
      piece: key,
      low: z.number().positive().max(100_000),
      high: z.number().positive().max(100_000),
      bones: z.array(key).exactOptional(),
      flesh: z.array(key).exactOptional(),
    })
    .exactOptional(),
  cooks: z
    .strictObject({
      word: z.string().min(1).max(40),
      pieces: z.array(key).min(1),
      through: z.boolean(),
      keepDays: z.record(key, z.int().min(0).max(90)),
      adds: z
        .array(z.strictObject({ id: key, name: z.string().min(1).max(60), allergens: z.array(z.string().max(60)) }))
        .exactOptional(),
    })
    .exactOptional(),
  waitsForAll: z.literal(true).exactOptional(),
  steps: z.array(planStepSchema).min(1).max(60),
  pieces: z.array(planPieceSchema).min(1).max(60),
});

const starts: z.ZodType<CutPlan['starts'], CutPlan['starts']> = z
  .array(z.strictObject({ species: key, forms: z.array(key).min(1), at: key.exactOptional() }))
  .min(1);

export const planHeadSchema = z.strictObject({
  id: key,
  version: z.int().min(1),
  title: z.string().min(1).max(120),
  body: z.enum(bodies),
  skill: z.union([z.literal(1), z.literal(2), z.literal(3)]),
  starts,
});

export const cutPlanSchema: z.ZodType<CutPlan, CutPlan> = planHeadSchema.extend({
  tools: z.array(z.string().max(400)).max(40),
  pooled: z.boolean().exactOptional(),
  stages: z.array(planStageSchema).min(1).max(12),
});

const band = z.strictObject({
  mean: z.number().gt(0).lte(1.5),
  low: z.number().gte(0).max(100_000),
  high: z.number().lte(2),
});

export const speciesSchema: z.ZodType<Species, Species> = z.strictObject({
  id: key,
  name: z.string().min(1).max(60),
  scientific: z.string().min(1).max(60),
  group: key,
  allergen: z.enum(['fish', 'crustaceans', 'molluscs', 'none']),
  histamine: z.boolean().exactOptional(),
  forms: z.array(
    z.strictObject({
      id: key,
      name: z.string().min(1).max(60),
      purchase: z.boolean(),
      whole: z.boolean(),
      cooked: z.literal(true).exactOptional(),
      typicalG: z.number().positive().max(1_000_000).exactOptional(),
    }),
  ),
  yields: z.array(
    z.strictObject({
      from: key,
      to: key,
      share: band,
      source: z.string().min(1).max(400),
      provenance: z.enum(provenances),
      liveWeightFactor: z.number().gt(1).exactOptional(),
    }),
  ),
  inspection: z.array(
    z.strictObject({
      check: z.string().max(400),
      accept: z.string().max(400),
      reject: z.string().max(400),
      critical: z.boolean(),
    }),
  ),
});

const categoryAndReason = z.strictObject({ category: key, reason: z.string().min(1).max(400) });
const way = z.strictObject({
  id: key,
  name: z.string().min(1).max(60),
  gives: z.string().max(400),
  perBase: z.record(key, z.number().gte(0).max(50)).exactOptional(),
  minutes: z.number().positive().max(100_000).exactOptional(),
  outputFactor: z.number().positive().max(20).exactOptional(),
  balance: key.exactOptional(),
  takes: z.enum(['raw', 'cooked', 'any']).exactOptional(),
  cures: z.literal(true).exactOptional(),
});
const step = z.strictObject({
  kind: z.enum(stepKinds),
  text: z.string().min(1).max(400),
  minutes: minutes.exactOptional(),
  bySize: bySize.exactOptional(),
  tempC: z.strictObject({ low: z.number().min(-100).max(600), high: z.number().min(-100).max(600) }).exactOptional(),
  watch: z.string().min(1).max(200).exactOptional(),
  ways: z.array(key).min(1).exactOptional(),
  kills: z.literal(true).exactOptional(),
  photo: photo.exactOptional(),
});

export const recipeSchema: z.ZodType<Recipe, Recipe> = z.strictObject({
  id: key,
  version: z.int().min(1),
  kind: z.enum(recipeKinds),
  title: z.string().min(1).max(80),
  baseName: z.string().min(1).max(40),
  accepts: z.array(key),
  acceptsUses: z.array(key),
  acceptsGoods: z.array(key).max(60).exactOptional(),
  takes: z.enum(['raw', 'cooked', 'any']),
  trays: z.array(where),
  refuses: z.array(categoryAndReason),
  caps: z.array(
    z.strictObject({ category: key, maxShare: z.number().gt(0).lt(1), reason: z.string().min(1).max(400) }),
  ),
  ingredients: z.array(
    z.strictObject({
      id: key,
      name: z.string().min(1).max(60),
      perBase: z.number().gte(0).max(50),
      low: z.number().gte(0).max(100_000),
      high: z.number().positive().max(100_000),
      allergens: z.array(z.string().max(60)),
      unsaid: z.literal(true).exactOptional(),
      becomes: z.enum(['strained', 'poured']).exactOptional(),
      accepts: z.array(key).exactOptional(),
      acceptsUses: z.array(key).exactOptional(),
      acceptsGoods: z.array(key).max(60).exactOptional(),
    }),
  ),
  questions: z.array(z.strictObject({ id: key, question: z.string().min(1).max(400), ways: z.array(way).min(2) })),
  output: z.strictObject({
    name: z.string().min(1).max(60),
    low: z.number().positive().max(50),
    mean: z.number().positive().max(50),
    high: z.number().positive().max(50),
    measure: z.enum(['litres', 'mass']),
  }),
  ready: z.boolean(),
  keepsPieces: z.strictObject({ word: z.string().min(1).max(40), form: key.exactOptional() }).exactOptional(),
  cooksAs: z.enum(cookedAs).exactOptional(),
  baseStrained: z.literal(true).exactOptional(),
  byProducts: z
    .array(
      z.strictObject({
        id: key,
        name: z.string().min(1).max(60),
        category: key.exactOptional(),
        destination: where,
        keepDays: z.int().min(0).max(60),
        usuallyWaste: z.literal(true).exactOptional(),
      }),
    )
    .max(8)
    .exactOptional(),
  category: key.exactOptional(),
  marks: z.array(
    z.strictObject({
      name: z.string().min(1).max(60),
      factor: z.number().gt(0).lt(1),
      note: z.string().max(400).exactOptional(),
    }),
  ),
  vessel: z.enum(['pot', 'pan', 'oven', 'blender', 'bath', 'fryer', 'bowl', 'none']),
  heatC: z.strictObject({ low: z.number().min(-100).max(600), high: z.number().min(-100).max(600) }).exactOptional(),
  litresPerKg: z.number().positive().max(50).exactOptional(),
  layerKgPerM2: z.number().positive().max(200).exactOptional(),
  photo: photo.exactOptional(),
  gramsPerPlate: z.number().positive().max(100_000).exactOptional(),
  piece: z.strictObject({ name: z.string().min(1).max(60), grams: z.number().positive().max(100_000) }).exactOptional(),
  balance: key.exactOptional(),
  fills: z.boolean().exactOptional(),
  splitsAboveC: z.number().exactOptional(),
  minutes,
  steps: z.array(step).min(1).max(30),
  cautions: z.array(z.string().min(1).max(400)),
  keeps: z.array(
    z.strictObject({
      state: z.string().min(1).max(400),
      as: z.enum(keptAs),
      profiles: z.array(z.string().min(1).max(400)).min(1).exactOptional(),
      days: z.number().positive().max(3_650),
      maxC: z.number().nullable(),
      jurisdiction: z.string().max(400),
      source: z.string().max(400),
      provenance: z.enum(provenances),
    }),
  ),
  shelfLifeDays: z.int().min(0).max(3_650),
  allergens: z.array(z.string().max(60)),
  provenance: z.enum(provenances),
  source: z.string().min(1).max(400),
});

/** The published JSON Schema of a cut plan file, made from the schema itself. */
export const cutPlanJsonSchema = (): unknown => z.toJSONSchema(cutPlanSchema, { target: 'draft-2020-12' });

/** What timed steps took here the last times, the middle of the last eight. */
export const ownTimesSchema = z.array(
  z.strictObject({
    step: z.int(),
    minutes: z.number().positive(),
    batches: z.int().describe('how many times stand behind it'),
  }),
);
