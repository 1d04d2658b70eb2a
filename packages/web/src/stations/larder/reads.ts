/** The reads that a screen of this station opens with: asked for by its loader, beside its script. */
import { call } from '../../app/api.ts';
import { api } from '../../app/endpoints.ts';
import { lotQuery } from '../../app/queries.ts';
import type { ReadsAt } from '../../app/screenAt.ts';

export const traceQuery = (lotId: string) =>
  ({
    queryKey: ['lots', 'trace', lotId],
    queryFn: () => call(api.larder.trace, { params: { lotId } }),
  }) as const;
export const tubsQuery = { queryKey: ['lots', 'tubs'], queryFn: () => call(api.larder.tubs, {}) } as const;
export const printedQuery = { queryKey: ['lots', 'labels'], queryFn: () => call(api.larder.printed, {}) } as const;
export const stockTakesQuery = {
  queryKey: ['lots', 'stock-takes'],
  queryFn: () => call(api.larder.stockTakes, { query: { limit: 12 } }),
} as const;

export const larderReads: ReadsAt = {
  '/larder/:lotId': ({ lotId = '' }) => [lotQuery(lotId)],
  '/larder/:lotId/trace': ({ lotId = '' }) => [traceQuery(lotId)],
  '/larder/tubs': () => [tubsQuery],
  '/larder/count': () => [stockTakesQuery],
  '/larder/labels': () => [printedQuery],
};
