import type { Ask, Cooling } from '@zabrik/contract';
import { judgeLog, type Limit } from '@zabrik/core';
import { useMemo } from 'react';
import { api } from '../../app/endpoints.ts';
import { useOutbox, type Waiting } from '../../app/outbox.ts';
import { useMe } from '../../app/queries.ts';
import { useCoolings, useHouseLimits } from './potQueries.ts';

type Begun = Ask<typeof api.pots.startCooling>['body'];

const begins = (w: Waiting): boolean => w.endpoint === api.pots.startCooling.id;

/** The logs as they stand on this device: what the server has, and those begun here that it has not got yet. */
export function useLogs() {
  const query = useCoolings();
  const limits = useHouseLimits().data?.limits;
  const outbox = useOutbox();
  const by = useMe().data?.person.name ?? '';
  const { open = [], closed = [] } = query.data ?? {};
  const here = useMemo(
    () =>
      outbox.flatMap((w): Cooling[] => {
        if (!begins(w) || w.refused !== undefined) return [];
        const { at, centiC, source, limitId, lotId: _, batchId = null, ...begun } = w.body as Begun;
        const limit = limits?.find((l) => l.limit.id === limitId)?.limit ?? null;
        return [
          {
            ...begun,
            batchId,
            state: 'open',
            lot: null,
            limit,
            readings: [{ id: w.key, at, centiC, source, by }],
            verdict: judgeLog(limit as Limit | null, [{ at, C: centiC / 100 }], new Date().toISOString()),
            outcome: null,
            by,
            startedAt: at,
            closedAt: null,
          },
        ];
      }),
    [outbox, limits, by],
  );
  return {
    query,
    open: [...open, ...here.filter((c) => !open.some((o) => o.id === c.id))],
    closed,
    refused: outbox.filter((w) => begins(w) && w.refused !== undefined),
  };
}
