import type { ReactNode } from 'react';
import { useLocation } from 'react-router';
import { StationHead } from '../../kit/StationHead.tsx';

const rooms = [
  { to: '/larder', name: 'On hand' },
  { to: '/larder/tubs', name: 'Tubs' },
  { to: '/larder/count', name: 'Stock-take' },
  { to: '/larder/labels', name: 'Labels' },
] as const;

/** The head of every larder screen: what the larder can show, and what this one has to say. */
export function LarderHead({ children }: { readonly children?: ReactNode }) {
  const { pathname } = useLocation();
  // a lot that is open belongs to what is on hand
  const here = rooms.find((r) => r.to === pathname)?.to ?? '/larder';
  return (
    <StationHead name="Larder" rooms={rooms} here={here}>
      {children}
    </StationHead>
  );
}
