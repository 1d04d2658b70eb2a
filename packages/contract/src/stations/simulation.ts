import { z } from 'zod';
import { endpoint } from '../endpoint.ts';
import { id, massOrNoneMg, slug } from '../fields.ts';
import { routes } from '../routes.ts';

/** Present only in the demo and in tests: the hand that puts things on the simulated scale. */
export const simulation = {
  pan: endpoint({
    ...routes.simulation.pan,
    summary: 'Put a load on the simulated pan: any mass, or the next true piece of the hidden animal of a breakdown',
    body: z.discriminatedUnion('what', [
      z.strictObject({ what: z.literal('load'), massMg: massOrNoneMg, scale: slug.default('bench') }),
      z.strictObject({
        what: z.literal('piece'),
        breakdownId: id,
        pieceId: slug,
        unit: z.int().min(0).max(5_000),
        count: z.int().min(1).max(5_000).default(1),
        scale: slug.default('bench'),
      }),
    ]),
    answer: z.strictObject({ massMg: massOrNoneMg }),
  }),
} as const;
