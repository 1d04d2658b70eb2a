import { PRACTICE_SCALE } from '@zabrik/core';
import { lazy, Suspense } from 'react';
import { useChosenScale } from '../app/live.ts';
import { useHouse } from '../app/queries.ts';
import type { Props } from './SimulatedHand.tsx';

// no kitchen needs it where it does not practise
const Hand = lazy(() => import('./SimulatedHand.tsx'));

/** What loads the simulated scale: in the demo and the tests, and where somebody practises. */
export function SimulatedPan(props: Props) {
  const practice = useChosenScale() === PRACTICE_SCALE;
  return useHouse().data?.simulated === true || practice ? (
    <Suspense fallback={null}>
      <Hand {...props} />
    </Suspense>
  ) : null;
}
