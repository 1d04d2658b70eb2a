import { useLocation } from 'react-router';
import { StationHead } from '../../kit/StationHead.tsx';

const rooms = [
  { to: '/help/figures', name: 'How figures are made' },
  { to: '/help/about', name: 'About' },
];

export function HelpHead() {
  const { pathname } = useLocation();
  return <StationHead name="Help" rooms={rooms} here={pathname} />;
}
