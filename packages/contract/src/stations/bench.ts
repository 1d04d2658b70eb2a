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
  note,
  nothing,
  share,
  shortText,
  signedMassMg,
  slug,
  temperatureCentiC,
} from '../fields.ts';
import { cutPlanSchema, ownTimesSchema, speciesSchema } from '../plan.ts';

export const weighingSchema = z.strictObject({
  id,
  pieceId: z.string().nullable(),
  destination: destination.nullable(),
  massMg: massMg.nullable().describe('null: takes back the weighing it replaces'),
  source: z.enum(['scale', 'typed']).nullable(),
  count: z.int().describe('how many units of the piece were weighed together; 0: more of one that counts already'),
  animal: z.int().nullable().describe('which animal of the batch, from 1; null where nobody said'),
  scale: z.string().nullable().describe('the scale it was taken on; null when it was typed'),
  replaces: id.nullable(),
  by: z.string(),
  at: instant,
});
export type Weighing = z.output<typeof weighingSchema>;

/** How the animals of a batch are weighed. */
export const ways = ['one-by-one', 'pooled', 'by-animal'] as const;
export type Way = (typeof ways)[number];

/** A piece that came off although the plan does not know it. */
export const otherPieceSchema = z.strictObject({
  id: slug,
  name: z.string().trim().min(1).max(60),
  category: slug,
  destination,
});
/** How what lies on the bench differs from what the plan expects. */
export const foundSchema = z.strictObject({
  cameWithout: z.record(slug, z.int().positive()).describe('units of a piece that were not there, by piece'),
  others: z.array(otherPieceSchema),
});

/** What happens on the bench beside weighing; append-only, sent through the tablet's outbox like weights. */
export const benchEventBody = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('step'),
    step: z.int().min(0).max(60),
    mark: z.enum(['done', 'late', 'skipped', 'open']).describe('late: done after what it should have come before'),
    note: shortText.nullable(),
    at: instant,
  }),
  z.strictObject({
    kind: z.literal('timer'),
    step: z.int().min(0).max(60).nullable(),
    label: shortText,
    dueAt: instant,
    replaces: id.optional().describe('the timer that rings then instead'),
    at: instant,
  }),
  z.strictObject({ kind: z.literal('timer-off'), timerId: id, at: instant }),
  z.strictObject({ kind: z.literal('pass'), step: z.int().min(0).max(60), at: instant }),
  z.strictObject({ kind: z.literal('pause'), at: instant }),
  z.strictObject({ kind: z.literal('resume'), at: instant }),
  z.strictObject({ kind: z.literal('tray-note'), destination, text: shortText, at: instant }),
  z.strictObject({ kind: z.literal('hand-over'), toPersonId: id, at: instant }),
  z.strictObject({
    kind: z.literal('came-without'),
    pieceId: slug,
    units: z.int().min(0).max(5_000).describe('how many of it were not there; 0 takes back what was said'),
    at: instant,
  }),
  z.strictObject({ kind: z.literal('other-piece'), piece: otherPieceSchema, at: instant }),
  z.strictObject({
    kind: z.literal('bring-in'),
    pieceId: slug.describe('the piece it is joined to'),
    name: z.string().trim().min(1).max(60),
    massMg,
    lotId: id.nullable().describe('the lot it is of; null for what is kept in no lot'),
    allergens: z.array(z.string().max(60)).max(40).describe('of what is in no lot, all that it has'),
    at: instant,
  }),
  z.strictObject({ kind: z.literal('bring-back'), eventId: id, at: instant }),
]);
export type BenchEventBody = z.output<typeof benchEventBody>;

export const benchEventSchema = z.strictObject({ id, by: z.string(), body: benchEventBody });
export type BenchEvent = z.output<typeof benchEventSchema>;

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
  stageId: z.string(),
  stageName: z.string(),
  stageIndex: z.int().describe('from 0'),
  stageCount: z.int(),
  rootId: id.describe('the breakdown this chain of stages began with'),
  startShare: share.describe('what share of the purchase this stage’s start stands for'),
  animals: z.int(),
  way: z.enum(ways),
  startMg: massMg,
  startMinor: amountMinor,
  weighedMg: z.int(),
  by: z.string(),
  found: foundSchema,
  holder: z.string().describe('who has it in hand now'),
  startedAt: instant,
  closedAt: instant.nullable(),
});
export type BreakdownHead = z.output<typeof breakdownHeadSchema>;

