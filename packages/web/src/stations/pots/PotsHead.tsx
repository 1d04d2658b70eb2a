import type { ReactNode } from 'react';
import { useLocation } from 'react-router';
import { StationHead } from '../../parts/StationHead.tsx';

const rooms = [
  { to: '/pots', name: 'Make' },
  { to: '/pots/stove', name: 'At the stove' },
  { to: '/pots/cooling', name: 'Cooling' },
  { to: '/pots/reckon', name: 'Reckon' },
] as const;

/** The head of every screen of the pots: what can be made, what is on, what cools, what can be reckoned. */
export function PotsHead({ children }: { readonly children?: ReactNode }) {
  const { pathname } = useLocation();
  const here = [...rooms].reverse().find((r) => pathname.startsWith(r.to))?.to;
  return (
    <StationHead name="Pots" rooms={rooms} here={here}>
      {children}
    </StationHead>
  );
}
