import type { EndpointId } from '@zabrik/contract';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { takeBack, type Waiting } from '../../app/outbox.ts';
import { Button } from '../../kit/Button.tsx';
import { WaitsHere } from '../../parts/WaitsHere.tsx';

interface Props {
  /** What waits about it. */
  readonly here: readonly Waiting[];
  /** The command that closed it. */
  readonly closing: EndpointId;
  readonly to: string;
  readonly leave: string;
  readonly children?: ReactNode;
}

/** A stage or a cutting that was closed without the server: what waits, and the way back to weighing while only this tablet knows. */
export function ClosedHere({ here, closing, to, leave, children }: Props) {
  return (
    <div className="mx-auto grid max-w-xl gap-4 p-8">
      <WaitsHere of={here} />
      {children}
      <div className="flex gap-3">
        <Button size="bench" onClick={() => void takeBack(here, closing)}>
          Weigh on
        </Button>
        <Link
          className="inline-flex min-h-14 items-center rounded-plate border-[1.5px] border-line-strong bg-white px-5 font-head text-[17px] font-semibold"
          to={to}
        >
          {leave}
        </Link>
      </div>
    </div>
  );
}