export const breakdownSchema = breakdownHeadSchema.extend({
  plan: cutPlanSchema.describe('as it was begun with; what was found otherwise stands in found'),
  inputs: z.array(z.strictObject({ lotId: id, code: z.string(), name: z.string(), massMg })),
  allergens: z.array(z.string()).describe('of all that lies there, and of what was joined to it'),
  movementId: id.nullable(),
  weighings: z.array(weighingSchema),
  events: z.array(benchEventSchema),
  /** What this house believes of each piece's share before this animal, handbook and own records joined. */
  beliefs: z.array(
    z.strictObject({
      pieceId: z.string(),
      mean: share,
      sd: share,
      records: z.int(),
      supplier: z
        .strictObject({
          records: z.int(),
          others: z.int(),
          more: z
            .number()
            .nullable()
            .describe(
              'how much more of the piece this supplier’s animals give than the others’ do, as a share of theirs; null where that is not plain',
            ),
        })
        .nullable()
        .describe('null where the house has records of this supplier alone, or none'),
      units: z
        .strictObject({ squares: z.number(), df: z.int() })
        .describe(
          'how unlike units weighed one by one were before: squares of their relative distance from their mean, and their freedom',
        ),
    }),
  ),
  drip: z.strictObject({ mean: share, sd: share }),
  ownTimes: ownTimesSchema,
});
export type Breakdown = z.output<typeof breakdownSchema>;

export const takeBody = z.strictObject({
  kind: z.literal('take'),
  pieceId: slug,
  destination,
  massMg,
  source: z.enum(['scale', 'typed']),
  count: z
    .int()
    .min(0)
    .max(5_000)
    .default(1)
    .describe('units weighed together; 0: more of a unit that counts already, in a second go or on another tray'),
  animal: z.int().min(1).max(500).nullable().default(null),
  scale: slug.nullable().default(null),
  replaces: id.nullable().describe('the weighing this one puts right'),
  also: z
    .discriminatedUnion('kind', [
      z.strictObject({ kind: z.literal('take'), id, destination, massMg, count: z.int().min(0).max(5_000) }),
      z.strictObject({ kind: z.literal('undo'), id, replaces: id }),
    ])
    .nullable()
    .default(null)
    .describe(
      'what happens with it or not at all: the other part of a weight that is split, or the weight that is joined to this one and goes. Its own id',
    ),
  at: instant,
});
export const undoBody = z.strictObject({ kind: z.literal('undo'), replaces: id, at: instant });
export const weighBody = z.discriminatedUnion('kind', [takeBody, undoBody]);
export type WeighBody = z.output<typeof weighBody>;
/** Lots that wait for the next stage of their plan. */
export const waitingSchema = z.strictObject({
  breakdownId: id.describe('the breakdown whose stage made the first of them'),
  planTitle: z.string(),
  speciesName: z.string(),
  stageId: z.string(),
  stageName: z.string(),
  lots: z.array(
    z.strictObject({ lotId: id, code: z.string(), name: z.string(), massMg, freeMg: massMg, freePieces: z.int() }),
  ),
  animals: z.int(),
  madeAt: instant,
  readyAt: instant.nullable().describe('when its rest has lasted long enough'),
  lateAt: instant.nullable().describe('when its rest has lasted too long'),
  restNote: z.string().nullable(),
  missing: z.array(z.string()).describe('pieces it is made of that are not here yet, by name'),
  useBy: day.nullable(),
});
export type WaitingStage = z.output<typeof waitingSchema>;

export const planSheetSchema = z.strictObject({
  plan: cutPlanSchema,
  own: z.boolean(),
  retired: z.boolean(),
  versions: z.array(z.strictObject({ version: z.int(), at: instant.nullable(), by: z.string().nullable() })),
});
export type PlanSheet = z.output<typeof planSheetSchema>;

