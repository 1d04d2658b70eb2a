import { z } from 'zod';
import { endpoint } from '../endpoint.ts';
import {
  amountMinor,
  cursor,
  destination,
  id,
  instant,
  limit,
  massMg,
  note,
  nothing,
  share,
  signedMassMg,
  slug,
} from '../fields.ts';
import { cutPlanSchema } from '../plan.ts';
import { routes } from '../routes.ts';

export const weighingSchema = z.strictObject({
  id,
  pieceId: z.string().nullable(),
  destination: destination.nullable(),
  massMg: massMg.nullable().describe('null: takes back the weighing it replaces'),
  source: z.enum(['scale', 'typed']).nullable(),
  replaces: id.nullable(),
  by: z.string(),
  at: instant,
});
export type Weighing = z.output<typeof weighingSchema>;

export const breakdownStates = ['open', 'closed', 'cancelled'] as const;

export const breakdownHeadSchema = z.strictObject({
  id,
  state: z.enum(breakdownStates),
  lotId: id,
  lotCode: z.string(),
  species: slug,
  speciesName: z.string(),
  form: slug,
  formName: z.string(),
  supplierName: z.string().nullable(),
  planId: z.string(),
  planTitle: z.string(),
  stageName: z.string(),
  animals: z.int(),
  startMg: massMg,
  startMinor: amountMinor,
  weighedMg: z.int(),
  by: z.string(),
  startedAt: instant,
  closedAt: instant.nullable(),
});
export type BreakdownHead = z.output<typeof breakdownHeadSchema>;

export const breakdownSchema = breakdownHeadSchema.extend({
  plan: cutPlanSchema,
  stageId: z.string(),
  movementId: id.nullable(),
  weighings: z.array(weighingSchema),
  /** What this house believes of each piece's share before this animal, handbook and own records joined. */
  beliefs: z.array(z.strictObject({ pieceId: z.string(), mean: share, sd: share, records: z.int() })),
  drip: z.strictObject({ mean: share, sd: share }),
});
export type Breakdown = z.output<typeof breakdownSchema>;

export const takeBody = z.strictObject({
  kind: z.literal('take'),
  pieceId: slug,
  destination,
  massMg,
  source: z.enum(['scale', 'typed']),
  replaces: id.nullable().describe('the weighing this one puts right'),
  at: instant,
});
export const undoBody = z.strictObject({ kind: z.literal('undo'), replaces: id, at: instant });
export const weighBody = z.discriminatedUnion('kind', [takeBody, undoBody]);
export type WeighBody = z.output<typeof weighBody>;

export const bench = {
  list: endpoint({
    ...routes.bench.list,
    summary: 'Breakdowns on the bench now, oldest first',
    query: z.strictObject({ cursor, limit }),
    answer: z.strictObject({ breakdowns: z.array(breakdownHeadSchema), next: z.string().nullable() }),
  }),
  start: endpoint({
    ...routes.bench.start,
    summary: 'Put a lot, or part of one, on the bench with a cut plan',
    body: z.strictObject({
      lotId: id,
      planId: slug,
      animals: z.int().min(1).max(500),
      massMg: massMg.nullable().describe('null: all of the lot'),
    }),
    answer: breakdownSchema,
  }),
  read: endpoint({
    ...routes.bench.read,
    summary: 'One breakdown with its plan, weighings and expectations',
    params: z.strictObject({ breakdownId: id }),
    answer: breakdownSchema,
  }),
  weigh: endpoint({
    ...routes.bench.weigh,
    summary: 'Take a weight, put one right, or take one back. The Idempotency-Key becomes the weighing’s id.',
    params: z.strictObject({ breakdownId: id }),
    body: weighBody,
    answer: weighingSchema,
  }),
  close: endpoint({
    ...routes.bench.close,
    summary: 'Close the stage: judge the balance and write the movement',
    params: z.strictObject({ breakdownId: id }),
    body: z.strictObject({
      unbalancedReason: note
        .nullable()
        .describe('why it is closed although the balance does not hold; null when it does'),
    }),
    answer: z.strictObject({
      movementId: id,
      unaccountedMg: signedMassMg,
      lots: z.array(z.strictObject({ lotId: id, code: z.string(), name: z.string(), massMg, destination })),
    }),
  }),
  cancel: endpoint({
    ...routes.bench.cancel,
    summary: 'Put the animal back: only while nothing is weighed',
    params: z.strictObject({ breakdownId: id }),
    body: z.strictObject({}),
    answer: nothing,
  }),
  scaleCommand: endpoint({
    ...routes.bench.scaleCommand,
    summary: 'Tare or zero the bench scale',
    body: z.strictObject({ command: z.enum(['tare', 'untare', 'zero']) }),
    answer: nothing,
  }),
} as const;
