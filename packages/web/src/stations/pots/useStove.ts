import { useQuery } from '@tanstack/react-query';
import type { Ask, WholeRun } from '@zabrik/contract';
import { type RunEvent, type RunEventBody, type RunState, readRun, type UseStep } from '@zabrik/core';
import { useMemo } from 'react';
import { call } from '../../app/api.ts';
import { api } from '../../app/endpoints.ts';
import { useEventLog } from '../../app/eventLog.ts';
import { keep, type Waiting } from '../../app/outbox.ts';

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

const event = (w: Waiting, by: string): readonly RunEvent[] => {
  const { at, body } = w.body as Body;
  return [{ id: w.key, at, by, body: body as RunEventBody }];
};

/** A batch as it stands on this device: what the server has, and on top what waits here to be sent. */
export function useStove(runId: string) {
  const query = useQuery({
    queryKey: ['runs', 'one', runId],
    queryFn: () => call(api.pots.read, { params: { runId } }),
  });
  const run = query.data;
  const log = useEventLog(runId, api.pots.event.id, run?.events as readonly RunEvent[] | undefined, event);
  const stove = useMemo((): AtStove | undefined => {
    if (run === undefined) return undefined;
    return {
      run,
      steps: run.use.steps,
      state: readRun(run.use.steps, log.entries),
      refused: log.refused,
      finishing: log.waits(api.pots.finish.id),
      say: (body, says) => {
        void keep(
          api.pots.event,
          { params: { runId }, body: { at: new Date().toISOString(), body } as Body },
          { says },
        );
      },
    };
  }, [run, runId, log]);
  return { query, stove };
}
