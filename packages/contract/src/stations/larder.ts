import { limitVerdicts } from '@zabrik/core';
import { z } from 'zod';
import { endpoint } from '../endpoint.ts';
import {
  amountMinor,
  confirmed,
  cursor,
  day,
  destination,
  id,
  instant,
  limit,
  massMg,
  newName,
  note,
  nothing,
  share,
  shortText,
  signedMassMg,
  signedMinor,
  slug,
  temperatureCentiC,
} from '../fields.ts';
import { takeOutSinks, wasteReasons } from '../waysOut.ts';

export const lotKinds = ['delivery', 'piece', 'batch', 'tub', 'goods'] as const;
export const lotStates = ['fresh', 'frozen', 'thawed'] as const;

export const lotSchema = z.strictObject({
  id,
  code: z.string(),
  kind: z.enum(lotKinds),
  name: z.string(),
  species: slug.nullable(),
  form: slug.nullable(),
  category: slug.nullable(),
  destination: destination.nullable().describe('null: a delivery nobody has cut yet'),
  pieces: z.int().describe('how many pieces or animals it still is'),
  massMg: z.int().min(0),
  freeMg: z.int().min(0).describe('what of it nobody has put on a bench or promised to a pot'),
  freePieces: z.int().min(0).describe('how many pieces that is'),
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
  pieceId: z.string().nullable().describe('what it is in the plan that made it'),
  placeId: slug,
  state: z.enum(lotStates),
  ready: z.boolean().describe('ready to eat: kept apart from what is raw'),
  frozenOn: day.nullable(),
  thawedOn: day.nullable(),
  openedOn: day.nullable(),
  dateLimit: z.string().nullable().describe('the shelf life of the profile its date was worked out by'),
  dateMaxC: z.number().nullable().describe('the cold its date presumes, °C'),
  raised: z.enum(['wild', 'farmed']).nullable().describe('of game: how it lived'),
  dateBasis: z.string().nullable().describe('where the use-by comes from, in words'),
  reservedFor: z.string().nullable(),
  held: z.string().nullable().describe('why nothing may leave it'),
  goods: slug.nullable().describe('what of the vegetables and dry goods it is'),
  tubRecipe: slug.nullable().describe('the recipe a collecting tub fills up for'),
  potKind: z.string().describe('the kind of piece it is to a pot; empty for none'),
  recipeId: slug.nullable().describe('the recipe whose batch it is'),
  labels: z.int().describe('how often a label was printed'),
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
  placeId: slug,
  state: z.enum(lotStates),
  held: z.string().nullable(),
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

/** What the larder can be ordered by. */
export const lotGroups = ['place', 'date', 'destination', 'species', 'supplier'] as const;

const placeId = slug;
const part = massMg
  .nullable()
  .default(null)
  .describe('only so much of it, which becomes a lot of its own; null: all of it');
const aboutPart = { massMg: part, confirmed, note: note.nullable().default(null) };

export const keepBody = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('move'), placeId, ...aboutPart }),
  z.strictObject({ kind: z.literal('freeze'), placeId, ...aboutPart }),
  z.strictObject({ kind: z.literal('thaw'), placeId, ...aboutPart }),
  z.strictObject({ kind: z.literal('open'), ...aboutPart }),
  z.strictObject({ kind: z.literal('date'), useBy: day, reason: note, confirmed }),
  z.strictObject({
    kind: z.literal('reserve'),
    reservedFor: shortText.nullable(),
    massMg: massMg.nullable().default(null).describe('a part of it, which becomes a lot of its own; null: all'),
    pieces: z.int().min(1).max(100_000).nullable().default(null).describe('how many pieces that is'),
  }),
  z.strictObject({ kind: z.literal('reading'), centiC: temperatureCentiC }),
  z.strictObject({ kind: z.literal('hold'), reason: note.nullable().describe('null: let it go') }),
]);

