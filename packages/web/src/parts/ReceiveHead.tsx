import { useLocation } from 'react-router';
import { useMay } from '../app/queries.ts';
import { StationHead } from '../kit/StationHead.tsx';

const rooms = [
  { to: '/receive', name: 'Deliveries' },
  { to: '/receive/prices', name: 'Prices' },
  { to: '/receive/suppliers', name: 'Suppliers' },
];
const limits = { to: '/limits', name: 'Limits and cautions' };

/** The head of every receiving screen. */
export function ReceiveHead() {
  const { pathname } = useLocation();
  const all = useMay('house.limits') ? [...rooms, limits] : rooms;
  // one that is open belongs to its list: a supplier to the suppliers, a delivery to the deliveries
  const here = [...all].reverse().find((r) => pathname === r.to || pathname.startsWith(`${r.to}/`))?.to;
  return <StationHead name="Receive" rooms={all} here={here} />;
}
