import { z } from 'zod';
import { endpoint } from '../endpoint.ts';
import { amountMinor, cursor, id, instant, limit, massMg, massOrNoneMg, note, nothing, slug } from '../fields.ts';
import { routes } from '../routes.ts';

export const runStates = ['planned', 'done', 'called-off'] as const;

export const runSchema = z.strictObject({
  id,
  state: z.enum(runStates),
  useId: slug,
  title: z.string(),
  kind: z.enum(['stock', 'filling', 'staff-dish']),
  inputs: z.array(z.strictObject({ lotId: id, code: z.string(), name: z.string(), massMg })),
  ingredients: z.array(z.strictObject({ id: z.string(), name: z.string(), massMg: massOrNoneMg })),
  baseMg: massMg,
  expectedMg: z.strictObject({ low: z.int(), mean: z.int(), high: z.int() }),
  plates: z.int().nullable(),
  limiting: z.string(),
  outputMg: massMg.nullable(),
  outputLot: z.strictObject({ id, code: z.string(), name: z.string(), costMinor: amountMinor }).nullable(),
  movementId: id.nullable(),
  by: z.string(),
  plannedAt: instant,
  doneAt: instant.nullable(),
});
export type Run = z.output<typeof runSchema>;

export const pots = {
  list: endpoint({
    ...routes.pots.list,
    summary: 'Batches, planned first, then the latest done',
    query: z.strictObject({ cursor, limit }),
    answer: z.strictObject({ runs: z.array(runSchema), next: z.string().nullable() }),
  }),
  plan: endpoint({
    ...routes.pots.plan,
    summary: 'Plan a batch from the lots chosen, scaled to what there is',
    body: z.strictObject({
      useId: slug,
      lotIds: z.array(id).min(1).max(60),
      vesselId: z.string().max(40).nullable(),
      onHandMg: z.record(z.string().max(40), massOrNoneMg),
    }),
    answer: runSchema.extend({
      refused: z.array(z.strictObject({ lotId: id, reason: z.string() })),
    }),
  }),
  finish: endpoint({
    ...routes.pots.finish,
    summary: 'The batch is done: weighed output, spent solids, and one balanced movement',
    params: z.strictObject({ runId: id }),
    body: z.strictObject({
      outputMg: massMg,
      spentMg: massOrNoneMg.describe('bones and solids thrown away after straining'),
      note: note.nullable(),
    }),
    answer: runSchema,
  }),
  cancel: endpoint({
    ...routes.pots.cancel,
    summary: 'Call off a planned batch',
    params: z.strictObject({ runId: id }),
    body: z.strictObject({}),
    answer: nothing,
  }),
} as const;
