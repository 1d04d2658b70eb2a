import { cuttingKinds } from '@zabrik/core';
import { z } from 'zod';
import { endpoint } from '../endpoint.ts';
import {
  amountMinor,
  confirmed,
  day,
  destination,
  id,
  instant,
  massMg,
  massOrNoneMg,
  note,
  nothing,
  share,
  slug,
} from '../fields.ts';

const mm = z.number().min(0).max(3_000).describe('millimetres');
const ratio = z.number().min(0).max(1);
const places = z.array(z.strictObject({ at: ratio.describe('share of the length from the thick end'), mm })).max(6);
const range = z.strictObject({ min: mm, max: mm });
const name = z.string().trim().min(1).max(60);

export const pieceMeasuresSchema = z.strictObject({
  massMg,
  lengthMm: mm.min(10),
  widths: places.optional(),
  thicknesses: places.optional(),
});

export const portionSizeSchema = z.strictObject({
  id: slug,
  name,
  targetMg: massMg,
  toleranceShare: ratio,
  valueMinor: amountMinor,
  most: z.int().min(0).max(200).nullable().optional(),
  from: z
    .array(z.enum(['head', 'centre', 'tail']))
    .max(3)
    .optional(),
  span: range.nullable().optional(),
  body: range.nullable().optional(),
});

const angleDeg = z.number().min(-75).max(75).describe('of the knife from straight down, degrees');
const density = z.number().min(0.3).max(2).describe('grams a millilitre');
const wrap = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('none') }),
  z.strictObject({ kind: z.literal('flap'), widthMm: mm.min(1), lengthMm: mm.min(1) }),
  z.strictObject({ kind: z.literal('sheet'), widthMm: mm.min(1), lengthMm: mm.min(1), thicknessMm: mm }),
]);
export const mouldSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('terrine'),
    lengthMm: mm.min(1),
    topMm: mm.min(1),
    bottomMm: mm.min(1),
    heightMm: mm.min(1),
  }),
  z.strictObject({ kind: z.literal('ring'), diameterMm: mm.min(1), heightMm: mm.min(1) }),
  z.strictObject({ kind: z.literal('dariole'), topMm: mm.min(1), bottomMm: mm, heightMm: mm.min(1) }),
  z.strictObject({ kind: z.literal('dome'), diameterMm: mm.min(1) }),
  z.strictObject({ kind: z.literal('gutter'), lengthMm: mm.min(1), diameterMm: mm.min(1) }),
]);

export const cuttingSetupSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('portions'),
    templateId: slug,
    sizes: z.array(portionSizeSchema).max(8),
    angleDeg,
    squareMm: z.tuple([mm, mm]),
    kerfMm: mm.max(20),
    clingMg: massOrNoneMg.max(50_000),
    tail: z.enum(['end', 'fold']),
    endMinorPerKg: amountMinor,
    endTo: destination,
  }),
  z.strictObject({
    kind: z.literal('roll'),
    templateId: slug,
    perRoll: z.int().min(1).max(4),
    coreMg: massOrNoneMg,
    wrap,
    overlapShare: ratio,
    tieSpacingMm: mm.min(5),
    rest: z.strictObject({ minHours: z.number().min(0).max(72), maxHours: z.number().min(0).max(168) }),
    dripShare: ratio.max(0.3),
    targetMg: massMg,
    toleranceShare: ratio,
  }),
  z.strictObject({
    kind: z.literal('slices'),
    lengthMm: mm.min(1),
    widthMm: mm.min(1),
    heightMm: mm.min(1),
    sliceMm: mm.min(0.5),
    angleDeg,
    bladeMm: mm.max(20),
    rowMm: mm.nullable().optional(),
    density,
    massMg: massMg.nullable().optional(),
    ways: z
      .array(z.strictObject({ id: slug, name, share: ratio, destination }))
      .min(1)
      .max(5),
    endTo: destination,
  }),
  z.strictObject({
    kind: z.literal('mould'),
    mould: mouldSchema,
    moulds: z.int().min(1).max(200),
    density,
    fillShare: ratio.min(0.05),
    liningMm: mm.max(100),
    liningDensity: density,
    cookLossShare: ratio.max(0.6),
    courses: z
      .array(z.strictObject({ id: slug, name, grams: z.number().min(1).max(5_000) }))
      .min(1)
      .max(6),
    courseId: slug,
  }),
]);

const weighed = z.strictObject({
  kind: z.literal('weigh'),
  piece: z.int().min(1).max(500),
  line: slug.describe('a size, "end", or what the kind makes'),
  name,
  destination,
  massMg,
  count: z.int().min(1).max(2_000),
  predictedMg: massOrNoneMg.nullable(),
  fromMm: mm.nullable(),
  toMm: mm.nullable(),
  replaces: id.nullable().describe('the weight this one stands for from now on'),
});
export const cuttingEventBody = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('piece'), no: z.int().min(1).max(500), measures: pieceMeasuresSchema }),
  z.strictObject({ kind: z.literal('setup'), setup: cuttingSetupSchema }),
  weighed,
  z.strictObject({ kind: z.literal('back'), eventId: id.describe('the weight that does not count any more') }),
]);

export const cuttingEventSchema = z.strictObject({ id, at: instant, by: z.string(), body: cuttingEventBody });

