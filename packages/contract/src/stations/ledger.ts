import { costingSchools, cuttingKinds } from '@zabrik/core';
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
  massOrNoneMg,
  note,
  nothing,
  share,
  signedMassMg,
  slug,
} from '../fields.ts';
import { benchEventSchema, breakdownHeadSchema, breakdownStates, weighingSchema } from './bench.ts';

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
  massMg: massMg.describe('the animal’s own'),
  broughtMg: z.int().describe('what was joined to it on the bench, beside its own mass'),
  count: z.int(),
  lotCode: z.string().nullable(),
  main: z.boolean(),
  edible: z.boolean(),
  shareOfStage: share,
  shareOfPiece: share.describe(
    'of the whole piece, all its trays together: what is held against the handbook and the house',
  ),
  trays: z.int().describe('on how many trays the piece lies'),
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
  worthSaid: z.boolean().describe('the house has said what such a by-product is worth; false too for what is none'),
});

/** A cutting to weight that is done: what it came to. */
export const closedCuttingSchema = z.strictObject({
  id,
  kind: z.enum(cuttingKinds),
  name: z.string(),
  lotCodes: z.array(z.string()),
  by: z.string(),
  closedAt: instant,
  usedMg: massMg.describe('what was cut; what went back uncut is not in it'),
  madeMg: massOrNoneMg.describe('portions, rolls, slices, moulds'),
  endMg: massOrNoneMg,
  wasteMg: massOrNoneMg,
  portions: z.int(),
  giveAwayMg: massOrNoneMg.describe('over the target of their size, all portions together'),
  costMinor: amountMinor,
});
export type ClosedCutting = z.output<typeof closedCuttingSchema>;

/** A batch that is done: what went in, what came out. */
export const closedBatchSchema = z.strictObject({
  batchId: id,
  title: z.string(),
  measure: z.enum(['litres', 'mass']),
  by: z.string(),
  doneAt: instant,
  baseMg: massMg,
  outputMg: massMg,
  expectedMg: z.strictObject({ low: z.number(), mean: z.number(), high: z.number() }),
  costMinor: amountMinor.nullable(),
  lotId: id.nullable(),
  lotCode: z.string().nullable(),
});
export type ClosedBatch = z.output<typeof closedBatchSchema>;

export const yieldSheetSchema = z.strictObject({
  breakdown: breakdownHeadSchema,
  movementId: id.nullable(),
  cameWithout: z
    .array(z.strictObject({ pieceId: slug, name: z.string(), units: z.int(), of: z.int() }))
    .describe('what was not there: it is measured against others that lacked the same'),
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
  /** The stages of this purchase, in the order they were worked, and what it came to through all of them. */
  chain: z.array(
    z.strictObject({
      breakdownId: id,
      stageName: z.string(),
      state: z.enum(breakdownStates),
      startMg: massMg,
      startShare: share,
      keptShare: share.describe('what became portions or went on, of this stage'),
      closedAt: instant.nullable(),
    }),
  ),
  /** What of this purchase was cut to weight: the ruler is a stage like the others. */
  cuttings: z.array(closedCuttingSchema.extend({ startShare: share })),
  through: z.strictObject({
    portionShare: share,
    edibleShare: share,
    recoveredShare: share,
    wasteShare: share,
    lossShare: share,
    open: z.boolean().describe('pieces still wait to go on'),
  }),
  time: z.strictObject({
    minutes: z.number(),
    perAnimal: z.number(),
    handbook: z.strictObject({ low: z.number(), typical: z.number(), high: z.number() }),
    labourMinor: amountMinor.nullable().describe('null: the house has set no rate'),
  }),
  perAnimal: z.array(
    z.strictObject({
      pieceId: z.string(),
      animals: z.int(),
      meanMg: z.number(),
      sdMg: z.number().nullable(),
      lowMg: z.number(),
      highMg: z.number(),
    }),
  ),
  events: z.array(benchEventSchema),
});
export type YieldSheet = z.output<typeof yieldSheetSchema>;

export const ledger = {
  list: endpoint({
    id: 'ledger.list',
    method: 'get',
    path: '/ledger/breakdowns',
    command: false,
    may: 'everyone',
    summary: 'Closed breakdowns, newest first',
    query: z.strictObject({ cursor, limit, species: slug.optional() }),
    answer: z.strictObject({ breakdowns: z.array(closedBreakdownSchema), next: z.string().nullable() }),
  }),
  sheet: endpoint({
    id: 'ledger.sheet',
    method: 'get',
    path: '/ledger/breakdowns/:breakdownId',
    command: false,
    may: 'everyone',
    summary: 'The yield sheet of one breakdown, costed under each school',
    params: z.strictObject({ breakdownId: id }),
    answer: yieldSheetSchema,
  }),
  cuttings: endpoint({
    id: 'ledger.cuttings',
    method: 'get',
    path: '/ledger/cuttings',
    command: false,
    may: 'everyone',
    summary: 'Cuttings to weight that are done, newest first',
    query: z.strictObject({ cursor, limit }),
    answer: z.strictObject({ cuttings: z.array(closedCuttingSchema), next: z.string().nullable() }),
  }),
  batches: endpoint({
    id: 'ledger.batches',
    method: 'get',
    path: '/ledger/batches',
    command: false,
    may: 'everyone',
    summary: 'Batches that are done, newest first',
    query: z.strictObject({ cursor, limit }),
    answer: z.strictObject({ batches: z.array(closedBatchSchema), next: z.string().nullable() }),
  }),
  exportCsv: endpoint({
    id: 'ledger.exportCsv',
    method: 'get',
    path: '/ledger/movements.csv',
    command: false,
    may: 'chefs',
    summary: 'Every posting of a time as CSV (RFC 4180)',
    file: 'text/csv',
    query: z.strictObject({
      from: day.optional(),
      until: day.optional(),
      cells: z
        .enum(['spreadsheet', 'raw'])
        .default('spreadsheet')
        .describe('raw: text that a spreadsheet would run is left as it is'),
    }),
    answer: nothing,
  }),
  exportEpcis: endpoint({
    id: 'ledger.exportEpcis',
    method: 'get',
    path: '/ledger/movements.jsonld',
    command: false,
    may: 'chefs',
    summary: 'The movements that stand as EPCIS 2.0 events in JSON-LD; of one lot’s family or of a time',
    file: 'application/ld+json',
    query: z.strictObject({ from: day.optional(), until: day.optional(), lot: id.optional() }),
    answer: nothing,
  }),
  reverse: endpoint({
    id: 'ledger.reverse',
    method: 'post',
    path: '/movements/:movementId/reverse',
    command: true,
    may: 'chefs',
    summary: 'Take an entry back by its counter-entry',
    params: z.strictObject({ movementId: id }),
    body: z.strictObject({ reason: note }),
    answer: z.strictObject({ movementId: id, kind: z.string() }),
  }),
} as const;
