import { z } from 'zod';
import { endpoint } from '../endpoint.ts';
import { day, id, instant, nothing, shortText } from '../fields.ts';

/** Work that takes longer than one waits for: asked for, made beside everything else, fetched when it is there. */
export const askedJobSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('movements-csv'),
    from: day.optional(),
    until: day.optional(),
    cells: z
      .enum(['spreadsheet', 'raw'])
      .default('spreadsheet')
      .describe('raw: text that a spreadsheet would run is left as it is'),
  }),
  z.strictObject({ kind: z.literal('movements-epcis'), from: day.optional(), until: day.optional() }),
  z.strictObject({ kind: z.literal('house-file') }),
  z.strictObject({ kind: z.literal('tables'), format: z.enum(['xlsx', 'csv']) }),
]);
export type AskedJob = z.output<typeof askedJobSchema>;
export type JobKind = AskedJob['kind'];

export const jobStates = ['waiting', 'working', 'done', 'failed', 'called-off'] as const;

export const jobSchema = z.strictObject({
  id,
  asked: askedJobSchema,
  state: z.enum(jobStates),
  doneRatio: z.number().min(0).max(1).nullable().describe('how far it is; null where that cannot be said'),
  bytes: z.int().min(0).describe('of the file, as far as it is made'),
  by: shortText,
  at: instant,
  endedAt: instant.nullable(),
  why: z.string().nullable().describe('a sentence: why it was not made'),
  file: z
    .strictObject({ name: z.string(), until: instant.describe('kept until then') })
    .nullable()
    .describe('to be fetched; null while there is none, and once it is thrown away'),
});
export type Job = z.output<typeof jobSchema>;

export const jobs = {
  list: endpoint({
    id: 'jobs.list',
    method: 'get',
    path: '/jobs',
    command: false,
    may: 'chefs',
    summary: 'Files asked for, the latest first: those one may fetch',
    answer: z.strictObject({ jobs: z.array(jobSchema) }),
  }),
  ask: endpoint({
    id: 'jobs.ask',
    method: 'post',
    path: '/jobs',
    command: true,
    may: 'chefs',
    summary: 'Ask for a file that takes a while to make',
    body: askedJobSchema,
    answer: jobSchema,
  }),
  callOff: endpoint({
    id: 'jobs.callOff',
    method: 'post',
    path: '/jobs/:jobId/call-off',
    command: true,
    may: 'chefs',
    summary: 'Stop making it, or throw away what was made',
    params: z.strictObject({ jobId: id }),
    body: z.strictObject({}),
    answer: jobSchema,
  }),
  file: endpoint({
    id: 'jobs.file',
    method: 'get',
    path: '/jobs/:jobId/file',
    command: false,
    may: 'chefs',
    summary: 'The file of a job that is done',
    params: z.strictObject({ jobId: id }),
    file: 'application/octet-stream',
    answer: nothing,
  }),
} as const;
