import { costingSchools } from '@zabrik/core';
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
  share,
  signedMassMg,
  slug,
} from '../fields.ts';
import { routes } from '../routes.ts';
import { breakdownHeadSchema, weighingSchema } from './bench.ts';

const shares = z.strictObject({
  mainShare: share,
  edibleShare: share,
  recoveredShare: share,
  wasteShare: share,
  unaccountedShare: share,
});

const ribbonPart = z.strictObject({ pieceId: z.string(), destination, massMg });

export const closedBreakdownSchema = breakdownHeadSchema.extend({ ...shares.shape, ribbon: z.array(ribbonPart) });
export type ClosedBreakdown = z.output<typeof closedBreakdownSchema>;

export const yieldRowSchema = z.strictObject({
  pieceId: z.string(),
  name: z.string(),
  destination,
  massMg,
  count: z.int(),
  lotCode: z.string().nullable(),
  main: z.boolean(),
  edible: z.boolean(),
  shareOfStage: share,
  shareOfPurchase: share,
  handbook: z
    .strictObject({ mean: share, low: share, high: share })
    .describe('the plan’s share for this species and form; about 95 %'),
  house: z
    .strictObject({ mean: share, low: share, high: share, records: z.int() })
    .nullable()
    .describe('the house’s earlier breakdowns of the same kind: mean and 80 % interval'),
  costMinor: z.record(z.enum(costingSchools), amountMinor.nullable()),
  creditMinorPerKg: amountMinor,
});

export const yieldSheetSchema = z.strictObject({
  breakdown: breakdownHeadSchema,
  movementId: id.nullable(),
  reopenedFrom: z.int().describe('how often it was closed before and taken back'),
  rows: z.array(yieldRowSchema),
  ...shares.shape,
  unaccountedMg: signedMassMg,
  purchase: z.strictObject({ massMg, paidMinor: amountMinor, minorPerKg: z.number() }),
  costFactor: z.record(z.enum(costingSchools), z.number().nullable()),
  bookedSchool: z.enum(costingSchools).nullable(),
  weighings: z.array(weighingSchema),
  history: z.array(
    z.strictObject({ id, at: instant, mainShare: share, supplierName: z.string().nullable(), by: z.string() }),
  ),
  note: z.string().nullable(),
});
export type YieldSheet = z.output<typeof yieldSheetSchema>;

export const ledger = {
  list: endpoint({
    ...routes.ledger.list,
    summary: 'Closed breakdowns, newest first',
    query: z.strictObject({ cursor, limit, species: slug.optional() }),
    answer: z.strictObject({ breakdowns: z.array(closedBreakdownSchema), next: z.string().nullable() }),
  }),
  sheet: endpoint({
    ...routes.ledger.sheet,
    summary: 'The yield sheet of one breakdown, costed under each school',
    params: z.strictObject({ breakdownId: id }),
    answer: yieldSheetSchema,
  }),
  reverse: endpoint({
    ...routes.ledger.reverse,
    summary: 'Take an entry back by its counter-entry',
    params: z.strictObject({ movementId: id }),
    body: z.strictObject({ reason: note }),
    answer: z.strictObject({ movementId: id, kind: z.string() }),
  }),
} as const;
