import { type Remote, wrap } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import { type Planned, type PlanRequest, planPiece } from './planner.ts';

let worker: Remote<typeof planPiece> | undefined;
/** One worker for the page; where there is none (a test), the page reckons itself. */
const reckon = (request: PlanRequest): Promise<Planned> => {
  if (typeof Worker === 'undefined') return Promise.resolve(planPiece(request));
  worker ??= wrap<typeof planPiece>(new Worker(new URL('./planner.worker.ts', import.meta.url), { type: 'module' }));
  return worker(request);
};

/** The ways to cut a piece, reckoned in a worker. Until a new answer is here the last one stands; `late` says so. */
export function usePlanner(request: PlanRequest | undefined): {
  readonly planned: Planned | undefined;
  readonly late: boolean;
} {
  const asked = JSON.stringify(request);
  const [answer, setAnswer] = useState<{ readonly to: string; readonly planned: Planned } | undefined>(undefined);
  const latest = useRef(asked);
  useEffect(() => {
    latest.current = asked;
    if (asked === undefined) return;
    void reckon(JSON.parse(asked) as PlanRequest).then((planned) => {
      // an answer to what nobody asks any more is dropped
      if (latest.current === asked) setAnswer({ to: asked, planned });
    });
  }, [asked]);
  return { planned: answer?.planned, late: answer?.to !== asked };
}
