import type { ReactNode } from 'react';
import { Link, useLocation } from 'react-router';

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
    <div className="no-print flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-line bg-sheet px-4 pt-2">
      <h1 className="sr-only">Pots</h1>
      <nav aria-label="Pots" className="flex gap-1">
        {rooms.map(({ to, name }) => (
          <Link
            key={to}
            to={to}
            aria-current={to === here ? 'page' : undefined}
            className="flex min-h-11 items-center border-b-[3px] border-transparent px-3 font-head text-[17px] font-semibold text-ink-soft hover:border-line-strong aria-[current=page]:border-ink aria-[current=page]:text-ink"
          >
            {name}
          </Link>
        ))}
      </nav>
      {children}
    </div>
  );
}
