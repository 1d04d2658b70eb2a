import { useQuery } from '@tanstack/react-query';
import type { Ask, WholeRun } from '@zabrik/contract';
import { type RunEvent, type RunEventBody, type RunState, readRun, type UseStep } from '@zabrik/core';
import { useMemo } from 'react';
import { v7 as uuidv7 } from 'uuid';
import { addressOf, call } from '../../app/api.ts';
import { api } from '../../app/endpoints.ts';
import { keep, useWaitingAbout, type Waiting } from '../../app/outbox.ts';
import { useMe } from '../../app/queries.ts';

export interface AtStove {
  readonly run: WholeRun;
  readonly steps: readonly UseStep[];
  readonly state: RunState;
  readonly refused: readonly Waiting[];
  /** What came out is written down and on its way; nothing more is done to this batch. */
  readonly finishing: boolean;
  /** Writes something down: at once on the screen, then on disk, then to the server. */
  readonly say: (body: RunEventBody, says: string) => void;
}

type Body = Ask<typeof api.pots.event>['body'];

/** A batch as it stands on this device: what the server has, and on top what waits here to be sent. */
export function useStove(runId: string) {
  const mine = useWaitingAbout(runId);
  const { data: me } = useMe();
  const by = me?.person.name ?? '';
  const query = useQuery({
    queryKey: ['runs', 'one', runId],
    queryFn: () => call(api.pots.read, { params: { runId } }),
  });
  const run = query.data;
  const stove = useMemo((): AtStove | undefined => {
    if (run === undefined) return undefined;
    const known = new Set(run.events.map((e) => e.id));
    const unsent = mine.filter((w) => w.refused === undefined && !known.has(w.key) && w.url.endsWith('/events'));
    const events: RunEvent[] = [
      ...(run.events as readonly RunEvent[]),
      ...unsent.map((w) => {
        const { at, body } = w.body as Body;
        return { id: w.key, at, by, body: body as RunEventBody };
      }),
    ];
    return {
      run,
      steps: run.use.steps,
      state: readRun(run.use.steps, events),
      refused: mine.filter((w) => w.refused !== undefined),
      finishing: mine.some((w) => w.refused === undefined && w.url.endsWith('/finish')),
      say: (body, says) => {
        void keep({
          key: uuidv7(),
          url: addressOf(api.pots.event, { params: { runId } }),
          body: { at: new Date().toISOString(), body },
          about: runId,
          says,
        });
      },
    };
  }, [run, runId, mine, by]);
  return { query, stove };
}
