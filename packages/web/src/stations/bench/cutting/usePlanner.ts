import { type Remote, wrap } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import {
  type AnimalsRequest,
  countAnimals,
  type Planned,
  type PlanRequest,
  pairRolls,
  planPiece,
  type RollsRequest,
} from './planner.ts';

const here = { planPiece, countAnimals, pairRolls };
let worker: Remote<typeof here> | undefined;
/** One worker for the page; where there is none (a test), the page works it out itself. */
const computing = (): Remote<typeof here> | typeof here => {
  if (typeof Worker === 'undefined') return here;
  worker ??= wrap<typeof here>(new Worker(new URL('./planner.worker.ts', import.meta.url), { type: 'module' }));
  return worker;
};

interface Computed<A> {
  /** The last answer there was; undefined before the first. */
  readonly answer: A | undefined;
  /** What is asked now is not answered yet. */
  readonly late: boolean;
}

/** Asks for what is wanted now, compared as text; until its answer is here the last one stands. */
function useComputed<R, A>(request: R | undefined, ask: (request: R) => Promise<A>): Computed<A> {
  const asked = JSON.stringify(request);
  const [last, setLast] = useState<{ readonly to: string; readonly answer: A } | undefined>(undefined);
  const latest = useRef(asked);
  const asking = useRef(ask);
  useEffect(() => {
    latest.current = asked;
    if (asked === undefined) return;
    void asking.current(JSON.parse(asked) as R).then((answer) => {
      // an answer to what nobody asks any more is dropped
      if (latest.current === asked) setLast({ to: asked, answer });
    });
  }, [asked]);
  return { answer: last?.answer, late: last?.to !== asked };
}

/** The ways to cut a piece, worked out in a worker. */
export const usePlanner = (request: PlanRequest | undefined): Computed<Planned> =>
  useComputed(request, async (r: PlanRequest) => computing().planPiece(r));

/** How many animals of each grade, worked out in a worker. */
export const useAnimals = (request: AnimalsRequest | undefined) =>
  useComputed(request, async (r: AnimalsRequest) => computing().countAnimals(r));

/** Which loins lie together in which roll, worked out in a worker. */
export const useRolls = (request: RollsRequest) =>
  useComputed(request, async (r: RollsRequest) => computing().pairRolls(r));