export const cuttingHeadSchema = z.strictObject({
  id,
  kind: z.enum(cuttingKinds),
  state: z.enum(['open', 'closed', 'cancelled']),
  name: z.string().describe('what is cut'),
  species: slug.nullable().describe('null: of several'),
  category: z.string().nullable(),
  pieceId: z
    .string()
    .nullable()
    .describe('what the pieces are in the plan that made them; null: of several, or bought so'),
  pieces: z.int().describe('how many pieces lie there'),
  startMg: massMg,
  weighedMg: z.int(),
  by: z.string(),
  startedAt: instant,
  closedAt: instant.nullable(),
  inputs: z.array(
    z.strictObject({
      lotId: id,
      code: z.string(),
      name: z.string(),
      massMg,
      allergens: z.array(z.string()),
      pieceMg: z
        .array(massMg)
        .describe('what each piece weighed when it came off; empty where nobody weighed them apart'),
    }),
  ),
});
export type CuttingHead = z.output<typeof cuttingHeadSchema>;

export const cuttingSchema = cuttingHeadSchema.extend({
  startMinor: amountMinor,
  movementId: id.nullable(),
  events: z.array(cuttingEventSchema),
  lots: z
    .array(
      z.strictObject({
        lotId: id,
        code: z.string(),
        name: z.string(),
        pieces: z.int(),
        massMg: z.int(),
        destination: destination.nullable(),
      }),
    )
    .describe('what came of it, once closed'),
});
export type Cutting = z.output<typeof cuttingSchema>;

/** A roll that was made and is still there. */
export const restingSchema = z.strictObject({
  cuttingId: id,
  lotId: id,
  code: z.string(),
  name: z.string(),
  species: slug.nullable(),
  category: z.string().nullable(),
  allergens: z.array(z.string()),
  pieceId: z.string().nullable(),
  freeMg: massMg,
  freePieces: z.int(),
  useBy: day.nullable(),
  madeAt: instant,
  readyAt: instant.describe('firm enough to cut'),
  lateAt: instant.describe('meant to be cut by then'),
});

export const cutting = {
  list: endpoint({
    id: 'cutting.list',
    method: 'get',
    path: '/cuttings',
    command: false,
    may: 'everyone',
    summary: 'What is being cut to weight now, and rolls that rest',
    answer: z.strictObject({ open: z.array(cuttingHeadSchema), resting: z.array(restingSchema) }),
  }),
  read: endpoint({
    id: 'cutting.read',
    method: 'get',
    path: '/cuttings/:cuttingId',
    command: false,
    may: 'everyone',
    summary: 'A cutting with everything weighed so far',
    params: z.strictObject({ cuttingId: id }),
    answer: cuttingSchema,
  }),
  start: endpoint({
    id: 'cutting.start',
    method: 'post',
    path: '/cuttings',
    command: 'may-wait',
    may: 'bench',
    summary: 'Put lots on the board to be cut to weight, rolled, sliced or filled into moulds',
    body: z.strictObject({
      id: id.describe('made by the client, so that weights can follow before the answer is here'),
      kind: z.enum(cuttingKinds),
      from: z
        .array(z.strictObject({ lotId: id, massMg: massMg.nullable().describe('null: all that is free') }))
        .min(1)
        .max(20),
      at: instant,
      confirmed,
    }),
    answer: cuttingHeadSchema,
  }),
  event: endpoint({
    id: 'cutting.event',
    method: 'post',
    path: '/cuttings/:cuttingId/events',
    command: 'may-wait',
    may: 'bench',
    summary: 'Write down measures, a wish, a weight, or that a weight does not count',
    params: z.strictObject({ cuttingId: id }),
    body: z.strictObject({ at: instant, body: cuttingEventBody }),
    answer: cuttingEventSchema,
  }),
  close: endpoint({
    id: 'cutting.close',
    method: 'post',
    path: '/cuttings/:cuttingId/close',
    command: 'may-wait',
    may: 'bench',
    summary: 'Make lots of what was weighed; what was not cut goes back',
    params: z.strictObject({ cuttingId: id }),
    body: z.strictObject({
      leftMg: massOrNoneMg,
      left: z
        .array(z.strictObject({ lotId: id, massMg: massOrNoneMg }))
        .max(20)
        .nullable()
        .default(null)
        .describe(
          'what is left of each lot, where unlike lots lay there: what was lined with is not what it was filled with',
        ),
      unbalancedReason: note.nullable(),
    }),
    answer: z.strictObject({
      movementId: id,
      unaccountedMg: z.int(),
      lots: z.array(
        z.strictObject({ lotId: id, code: z.string(), name: z.string(), pieces: z.int(), massMg, destination }),
      ),
    }),
  }),
  cancel: endpoint({
    id: 'cutting.cancel',
    method: 'post',
    path: '/cuttings/:cuttingId/cancel',
    command: true,
    may: 'bench',
    summary: 'Put it back uncut: only while nothing counts as weighed',
    params: z.strictObject({ cuttingId: id }),
    body: z.strictObject({}),
    answer: nothing,
  }),
  learnt: endpoint({
    id: 'cutting.learnt',
    method: 'get',
    path: '/cutting-forms',
    command: false,
    may: 'everyone',
    summary: 'The house’s own form of a species’ pieces, how well it foretells, and the sizes wanted last',
    query: z.strictObject({ templateId: slug, category: slug.optional(), species: slug.optional() }),
    answer: z.strictObject({
      shape: z.strictObject({ nodes: z.array(share), records: z.int(), shapeSd: ratio }).nullable(),
      error: z.strictObject({ handbook: z.number(), house: z.number(), portions: z.int() }),
      last: cuttingSetupSchema.nullable(),
    }),
  }),
} as const;
