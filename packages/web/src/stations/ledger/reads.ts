/** The reads that a screen of this station opens with: asked for by its loader, beside its script. */
import { call } from '../../app/api.ts';
import { api } from '../../app/endpoints.ts';
import type { ReadsAt } from '../../app/screenAt.ts';

export const sheetQuery = (breakdownId: string) =>
  ({
    queryKey: ['breakdowns', 'sheet', breakdownId],
    queryFn: () => call(api.ledger.sheet, { params: { breakdownId } }),
  }) as const;

export const ledgerReads: ReadsAt = {
  '/ledger/:breakdownId': ({ breakdownId = '' }) => [sheetQuery(breakdownId)],
};