export const bench = {
  list: endpoint({
    id: 'bench.list',
    method: 'get',
    path: '/breakdowns',
    command: false,
    may: 'everyone',
    summary: 'Breakdowns on the bench now, oldest first',
    query: z.strictObject({ cursor, limit }),
    answer: z.strictObject({ breakdowns: z.array(breakdownHeadSchema), next: z.string().nullable() }),
  }),
  start: endpoint({
    id: 'bench.start',
    method: 'post',
    path: '/breakdowns',
    command: true,
    may: 'bench',
    summary: 'Put a lot, or part of one, on the bench with a cut plan',
    body: z.strictObject({
      lotId: id,
      planId: slug,
      animals: z.int().min(1).max(500),
      massMg: massMg.nullable().describe('null: all of the lot'),
      way: z.enum(ways).nullable().default(null).describe('null: as the plan says'),
      confirmed,
    }),
    answer: breakdownSchema,
  }),
  waiting: endpoint({
    id: 'bench.waiting',
    method: 'get',
    path: '/waiting-stages',
    command: false,
    may: 'everyone',
    summary: 'Pieces that wait to go on to the next stage of their plan, with their rest',
    answer: z.strictObject({ waiting: z.array(waitingSchema) }),
  }),
  goOn: endpoint({
    id: 'bench.goOn',
    method: 'post',
    path: '/waiting-stages',
    command: true,
    may: 'bench',
    summary: 'Carry on with the next stage of a plan from the pieces an earlier stage made',
    body: z.strictObject({
      lots: z
        .array(z.strictObject({ lotId: id, massMg: massMg.nullable() }))
        .min(1)
        .max(40),
      way: z.enum(ways).nullable().default(null),
      confirmed,
    }),
    answer: breakdownSchema,
  }),
  plan: endpoint({
    id: 'bench.plan',
    method: 'get',
    path: '/plans/:planId',
    command: false,
    may: 'everyone',
    summary:
      'A cut plan as the house has it now; its JSON is what is exported and imported (schema: /api/v1/schemas/cut-plan.json)',
    params: z.strictObject({ planId: slug }),
    answer: planSheetSchema,
  }),
  savePlan: endpoint({
    id: 'bench.savePlan',
    method: 'post',
    path: '/plans',
    command: true,
    may: 'chefs',
    summary: 'Save a plan as a new version of the house’s own; breakdowns keep the version they were made with',
    body: z.strictObject({
      plan: cutPlanSchema,
      basedOn: z.int().min(0).describe('the version it was made from; 0 for a plan that is new here'),
    }),
    answer: planSheetSchema,
  }),
  retirePlan: endpoint({
    id: 'bench.retirePlan',
    method: 'post',
    path: '/plans/:planId/retire',
    command: true,
    may: 'chefs',
    summary: 'Take a plan out of the lists, or bring it back',
    params: z.strictObject({ planId: slug }),
    body: z.strictObject({ retired: z.boolean() }),
    answer: planSheetSchema,
  }),
  saveSpecies: endpoint({
    id: 'bench.saveSpecies',
    method: 'post',
    path: '/species',
    command: true,
    may: 'chefs',
    summary: 'Add a species of the house’s own, or change one',
    body: z.strictObject({ species: speciesSchema }),
    answer: nothing,
  }),
  event: endpoint({
    id: 'bench.event',
    method: 'post',
    path: '/breakdowns/:breakdownId/events',
    command: 'may-wait',
    may: 'bench',
    summary: 'Mark a step, pause, note, hand over. The Idempotency-Key becomes the event’s id.',
    params: z.strictObject({ breakdownId: id }),
    body: benchEventBody,
    answer: benchEventSchema,
  }),
  people: endpoint({
    id: 'bench.people',
    method: 'get',
    path: '/bench/people',
    command: false,
    may: 'everyone',
    summary: 'Who can take a breakdown over',
    answer: z.strictObject({ people: z.array(z.strictObject({ id, name: z.string() })) }),
  }),
  reopen: endpoint({
    id: 'bench.reopen',
    method: 'post',
    path: '/breakdowns/:breakdownId/reopen',
    command: true,
    may: 'chefs',
    summary: 'Open a closed stage again by the counter-entry of its movement, with a reason',
    params: z.strictObject({ breakdownId: id }),
    body: z.strictObject({ reason: note }),
    answer: breakdownSchema,
  }),
  read: endpoint({
    id: 'bench.read',
    method: 'get',
    path: '/breakdowns/:breakdownId',
    command: false,
    may: 'everyone',
    summary: 'One breakdown with its plan, weighings and expectations',
    params: z.strictObject({ breakdownId: id }),
    answer: breakdownSchema,
  }),
  weigh: endpoint({
    id: 'bench.weigh',
    method: 'post',
    path: '/breakdowns/:breakdownId/weighings',
    command: 'may-wait',
    may: 'bench',
    summary: 'Take a weight, put one right, or take one back. The Idempotency-Key becomes the weighing’s id.',
    params: z.strictObject({ breakdownId: id }),
    body: weighBody,
    answer: weighingSchema,
  }),
  close: endpoint({
    id: 'bench.close',
    method: 'post',
    path: '/breakdowns/:breakdownId/close',
    command: 'may-wait',
    may: 'bench',
    summary: 'Close the stage: judge the balance and write the movement',
    params: z.strictObject({ breakdownId: id }),
    body: z.strictObject({
      unbalancedReason: note
        .nullable()
        .describe('why it is closed although the balance does not hold; null when it does'),
      cooked: z
        .strictObject({
          through: z.boolean().describe('cooked through: ready to eat from now on'),
          coreCentiC: temperatureCentiC.nullable().describe('the coldest point, as read; null: not read'),
          placeId: slug.nullable().describe('where it stands now; null: where such things usually do'),
          added: z.array(slug).max(8).describe('what went in with it, of what the plan knows'),
        })
        .nullable()
        .default(null)
        .describe('of a stage that cooks: what it made of it'),
    }),
    answer: z.strictObject({
      movementId: id,
      unaccountedMg: signedMassMg,
      lots: z.array(z.strictObject({ lotId: id, code: z.string(), name: z.string(), massMg, destination })),
    }),
  }),
  cancel: endpoint({
    id: 'bench.cancel',
    method: 'post',
    path: '/breakdowns/:breakdownId/cancel',
    command: true,
    may: 'bench',
    summary: 'Put the animal back: only while nothing is weighed',
    params: z.strictObject({ breakdownId: id }),
    body: z.strictObject({}),
    answer: nothing,
  }),
  scaleCommand: endpoint({
    id: 'bench.scaleCommand',
    method: 'post',
    path: '/scale/commands',
    command: false,
    may: 'bench',
    summary: 'Tare or zero the bench scale',
    body: z.strictObject({ command: z.enum(['tare', 'untare', 'zero']), scale: slug.default('bench') }),
    answer: nothing,
  }),
} as const;
