import { z } from 'zod';
import { type Endpoint, endpoint } from '../endpoint.ts';
import { id, nothing } from '../fields.ts';
import { lotFilter } from './larder.ts';

/** A sheet on A4: the whole list, with the house, the moment and page of pages on each, black on white. */
const sheet = <const E extends Pick<Endpoint, 'id' | 'path' | 'summary' | 'params' | 'query'>>(e: E) =>
  ({ method: 'get', command: false, may: 'everyone', file: 'application/pdf', answer: nothing, ...e }) as const;

export const paper = {
  larder: endpoint(
    sheet({
      id: 'paper.larder',
      path: '/paper/larder.pdf',
      summary: 'What is on hand, all of it or what is asked for, in the order asked for',
      query: lotFilter,
    }),
  ),
  stockTake: endpoint(
    sheet({
      id: 'paper.stockTake',
      path: '/paper/stock-take.pdf',
      summary: 'A sheet to count by: what lies in each place, with room for what is found',
      query: lotFilter.pick({ place: true }),
    }),
  ),
  cuttingList: endpoint(
    sheet({
      id: 'paper.cuttingList',
      path: '/paper/cutting-list.pdf',
      summary: 'What is on the bench, what waits to go on, and what is to be cut, the earliest date first',
    }),
  ),
  prices: endpoint(
    sheet({
      id: 'paper.prices',
      path: '/paper/prices.pdf',
      summary: 'The price of every item that counts today, by supplier',
      query: z.strictObject({ supplierId: id.optional() }),
    }),
  ),
  delivery: endpoint(
    sheet({
      id: 'paper.delivery',
      path: '/paper/deliveries/:deliveryId/delivery.pdf',
      summary: 'What a supplier brought at one time, each line with what was weighed, measured and decided',
      params: z.strictObject({ deliveryId: id }),
    }),
  ),
  batch: endpoint(
    sheet({
      id: 'paper.batch',
      path: '/paper/batches/:batchId/card.pdf',
      summary: 'The card of a batch: what goes in, the steps in their order, room for what was read and who did it',
      params: z.strictObject({ batchId: id }),
    }),
  ),
} as const;