export const lotEventSchema = z.strictObject({
  id,
  kind: z.string(),
  says: z.string(),
  note: z.string().nullable(),
  by: z.string(),
  at: instant,
  undone: z.boolean(),
});

export const judgedSchema = z.strictObject({
  limitId: z.string(),
  about: z.enum(['storage', 'date', 'histamine', 'parasites', 'receiving', 'thawing']),
  verdict: z.enum(limitVerdicts),
  says: z.string(),
  document: z.string(),
  certainty: z.enum(['high', 'medium', 'low']),
});
export type Judged = z.output<typeof judgedSchema>;

/** What a log of cooling or freezing came to. */
export const lotLogSchema = z.strictObject({
  id,
  kind: z.enum(['cooling', 'freezing']),
  open: z.boolean(),
  verdict: judgedSchema.shape.verdict,
  document: z.string().nullable().describe('of the limit it was held against'),
  readings: z.int(),
  lastCentiC: temperatureCentiC,
  startedAt: instant,
  lastAt: instant,
  outcome: z.string().nullable().describe('what was done about it'),
});
export type LotLog = z.output<typeof lotLogSchema>;

export const stockTakeSchema = z.strictObject({
  id,
  placeId: slug.nullable(),
  lots: z.int(),
  differing: z.int(),
  differenceMg: signedMassMg,
  differenceMinor: signedMinor,
  note: z.string().nullable(),
  by: z.string(),
  at: instant,
});

export const tubSchema = lotSchema.extend({
  contents: z.array(z.strictObject({ category: z.string(), label: z.string(), massMg: z.number() })),
  recipeTitle: z.string(),
  usableMg: z.int(),
  enoughMg: z.int(),
  due: z.boolean().describe('there is enough for a pot'),
  offers: z.array(z.strictObject({ id, code: z.string(), name: z.string(), massMg: massMg, useBy: day.nullable() })),
});
export type Tub = z.output<typeof tubSchema>;

export const labelContentSchema = z.strictObject({
  code: z.string(),
  element: z.string(),
  name: z.string(),
  massMg: z.int(),
  pieces: z.int(),
  dates: z.array(z.strictObject({ kind: z.enum(['made', 'frozen', 'thawed', 'use-by']), day })).readonly(),
  allergens: z.array(z.string()).readonly(),
  ready: z.boolean(),
  place: z.string(),
  from: z.string().nullable(),
  by: z.string(),
  reprint: z.boolean(),
});

/** A roll's worth: more at once is a slip of the thumb. */
export const MOST_LABELS = 500;
export const labelSizes = ['57x32', '62x40', '100x50', 'a4-24', 'a4-65'] as const;

/** Which lots, and in which order. */
export const lotFilter = z.strictObject({
  search: z.string().max(80).optional(),
  destination: destination.optional(),
  kind: z.enum(lotKinds).optional(),
  place: slug.optional(),
  category: slug.optional(),
  state: z.enum(lotStates).optional(),
  due: z.enum(['past', 'today', 'soon']).optional().describe('past its date, last day today, or within two days'),
  held: z.literal('yes').optional(),
  group: z.enum(lotGroups).optional().describe('in this order first; within it earliest date first'),
  cuttable: z
    .literal('yes')
    .optional()
    .describe('only what a cut plan can start from and is free: deliveries, and pieces that stand for a form'),
  toWeight: z
    .enum(['cut', 'mould'])
    .optional()
    .describe('only what can be cut to weight or filled into moulds now: not frozen, not held, not spoken for'),
});

