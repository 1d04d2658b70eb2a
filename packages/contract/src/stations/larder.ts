import { z } from 'zod';
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
  shortText,
  signedMassMg,
  signedMinor,
  slug,
} from '../fields.ts';
import { routes } from '../routes.ts';
import { takeOutSinks, wasteReasons } from '../waysOut.ts';

export const lotKinds = ['delivery', 'piece', 'batch'] as const;

export const lotSchema = z.strictObject({
  id,
  code: z.string(),
  kind: z.enum(lotKinds),
  name: z.string(),
  species: slug.nullable(),
  form: slug.nullable(),
  category: slug.nullable(),
  destination: destination.nullable().describe('null: a delivery nobody has cut yet'),
  pieces: z.int().describe('how many pieces or animals it was made of'),
  massMg: z.int().min(0),
  madeMg: massMg,
  costMinor: amountMinor,
  useBy: day.nullable(),
  madeAt: instant,
  supplierName: z.string().nullable(),
  parentCodes: z.array(z.string()),
  allergens: z.array(z.string()),
  note: z.string().nullable(),
  nextStage: z.string().nullable().describe('the later stage of its cut plan it waits for'),
  breakdownId: id.nullable(),
});
export type Lot = z.output<typeof lotSchema>;

const link = z.strictObject({ id, code: z.string(), name: z.string(), massMg: signedMassMg });

export const tracedLotSchema = z.strictObject({
  id,
  code: z.string(),
  kind: z.enum(lotKinds),
  name: z.string(),
  destination: destination.nullable(),
  madeMg: massMg,
  massMg: z.int().min(0).describe('on hand now'),
  useBy: day.nullable(),
  madeAt: instant,
  by: z.string().nullable().describe('who received, cut or cooked it'),
  supplierName: z.string().nullable(),
  origin: z.string().nullable(),
  landedOn: day.nullable(),
  allergens: z.array(z.string()),
});
export type TracedLotHead = z.output<typeof tracedLotSchema>;

export const tracedMovementSchema = z.strictObject({
  id,
  kind: z.string(),
  at: instant,
  by: z.string(),
  postings: z.array(
    z.strictObject({
      lotId: id.nullable(),
      sink: z.string().nullable(),
      reason: z.string().nullable(),
      massMg: signedMassMg,
    }),
  ),
});

export const larder = {
  list: endpoint({
    ...routes.larder.list,
    summary: 'What is on hand, earliest date first',
    query: z.strictObject({
      cursor,
      limit,
      search: z.string().max(80).optional(),
      destination: destination.optional(),
      kind: z.enum(lotKinds).optional(),
      cuttable: z
        .literal('yes')
        .optional()
        .describe('only what a cut plan can start from: deliveries, and pieces that stand for a form'),
    }),
    answer: z.strictObject({ lots: z.array(lotSchema), next: z.string().nullable(), total: z.int() }),
  }),
  read: endpoint({
    ...routes.larder.read,
    summary: 'One lot with its parents, what it became, and every entry on it',
    params: z.strictObject({ lotId: id }),
    answer: lotSchema.extend({
      parents: z.array(link),
      children: z.array(link),
      entries: z.array(
        z.strictObject({
          movementId: id,
          kind: z.string(),
          at: instant,
          by: z.string(),
          note: z.string().nullable(),
          massMg: signedMassMg,
          costMinor: signedMinor,
          reverses: id.nullable(),
          reversed: z.boolean(),
        }),
      ),
    }),
  }),
  trace: endpoint({
    ...routes.larder.trace,
    summary: 'Everything a lot was made from and everything it went into, with the movements that stand between them',
    params: z.strictObject({ lotId: id }),
    answer: z.strictObject({
      lotId: id,
      lots: z.array(tracedLotSchema),
      movements: z.array(tracedMovementSchema),
      at: instant,
    }),
  }),
  takeOut: endpoint({
    ...routes.larder.takeOut,
    summary: 'Take mass out of a lot: served, to the staff, or thrown away with a reason',
    params: z.strictObject({ lotId: id }),
    body: z
      .strictObject({
        massMg,
        to: z.enum(takeOutSinks),
        reason: z.enum(wasteReasons).nullable(),
        note: shortText.nullable(),
      })
      .refine((b) => (b.to === 'waste') === (b.reason !== null), {
        path: ['reason'],
        error: 'a reason when it is thrown away, and only then',
      }),
    answer: z.strictObject({ movementId: id, leftMg: z.int().min(0) }),
  }),
} as const;
