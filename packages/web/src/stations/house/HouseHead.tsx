import type { ReactNode } from 'react';
import { Link, useLocation } from 'react-router';
import { useMay } from '../../app/queries.ts';
import { Empty } from '../../kit/Notice.tsx';
import { StationHead } from '../../kit/StationHead.tsx';

const rooms = [
  { to: '/house', name: 'Kitchen' },
  { to: '/house/people', name: 'People' },
  { to: '/house/things', name: 'Things' },
  { to: '/house/devices', name: 'Devices' },
  { to: '/house/worth', name: 'Worth' },
  { to: '/house/programs', name: 'Programs' },
  { to: '/limits', name: 'Limits and cautions' },
  { to: '/server', name: 'Server' },
  { to: '/house/changes', name: 'Changes' },
];

/** The head of every screen of the house: chefs alone have it. */
export function HouseHead() {
  const { pathname } = useLocation();
  if (!useMay('house.people')) return null;
  return <StationHead name="House" rooms={rooms} here={pathname} />;
}

/** What is under the house is read and changed by chefs; anybody else who comes by its address is told so. */
export function ForChefs({ children }: { readonly children: ReactNode }) {
  return useMay('house.people') ? (
    children
  ) : (
    <Empty title="The house is the chefs’ business">
      Your own PIN is changed on{' '}
      <Link className="underline" to="/server">
        the page of the server
      </Link>
      .
    </Empty>
  );
}
