import { useQuery } from '@tanstack/react-query';
import type { Ask, Cutting } from '@zabrik/contract';
import { type CuttingEvent, type CuttingEventBody, type CuttingState, readCutting } from '@zabrik/core';
import { useMemo } from 'react';
import { v7 as uuidv7 } from 'uuid';
import { call } from '../../../app/api.ts';
import { api } from '../../../app/endpoints.ts';
import { useEventLog } from '../../../app/eventLog.ts';
import { keep, useWaitingAbout, type Waiting } from '../../../app/outbox.ts';

export const cuttingKey = (cuttingId: string) => ['cuttings', 'one', cuttingId] as const;

export interface AtBoard {
  readonly cutting: Cutting;
  readonly state: CuttingState;
  readonly refused: readonly Waiting[];
  readonly waiting: number;
  /** It was closed here, and the server does not know it yet. */
  readonly closing: boolean;
  /** Ids of weights that are on this device only. */
  readonly unsent: ReadonlySet<string>;
  /** Writes something down: at once on the screen, then on disk, then to the server. Answers its id. */
  readonly record: (body: CuttingEventBody, says: string) => string;
}

type Body = Ask<typeof api.cutting.event>['body'];

const event = (w: Waiting, by: string): readonly CuttingEvent[] => {
  const { at, body } = w.body as Body;
  return [{ id: w.key, at, by, body: body as CuttingEventBody }];
};

/** A cutting as it stands on this device: what the server has, and on top what waits here to be sent. */
export function useCutting(cuttingId: string) {
  // begun without network: the server does not know it yet, and what is shown was put here when it was begun
  const begins = useWaitingAbout(cuttingId).some((w) => w.endpoint === api.cutting.start.id && w.refused === undefined);
  const query = useQuery({
    queryKey: cuttingKey(cuttingId),
    queryFn: () => call(api.cutting.read, { params: { cuttingId } }),
    enabled: !begins,
  });
  const cutting = query.data;
  const log = useEventLog(
    cuttingId,
    api.cutting.event.id,
    cutting?.events as readonly CuttingEvent[] | undefined,
    event,
  );
  const board = useMemo((): AtBoard | undefined => {
    if (cutting === undefined) return undefined;
    return {
      cutting,
      state: readCutting(log.entries),
      refused: log.refused,
      waiting: log.waiting,
      closing: log.waits(api.cutting.close.id),
      unsent: new Set(log.unsent.map((w) => w.key)),
      record: (body, says) => {
        const key = uuidv7();
        void keep(
          api.cutting.event,
          { params: { cuttingId }, body: { at: new Date().toISOString(), body } as Body },
          { key, says },
        );
        return key;
      },
    };
  }, [cutting, cuttingId, log]);
  return { query, board };
}
