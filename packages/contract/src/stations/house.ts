import { costingSchools } from '@zabrik/core';
import { z } from 'zod';
import { endpoint } from '../endpoint.ts';
import { amountMinor, id, instant, massMg, shortText, slug } from '../fields.ts';
import { planHeadSchema, speciesSchema, useSchema } from '../plan.ts';
import { routes } from '../routes.ts';

export const scaleSchema = z.strictObject({
  id: slug,
  name: shortText,
  accuracyClass: z.enum(['II', 'III', 'IIII']),
  intervalMg: massMg,
  maxMg: massMg,
});

export const houseSchema = z.strictObject({
  id,
  slug,
  name: shortText,
  currency: z.string().length(3),
  timezone: z.string(),
  school: z.enum(costingSchools),
  scales: z.tuple([scaleSchema], scaleSchema).readonly(),
  /** Market value of by-products by category, minor units per kilogram. */
  creditMinorPerKg: z.record(z.string(), amountMinor),
  /** Price of bought-in ingredients, minor units per kilogram. */
  pantryMinorPerKg: z.record(z.string(), amountMinor),
  labourMinorPerHour: amountMinor.nullable().describe('what an hour at the bench costs'),
  vessels: z.array(z.strictObject({ id: z.string(), name: shortText, litres: z.number().positive() })),
  simulated: z.boolean().describe('the simulated bench may be used'),
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

export const house = {
  read: endpoint({
    ...routes.house.read,
    summary: 'The house’s own settings',
    answer: houseSchema,
  }),
  flow: endpoint({
    ...routes.house.flow,
    summary: 'The one figure that matters now at each station',
    answer: z.strictObject({
      receivedToday: z.int(),
      openBreakdowns: z.int(),
      lotsOnHand: z.int(),
      lotsDueToday: z.int(),
      runsPlanned: z.int(),
      lastMainShare: z.number().nullable(),
      at: instant,
    }),
  }),
  catalogue: endpoint({
    ...routes.house.catalogue,
    summary: 'Species, cut plans, uses and piece categories',
    answer: z.strictObject({
      species: z.array(speciesSchema),
      plans: z.array(planListSchema),
      uses: z.array(useSchema).readonly(),
      categories: z
        .array(
          z.strictObject({
            id: z.string(),
            label: z.string(),
            group: z.string(),
            edible: z.boolean(),
            useWithinHours: z.number(),
          }),
        )
        .readonly(),
    }),
  }),
} as const;
