import { useQuery } from '@tanstack/react-query';
import type { Ask, Cutting } from '@zabrik/contract';
import { type CuttingEvent, type CuttingEventBody, type CuttingState, readCutting } from '@zabrik/core';
import { useMemo } from 'react';
import { v7 as uuidv7 } from 'uuid';
import { addressOf, call } from '../../../app/api.ts';
import { api } from '../../../app/endpoints.ts';
import { keep, useWaitingAbout, type Waiting } from '../../../app/outbox.ts';
import { useMe } from '../../../app/queries.ts';

export const cuttingKey = (cuttingId: string) => ['cuttings', 'one', cuttingId] as const;

export interface AtBoard {
  readonly cutting: Cutting;
  readonly state: CuttingState;
  readonly refused: readonly Waiting[];
  readonly waiting: number;
  /** Ids of weights that are on this device only. */
  readonly unsent: ReadonlySet<string>;
  /** Writes something down: at once on the screen, then on disk, then to the server. Answers its id. */
  readonly say: (body: CuttingEventBody, says: string) => string;
}

type Body = Ask<typeof api.cutting.event>['body'];

/** A cutting as it stands on this device: what the server has, and on top what waits here to be sent. */
export function useCutting(cuttingId: string) {
  const mine = useWaitingAbout(cuttingId);
  const { data: me } = useMe();
  const by = me?.person.name ?? '';
  // begun without network: the server does not know it yet, and what is shown was put here when it was begun
  const begins = mine.some((w) => w.url.endsWith('/cuttings') && w.refused === undefined);
  const query = useQuery({
    queryKey: cuttingKey(cuttingId),
    queryFn: () => call(api.cutting.read, { params: { cuttingId } }),
    enabled: !begins,
  });
  const cutting = query.data;
  const board = useMemo((): AtBoard | undefined => {
    if (cutting === undefined) return undefined;
    const known = new Set(cutting.events.map((e) => e.id));
    const unsent = mine.filter((w) => w.refused === undefined && !known.has(w.key) && w.url.endsWith('/events'));
    const events: CuttingEvent[] = [
      ...(cutting.events as readonly CuttingEvent[]),
      ...unsent.map((w) => {
        const { at, body } = w.body as Body;
        return { id: w.key, at, by, body: body as CuttingEventBody };
      }),
    ];
    return {
      cutting,
      state: readCutting(events),
      refused: mine.filter((w) => w.refused !== undefined),
      waiting: mine.filter((w) => w.refused === undefined && !known.has(w.key)).length,
      unsent: new Set(unsent.map((w) => w.key)),
      say: (body, says) => {
        const key = uuidv7();
        void keep({
          key,
          url: addressOf(api.cutting.event, { params: { cuttingId } }),
          body: { at: new Date().toISOString(), body },
          about: cuttingId,
          says,
        });
        return key;
      },
    };
  }, [cutting, cuttingId, mine, by]);
  return { query, board };
}
