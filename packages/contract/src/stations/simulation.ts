import { z } from 'zod';
import { endpoint } from '../endpoint.ts';
import { id, massMg, massOrNoneMg, slug, temperatureCentiC } from '../fields.ts';

/** In the demo and in tests, and on a house's practice scale: the hand that puts things on the simulated scale and the probe into them. */
export const simulation = {
  pan: endpoint({
    id: 'simulation.pan',
    method: 'post',
    path: '/simulation/pan',
    command: false,
    may: 'bench',
    summary:
      'Put a load on the simulated pan: any mass, the next true piece of the hidden animal of a breakdown, or a portion cut near a mark',
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
      z.strictObject({
        what: z.literal('cut'),
        cuttingId: id,
        seat: z.string().max(60).describe('which cut it is: the same one always weighs the same'),
        predictedMg: massMg,
        spread: z.number().min(0).max(0.2).describe('how far off the hidden piece may be, as a share'),
        scale: slug.default('bench'),
      }),
    ]),
    answer: z.strictObject({ massMg: massOrNoneMg }),
  }),
  probe: endpoint({
    id: 'simulation.probe',
    method: 'post',
    path: '/simulation/probe',
    command: false,
    may: 'bench',
    summary: 'Stick the simulated probe into something of this temperature',
    body: z.strictObject({ centiC: temperatureCentiC }),
    answer: z.strictObject({ centiC: temperatureCentiC }),
  }),
} as const;
