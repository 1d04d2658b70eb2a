import { useLocation } from 'react-router';
import { useMay } from '../../app/queries.ts';
import { StationHead } from '../../kit/StationHead.tsx';

const rooms = [
  { to: '/house', name: 'Kitchen' },
  { to: '/house/people', name: 'People' },
  { to: '/house/things', name: 'Things' },
  { to: '/house/worth', name: 'Worth' },
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
