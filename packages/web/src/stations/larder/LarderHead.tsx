import type { ReactNode } from 'react';
import { NavLink } from 'react-router';

const rooms = [
  { to: '/larder', name: 'On hand' },
  { to: '/larder/tubs', name: 'Tubs' },
  { to: '/larder/count', name: 'Stock-take' },
  { to: '/larder/labels', name: 'Labels' },
] as const;

/** The head of every larder screen: what the larder can show, and what this one has to say. */
export function LarderHead({ children }: { readonly children?: ReactNode }) {
  return (
    <div className="no-print flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-line bg-sheet px-4 pt-2">
      <h1 className="sr-only">Larder</h1>
      <nav aria-label="Larder" className="flex gap-1">
        {rooms.map(({ to, name }) => (
          <NavLink
            key={to}
            to={to}
            end={to !== '/larder'}
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
      {children}
    </div>
  );
}
