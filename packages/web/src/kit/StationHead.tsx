import type { ReactNode } from 'react';
import { Link } from 'react-router';

interface Props {
  readonly name: string;
  /** `figure`: what goes on in it now, where that matters from outside. */
  readonly rooms: readonly { readonly to: string; readonly name: string; readonly figure?: string }[];
  /** The room this screen belongs to. */
  readonly here: string | undefined;
  readonly children?: ReactNode;
}

/** The head of every screen of a station that has several: what it can show, and what this one has to say. */
export function StationHead({ name, rooms, here, children }: Props) {
  return (
    <div className="no-print flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-line bg-sheet px-4 pt-2">
      <h1 className="sr-only">{name}</h1>
      <nav aria-label={name} className="flex max-w-full gap-1 overflow-x-auto">
        {rooms.map((room) => (
          <Link
            key={room.to}
            to={room.to}
            aria-current={room.to === here ? 'page' : undefined}
            className="flex min-h-11 shrink-0 items-center border-b-[3px] border-transparent px-3 font-head text-[17px] font-semibold text-ink-soft hover:border-line-strong aria-[current=page]:border-ink aria-[current=page]:text-ink"
          >
            {room.name}{' '}
            {room.figure !== undefined && (
              <span className="ml-2 rounded-full bg-ink px-2 text-[13px] leading-6 font-semibold text-white">
                {room.figure}
              </span>
            )}
          </Link>
        ))}
      </nav>
      {children}
    </div>
  );
}
