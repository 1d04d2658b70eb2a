import type { ReactNode } from 'react';
import { Link, useLocation } from 'react-router';

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
    <div className="no-print flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-line bg-sheet px-4 pt-2">
      <h1 className="sr-only">Larder</h1>
      <nav aria-label="Larder" className="flex gap-1">
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
