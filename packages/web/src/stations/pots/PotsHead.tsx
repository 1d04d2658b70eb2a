import type { ReactNode } from 'react';
import { useLocation } from 'react-router';
import { StationHead } from '../../kit/StationHead.tsx';
import { useCoolings, useHouseLimits } from './potQueries.ts';

const rooms = [
  { to: '/pots', name: 'Make' },
  { to: '/pots/stove', name: 'At the stove' },
  { to: '/pots/cooling', name: 'Cooling' },
  { to: '/pots/plates', name: 'Plates' },
  { to: '/pots/calculator', name: 'Calculator' },
] as const;

/** The head of every screen of the pots: what can be made, what is on, what cools, what can be worked out. */
export function PotsHead({ children }: { readonly children?: ReactNode }) {
  const { pathname } = useLocation();
  const open = useCoolings().data?.open.length ?? 0;
  useHouseLimits(); // read while there is network: a pot is cooled and logged without it too
  const here = [...rooms].reverse().find((r) => pathname.startsWith(r.to))?.to;
  return (
    <StationHead
      name="Pots"
      rooms={rooms.map((r) => (r.to === '/pots/cooling' && open > 0 ? { ...r, figure: `${open} open` } : r))}
      here={here}
    >
      {children}
    </StationHead>
  );
}
