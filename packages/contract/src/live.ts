import { z } from 'zod';

/** What the server-sent event stream at /api/v1/live carries. */
export const topics = [
  'deliveries',
  'suppliers',
  'breakdowns',
  'cuttings',
  'lots',
  'batches',
  'coolings',
  'house',
  'catalogue',
  'prices',
  'jobs',
] as const;
export type Topic = (typeof topics)[number];

/** Event `changed`: which lists to read again; `id` narrows it to one breakdown or lot where known. */
export const changedSchema = z.strictObject({ topics: z.array(z.enum(topics)), ids: z.array(z.string()) });
export type Changed = z.output<typeof changedSchema>;

/** Event `progress`: how far a command is that takes a while. `command` is its key, `done` of `of` what it is made of, labels say. */
export const progressSchema = z.strictObject({ command: z.string(), done: z.int().min(0), of: z.int().min(1) });
export type Progress = z.output<typeof progressSchema>;

/**
 * Event `scale`: a reading of the bench scale. `settled` counts how often the pan came to rest: a weight is taken once per count.
 * `away`: the scale does not answer.
 */
export const scaleReadingSchema = z.strictObject({
  scale: z.string().describe('which of the house’s scales'),
  state: z.enum(['steady', 'moving', 'over', 'under', 'away']),
  grossMg: z.int(),
  tareMg: z.int(),
  netMg: z.int(),
  settled: z.int(),
  at: z.int(),
});
export type ScaleReading = z.output<typeof scaleReadingSchema>;
