import { NavLink } from 'react-router';
import { useMay } from '../app/queries.ts';

const rooms = [
  { to: '/receive', name: 'Deliveries' },
  { to: '/receive/prices', name: 'Prices' },
  { to: '/receive/suppliers', name: 'Suppliers' },
] as const;

/** The head of every receiving screen. */
export function ReceiveHead() {
  const mayLimits = useMay('house.limits');
  return (
    <div className="no-print flex items-center gap-1 border-b border-line bg-sheet px-4 pt-2">
      <h1 className="sr-only">Receive</h1>
      <nav aria-label="Receive" className="flex gap-1">
        {[...rooms, ...(mayLimits ? [{ to: '/limits', name: 'Limits and cautions' }] : [])].map(({ to, name }) => (
          <NavLink
            key={to}
            to={to}
            end={to === '/receive'}
            className={({ isActive }) =>
              `flex min-h-11 items-center border-b-[3px] px-3 font-head text-[17px] font-semibold ${
                isActive ? 'border-ink' : 'border-transparent text-ink-soft hover:border-line-strong'
              }`
            }
          >
            {name}
          </NavLink>
        ))}
      </nav>
    </div>
  );
}
