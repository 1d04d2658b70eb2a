import { z } from 'zod';
import { endpoint } from '../endpoint.ts';
import {
  amountMinor,
  cursor,
  day,
  id,
  instant,
  limit,
  massMg,
  massOrNoneMg,
  note,
  shortText,
  signedMassMg,
  signedMinor,
  slug,
  temperatureCentiC,
} from '../fields.ts';
import { routes } from '../routes.ts';

export const deliverySchema = z.strictObject({
  lotId: id,
  code: z.string(),
  species: slug,
  speciesName: z.string(),
  form: slug,
  formName: z.string(),
  animals: z.int().min(1),
  supplierName: z.string(),
  origin: z.string().nullable(),
  grossMg: massMg,
  tareMg: massOrNoneMg,
  netMg: massMg,
  invoiceMg: massMg,
  paidMinor: amountMinor,
  /** Net minus invoice: below zero is short weight. And what that is worth at the invoice's price. */
  differenceMg: signedMassMg,
  differenceMinor: signedMinor,
  temperatureCentiC: temperatureCentiC.nullable(),
  landedOn: day.nullable(),
  useBy: day,
  note: z.string().nullable(),
  by: z.string(),
  at: instant,
  movementId: id,
  reversed: z.boolean(),
});
export type Delivery = z.output<typeof deliverySchema>;

export const acceptBody = z
  .strictObject({
    species: slug,
    form: slug,
    animals: z.int().min(1).max(5_000),
    supplierId: id,
    origin: shortText.nullable(),
    grossMg: massMg,
    tareMg: massOrNoneMg,
    invoiceMg: massMg,
    paidMinor: amountMinor,
    temperatureCentiC: temperatureCentiC.nullable(),
    landedOn: day.nullable(),
    useBy: day.nullable().describe('null: the house’s usual life for this animal'),
    note: note.nullable(),
  })
  .refine((b) => b.tareMg < b.grossMg, { path: ['tareMg'], error: 'the box cannot weigh more than box and goods' });

export const receive = {
  suppliers: endpoint({
    ...routes.receive.suppliers,
    summary: 'Who delivers to this house',
    answer: z.strictObject({ suppliers: z.array(z.strictObject({ id, name: shortText })) }),
  }),
  list: endpoint({
    ...routes.receive.list,
    summary: 'Deliveries, newest first',
    query: z.strictObject({ cursor, limit }),
    answer: z.strictObject({ deliveries: z.array(deliverySchema), next: z.string().nullable() }),
  }),
  accept: endpoint({
    ...routes.receive.accept,
    summary: 'Accept a delivery: it becomes a lot',
    body: acceptBody,
    answer: deliverySchema,
  }),
} as const;
