import type { EndpointId } from '@zabrik/contract';
import { formatMass } from '@zabrik/core';
import { Link } from 'react-router';
import { useOutbox, useStuck, type Waiting } from '../app/outbox.ts';
import { Notice } from '../kit/Notice.tsx';
import { RefusedHere } from './RefusedHere.tsx';

/** Mass a command is about, where it has one. */
export const massOf = ({ body }: Waiting): number | undefined =>
  typeof body === 'object' && body !== null && 'massMg' in body && typeof body.massMg === 'number'
    ? body.massMg
    : undefined;

/** Its mass, where its words do not say it already. */
const massSaid = (w: Waiting): string => {
  const mg = massOf(w);
  const words = mg === undefined ? '' : formatMass(mg);
  return words === '' || w.says.includes(words) ? '' : `, ${words}`;
};

/** What was done on this tablet and is not in the records yet, and what they refused, where it was done. */
export function WaitsHere({ of, className = '' }: { readonly of: readonly Waiting[]; readonly className?: string }) {
  // what is only on its way is not spoken of: it would flash
  const stuck = useStuck();
  const waiting = stuck ? of.filter((w) => w.refused === undefined) : [];
  return (
    <>
      {waiting.length > 0 && (
        <div className={className}>
          <Notice tone="attention">
            <ul data-testid="waits-here">
              {waiting.map((w) => (
                <li key={w.key}>
                  <strong>{w.says}</strong>
                  {massSaid(w)}
                </li>
              ))}
            </ul>
            Kept on this tablet, and{' '}
            <Link className="underline" to="/waiting">
              sent when the kitchen’s server is back
            </Link>
            .
          </Notice>
        </div>
      )}
      <RefusedHere refused={of.filter((w) => w.refused !== undefined)} className={className} />
    </>
  );
}

/** The same, of what was said to some endpoints. */
export function WaitsHereOf({ ids, className }: { readonly ids: readonly EndpointId[]; readonly className?: string }) {
  const outbox = useOutbox();
  return (
    <WaitsHere
      of={outbox.filter((w) => ids.includes(w.endpoint))}
      {...(className === undefined ? {} : { className })}
    />
  );
}
