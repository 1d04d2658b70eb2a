import { lazy, Suspense } from 'react';
import { useHouse } from '../app/queries.ts';
import type { Props } from './SimulatedHand.tsx';

// no kitchen of its own ever needs it
const Hand = lazy(() => import('./SimulatedHand.tsx'));

/** What loads the simulated scale, where the server says the bench is simulated: in the demo and the tests. */
export function SimulatedPan(props: Props) {
  return useHouse().data?.simulated === true ? (
    <Suspense fallback={null}>
      <Hand {...props} />
    </Suspense>
  ) : null;
}
