/** The published shape of limit profiles. */
import { cookedAs, foods, type Limit, type LimitProfile, limitTasks, provenances } from '@zabrik/core';
import { z } from 'zod';

const celsius = z.number().min(-60).max(200);
const fahrenheit = z.number().min(-76).max(400);
const hours = z.number().positive();
const dayOne = z.union([z.literal(0), z.literal(1)]);

const common = {
  id: z.string().min(1),
  topic: z.string().min(1),
  product: z.string().min(1),
  unit: z.string().nullable(),
  citation: z.strictObject({ document: z.string().min(1), section: z.string().min(1) }),
  force: z.enum(['law', 'code', 'law-upstream', 'national', 'guidance']),
  provenance: z.enum(provenances),
  certainty: z.enum(['high', 'medium', 'low']),
  caution: z.string().min(1),
  note: z.string().exactOptional(),
  covers: z
    .array(
      z.strictObject({
        task: z.enum(limitTasks),
        foods: z.array(z.enum(foods)).min(1),
        as: z
          .array(z.enum([...cookedAs, 'fresh', 'frozen']))
          .min(1)
          .exactOptional(),
      }),
    )
    .min(1)
    .exactOptional(),
};

const limit = z.discriminatedUnion('kind', [
  z.strictObject({
    ...common,
    kind: z.literal('max_temp'),
    value: z.looseObject({ max_C: celsius, max_F: fahrenheit.exactOptional() }),
  }),
  z.strictObject({
    ...common,
    kind: z.literal('min_temp'),
    value: z.looseObject({ min_C: celsius, min_F: fahrenheit.exactOptional() }),
  }),
  z.strictObject({
    ...common,
    kind: z.literal('cook_time_temp'),
    value: z.looseObject({
      points: z.array(z.looseObject({ T_C: celsius, T_F: fahrenheit.exactOptional(), t_s: z.number().min(0) })).min(1),
    }),
  }),
  z.strictObject({
    ...common,
    kind: z.literal('freeze_treatment'),
    value: z.looseObject({
      options: z
        .array(
          z.looseObject({
            freeze_C: celsius,
            until_solid: z.boolean().exactOptional(),
            hold_C: celsius,
            hold_h: hours,
          }),
        )
        .min(1),
      thickness_max_cm: z.number().positive().exactOptional(),
    }),
  }),
  z.strictObject({
    ...common,
    kind: z.literal('cooling'),
    value: z.looseObject({
      start_C: celsius.nullable(),
      steps: z.array(z.looseObject({ to_C: celsius, within_min: z.number().positive() })).min(1),
    }),
  }),
  z.strictObject({
    ...common,
    kind: z.literal('shelf_life'),
    value: z.looseObject({
      max_days: z.int().positive(),
      at_max_C: celsius.exactOptional(),
      day_of_preparation_is: dayOne.exactOptional(),
      day_of_opening_is: dayOne.exactOptional(),
    }),
  }),
  z.strictObject({
    ...common,
    kind: z.literal('exposure'),
    value: z.looseObject({
      above_C: celsius,
      max_h: hours,
      if_any_above_C: celsius.exactOptional(),
      then_max_h: hours.exactOptional(),
    }),
  }),
  z.strictObject({
    ...common,
    kind: z.literal('time_limit'),
    value: z.looseObject({
      max_h: hours,
      start_max_C: celsius.exactOptional(),
      never_above_C: celsius.exactOptional(),
    }),
  }),
  z.strictObject({
    ...common,
    kind: z.literal('sampling_plan'),
    value: z.looseObject({
      n: z.int().positive(),
      c: z.int().min(0),
      m: z.number().min(0),
      M: z.number().min(0),
      rule: z.string().exactOptional(),
    }),
  }),
  z.strictObject({
    ...common,
    kind: z.enum(['procedure', 'list', 'table', 'state', 'threshold', 'retention', 'accuracy']),
    value: z.record(z.string(), z.unknown()),
  }),
]);

export const limitSchema: z.ZodType<Limit, Limit> = limit;

export const limitProfileSchema: z.ZodType<LimitProfile, LimitProfile> = z.strictObject({
  id: z.string().min(1),
  title: z.string().min(1),
  scope: z.string().min(1),
  deferral: z.string().min(1),
  limits: z.array(limit).min(1),
});