export const larder = {
  list: endpoint({
    id: 'larder.list',
    method: 'get',
    path: '/lots',
    command: false,
    may: 'everyone',
    summary: 'What is on hand, earliest date first',
    query: lotFilter.extend({ cursor, limit }),
    answer: z.strictObject({ lots: z.array(lotSchema), next: z.string().nullable(), total: z.int() }),
  }),
  read: endpoint({
    id: 'larder.read',
    method: 'get',
    path: '/lots/:lotId',
    command: false,
    may: 'everyone',
    summary: 'One lot with its parents, what it became, and every entry on it',
    params: z.strictObject({ lotId: id }),
    answer: lotSchema.extend({
      events: z.array(lotEventSchema),
      readings: z.array(z.strictObject({ centiC: temperatureCentiC, at: instant, by: z.string() })),
      cautions: z.array(z.string()).describe('usual cautions that matter for this lot, by their id'),
      judged: z.array(judgedSchema).describe('against the limits the house selected'),
      logs: z.array(lotLogSchema).describe('of its cooling or freezing, the latest first'),
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
    id: 'larder.trace',
    method: 'get',
    path: '/lots/:lotId/trace',
    command: false,
    may: 'everyone',
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
    id: 'larder.takeOut',
    method: 'post',
    path: '/lots/:lotId/take-out',
    command: 'may-wait',
    may: 'bench',
    summary: 'Take mass out of a lot: served, to the staff, or thrown away with a reason',
    params: z.strictObject({ lotId: id }),
    body: z
      .strictObject({
        massMg,
        pieces: z
          .int()
          .min(1)
          .max(100_000)
          .nullable()
          .default(null)
          .describe('how many pieces went; null: as the mass goes'),
        to: z.enum(takeOutSinks),
        reason: z.enum(wasteReasons).nullable(),
        note: shortText.nullable(),
      })
      .refine((b) => (b.to === 'waste') === (b.reason !== null), {
        path: ['reason'],
        error: 'a reason when it is thrown away, and only then',
      }),
    answer: z.strictObject({ movementId: id, leftMg: z.int().min(0), leftPieces: z.int().min(0) }),
  }),
  groups: endpoint({
    id: 'larder.groups',
    method: 'get',
    path: '/lot-groups',
    command: false,
    may: 'everyone',
    summary: 'What is on hand, added up by place, date, destination, species or supplier',
    query: z.strictObject({ by: z.enum(lotGroups) }),
    answer: z.strictObject({
      groups: z.array(
        z.strictObject({
          key: z.string(),
          lots: z.int(),
          massMg: z.int(),
          costMinor: z.int(),
          earliest: day.nullable(),
        }),
      ),
    }),
  }),
  keep: endpoint({
    id: 'larder.keep',
    method: 'post',
    path: '/lots/:lotId/keep',
    command: 'may-wait',
    may: 'bench',
    summary: 'Move, freeze, thaw, open, date, reserve or hold a lot, or a part of it',
    params: z.strictObject({ lotId: id }),
    body: keepBody,
    answer: z.strictObject({ lotId: id, code: z.string(), eventId: id, useBy: day.nullable(), says: z.string() }),
  }),
  undoKeep: endpoint({
    id: 'larder.undoKeep',
    method: 'post',
    path: '/lot-events/:eventId/undo',
    command: 'may-wait',
    may: 'bench',
    summary: 'Put a lot back to how it was kept before',
    params: z.strictObject({ eventId: id }),
    answer: z.strictObject({ lotId: id, useBy: day.nullable() }),
  }),
  split: endpoint({
    id: 'larder.split',
    method: 'post',
    path: '/lots/:lotId/split',
    command: 'may-wait',
    may: 'bench',
    summary: 'Part a lot: what is taken becomes a lot of its own with the same dates',
    params: z.strictObject({ lotId: id }),
    body: z.strictObject({
      massMg,
      pieces: z.int().min(1).max(10_000).nullable(),
      trim: z
        .boolean()
        .default(false)
        .describe(
          'of vegetables, as tablets of before say it: what comes off becomes trim to collect. Now: larder.trim',
        ),
    }),
    answer: z.strictObject({ movementId: id, lotId: id, code: z.string() }),
  }),
  trim: endpoint({
    id: 'larder.trim',
    method: 'post',
    path: '/lots/:lotId/trim',
    command: 'may-wait',
    may: 'bench',
    summary: 'Trim vegetables or herbs: what is ready, what of the trim is kept, the rest is inedible part',
    params: z.strictObject({ lotId: id }),
    body: z.strictObject({
      massMg: massMg.nullable().describe('what went on the board; null: all of the lot'),
      readyMg: massMg,
      keptMg: z.int().min(0).max(100_000_000_000).describe('of the trim, kept for something'),
      keptTo: destination.nullable(),
      note: note.nullable(),
    }),
    answer: z.strictObject({
      movementId: id,
      lotId: id.describe('what is ready'),
      code: z.string(),
      keptCode: z.string().nullable(),
      wasteMg: z.int(),
      readyShare: share,
    }),
  }),
  goodsYields: endpoint({
    id: 'larder.goodsYields',
    method: 'get',
    path: '/goods/:goods/yields',
    command: false,
    may: 'everyone',
    summary: 'What the house’s own trimming of vegetables or herbs left ready, the latest first',
    params: z.strictObject({ goods: slug }),
    answer: z.strictObject({ yields: z.array(z.strictObject({ share, at: instant, by: z.string() })) }),
  }),
  merge: endpoint({
    id: 'larder.merge',
    method: 'post',
    path: '/merges',
    command: 'may-wait',
    may: 'bench',
    summary: 'Put lots of one kind together: the oldest date wins, all parents are kept',
    body: z.strictObject({ lotIds: z.array(id).min(2).max(50), confirmed }),
    answer: z.strictObject({ movementId: id, lotId: id, code: z.string(), useBy: day.nullable() }),
  }),
  tubs: endpoint({
    id: 'larder.tubs',
    method: 'get',
    path: '/tubs',
    command: false,
    may: 'everyone',
    summary: 'Collecting tubs: what is in them, and whether a pot is due',
    answer: z.strictObject({ tubs: z.array(tubSchema) }),
  }),
  startTub: endpoint({
    id: 'larder.startTub',
    method: 'post',
    path: '/tubs',
    command: 'may-wait',
    may: 'bench',
    summary: 'Start a collecting tub for a recipe, with the first lots in it',
    body: z.strictObject({
      recipeId: slug,
      name: shortText,
      placeId,
      from: z
        .array(z.strictObject({ lotId: id, massMg: massMg.nullable() }))
        .min(1)
        .max(50),
      confirmed,
    }),
    answer: z.strictObject({ movementId: id, lotId: id, code: z.string() }),
  }),
  fill: endpoint({
    id: 'larder.fill',
    method: 'post',
    path: '/tubs/:lotId/fill',
    command: 'may-wait',
    may: 'bench',
    summary: 'Put lots into a tub: the oldest date wins',
    params: z.strictObject({ lotId: id }),
    body: z.strictObject({
      from: z
        .array(z.strictObject({ lotId: id, massMg: massMg.nullable() }))
        .min(1)
        .max(50),
      confirmed,
    }),
    answer: z.strictObject({ movementId: id, lotId: id, massMg, useBy: day.nullable(), due: z.boolean() }),
  }),
  takeOn: endpoint({
    id: 'larder.takeOn',
    method: 'post',
    path: '/lots',
    command: 'may-wait',
    may: 'bench',
    summary:
      'Something that lay there before it was written down: a lot from no supplier, with the date that stands on it',
    body: z.strictObject({
      what: z.discriminatedUnion('kind', [
        z.strictObject({ kind: z.literal('bought'), species: slug, form: slug }),
        z.strictObject({ kind: z.literal('goods'), goods: slug }),
        z.strictObject({
          kind: z.literal('piece'),
          species: slug,
          category: slug,
          name: newName.describe('what it is called beside the animal: fillet'),
          ready: z.boolean(),
        }),
      ]),
      massMg,
      pieces: z.int().min(1).max(10_000),
      useBy: day.nullable(),
      placeId,
      frozen: z.boolean().default(false),
      costMinor: amountMinor.nullable().describe('what all of it cost; null: nobody knows, and it counts as nothing'),
      note: note.nullable(),
      confirmed,
    }),
    answer: z.strictObject({ lotId: id, code: z.string(), name: z.string(), massMg, useBy: day.nullable() }),
  }),
  count: endpoint({
    id: 'larder.count',
    method: 'post',
    path: '/stock-takes',
    command: 'may-wait',
    may: 'bench',
    summary: 'Write down a round through the larder: what the scale says, and why it differs',
    body: z.strictObject({
      placeId: placeId.nullable(),
      note: note.nullable(),
      counts: z
        .array(
          z.strictObject({
            lotId: id,
            countedMg: z.int().min(0).max(5_000_000_000),
            countedPieces: z.int().min(0).max(100_000).nullable().default(null),
            /** What the book said when it was counted: the difference is held against that, whatever has left or come since. */
            seenMg: z.int().min(0).max(5_000_000_000).nullable().default(null),
            seenPieces: z.int().min(0).max(100_000).nullable().default(null),
            reason: shortText.nullable(),
          }),
        )
        .min(1)
        .max(1_000),
    }),
    answer: stockTakeSchema.extend({ movementId: id.nullable() }),
    takesBytes: 400_000,
  }),
  stockTakes: endpoint({
    id: 'larder.stockTakes',
    method: 'get',
    path: '/stock-takes',
    command: false,
    may: 'everyone',
    summary: 'Rounds through the larder, newest first',
    query: z.strictObject({ limit }),
    answer: z.strictObject({ stockTakes: z.array(stockTakeSchema) }),
  }),
  printLabels: endpoint({
    id: 'larder.printLabels',
    method: 'post',
    path: '/labels',
    command: true,
    may: 'bench',
    summary: 'Print labels for lots on the label printer',
    body: z.strictObject({
      lots: z
        .array(z.strictObject({ lotId: id, copies: z.int().min(1).max(99) }))
        .min(1)
        .max(100)
        .refine((lots) => lots.reduce((sum, l) => sum + l.copies, 0) <= MOST_LABELS, {
          error: `at most ${MOST_LABELS} labels at once`,
        }),
      size: z.enum(labelSizes),
    }),
    answer: z.strictObject({ job: z.string(), labels: z.int(), reprints: z.int() }),
  }),
  labelPdf: endpoint({
    id: 'larder.labelPdf',
    method: 'get',
    path: '/labels.pdf',
    command: false,
    may: 'everyone',
    summary: 'Labels as a PDF, to look at or to print on sheets; it does not count as printed',
    file: 'application/pdf',
    query: z.strictObject({
      lots: z.string().regex(/^[0-9a-f-]{36}(,[0-9a-f-]{36}){0,99}$/),
      size: z.enum(labelSizes),
    }),
    answer: nothing,
  }),
  printed: endpoint({
    id: 'larder.printed',
    method: 'get',
    path: '/labels/printed',
    command: false,
    may: 'everyone',
    summary: 'What came out of the label printer lately',
    answer: z.strictObject({
      latest: z.array(labelContentSchema).describe('the labels printed last, as they would come out now'),
      jobs: z.array(
        z.strictObject({ job: z.string(), name: z.string(), labels: z.int(), at: instant, bytes: z.int() }),
      ),
    }),
  }),
  showPrinted: endpoint({
    id: 'larder.showPrinted',
    method: 'get',
    path: '/labels/printed/:job',
    command: false,
    may: 'everyone',
    summary: 'What came out for one job',
    file: 'application/pdf',
    params: z.strictObject({ job: z.string().regex(/^\d{1,9}$/) }),
    answer: nothing,
  }),
} as const;
