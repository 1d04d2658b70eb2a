/** The reads that a screen of this station opens with: asked for by its loader, beside its script. */
import { call } from '../../app/api.ts';
import { api } from '../../app/endpoints.ts';
import { breakdownQuery } from '../../app/queries.ts';
import type { ReadsAt } from '../../app/screenAt.ts';

export const openBreakdownsQuery = {
  queryKey: ['breakdowns', 'list'],
  queryFn: () => call(api.bench.list, { query: {} }),
} as const;
/** What lies there to be cut. */
export const toCutQuery = {
  queryKey: ['lots', 'whole'],
  queryFn: () => call(api.larder.list, { query: { cuttable: 'yes', limit: 200 } }),
} as const;
export const openCuttingsQuery = { queryKey: ['cuttings', 'list'], queryFn: () => call(api.cutting.list, {}) } as const;
export const planQuery = (planId: string) =>
  ({
    queryKey: ['catalogue', 'plan', planId],
    queryFn: () => call(api.bench.plan, { params: { planId } }),
  }) as const;

export const benchReads: ReadsAt = {
  '/bench': () => [openBreakdownsQuery, openCuttingsQuery, toCutQuery],
  '/bench/:breakdownId': ({ breakdownId = '' }) => [breakdownQuery(breakdownId)],
  '/bench/plans/:planId': ({ planId = '' }) => [planQuery(planId)],
  '/bench/cut': () => [openCuttingsQuery],
};
