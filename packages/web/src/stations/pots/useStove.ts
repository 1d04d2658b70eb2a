import { useQuery } from '@tanstack/react-query';
import type { Ask, WholeBatch } from '@zabrik/contract';
import { type BatchEvent, type BatchEventBody, type BatchState, type RecipeStep, readBatch } from '@zabrik/core';
import { useMemo } from 'react';
import { api } from '../../app/endpoints.ts';
import { useEventLog } from '../../app/eventLog.ts';
import { keep, type Waiting } from '../../app/outbox.ts';
import { batchQuery } from './reads.ts';

export interface AtStove {
  readonly batch: WholeBatch;
  readonly steps: readonly RecipeStep[];
  readonly state: BatchState;
  readonly refused: readonly Waiting[];
  /** What came out is written down and on its way; nothing more is done to this batch. */
  readonly finishing: boolean;
  /** Writes something down: at once on the screen, then on disk, then to the server. */
  readonly record: (body: BatchEventBody, says: string) => void;
}

type Body = Ask<typeof api.pots.event>['body'];

const event = (w: Waiting, by: string): readonly BatchEvent[] => {
  const { at, body } = w.body as Body;
  return [{ id: w.key, at, by, body: body as BatchEventBody }];
};

/** A batch as it stands on this device: what the server has, and on top what waits here to be sent. */
export function useStove(batchId: string) {
  const query = useQuery({ ...batchQuery(batchId), enabled: batchId !== '' });
  const batch = query.data;
  const log = useEventLog(batchId, api.pots.event.id, batch?.events as readonly BatchEvent[] | undefined, event);
  const stove = useMemo((): AtStove | undefined => {
    if (batch === undefined) return undefined;
    return {
      batch,
      steps: batch.recipe.steps,
      state: readBatch(batch.recipe.steps, log.entries),
      refused: log.refused,
      finishing: log.waits(api.pots.finish.id),
      record: (body, says) => {
        void keep(
          api.pots.event,
          { params: { batchId }, body: { at: new Date().toISOString(), body } as Body },
          { says },
        );
      },
    };
  }, [batch, batchId, log]);
  return { query, stove };
}
