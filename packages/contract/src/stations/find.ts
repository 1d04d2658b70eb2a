import { z } from 'zod';
import { endpoint } from '../endpoint.ts';
import { id, instant, massOrNoneMg } from '../fields.ts';

/** What can be found by a few letters of it, in the order in which it is shown. */
export const foundKinds = [
  'lot',
  'breakdown',
  'cutting',
  'batch',
  'delivery',
  'plan',
  'recipe',
  'supplier',
  'person',
] as const;
export type FoundKind = (typeof foundKinds)[number];

export const foundThingSchema = z.strictObject({
  kind: z.enum(foundKinds),
  id: z.union([id, z.string()]).describe('its id at its station; of a plan or recipe its name there'),
  name: z.string(),
  code: z.string().nullable().describe('the code of the lot it is, or is of'),
  massMg: massOrNoneMg.nullable().describe('of a lot what is on hand, of work what it began with'),
  of: z.string().nullable().describe('whose it is: the supplier, or who did it'),
  at: instant.nullable().describe('when it was made or begun'),
  open: z.boolean().describe('it is on hand, under way, or in use; not used up, done or retired'),
});
export type FoundThing = z.output<typeof foundThingSchema>;

export const find = {
  search: endpoint({
    id: 'find.search',
    method: 'get',
    path: '/find',
    command: false,
    may: 'everyone',
    summary:
      'Whatever the house has by that name or code: each word must stand in it. Lots by code with or without its letter, also those used up; people for chefs alone',
    query: z.strictObject({ q: z.string().trim().min(1).max(80) }),
    answer: z.strictObject({ found: z.array(foundThingSchema) }),
  }),
} as const;
