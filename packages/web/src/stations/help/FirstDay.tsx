import { useQueryClient } from '@tanstack/react-query';
import type { Me } from '@zabrik/contract';
import { useState } from 'react';
import { Link, useLocation } from 'react-router';
import { useCommand } from '../../app/command.ts';
import { api } from '../../app/endpoints.ts';
import { Button } from '../../kit/Button.tsx';
import { firstSteps } from './firstSteps.ts';

/** What to touch on the first day, over every screen until its person has had enough of it: for now, or for good. */
export default function FirstDay({ me }: { readonly me: Me }) {
  const client = useQueryClient();
  const { pathname } = useLocation();
  const [later, setLater] = useState(false);
  const [open, setOpen] = useState(false);
  const over = useCommand(api.access.firstDayOver, {
    onDone: () => client.setQueryData(['me'], { ...me, firstDay: false }),
  });
  if (later) return null;
  const steps = firstSteps[me.person.role];
  return (
    <aside aria-label="Your first day" className="no-print border-b border-line-strong bg-sheet px-4 py-1.5">
      <div className="flex flex-wrap items-center gap-x-4">
        <button
          type="button"
          aria-expanded={open}
          className="min-h-11 font-head font-semibold underline"
          onClick={() => setOpen(!open)}
        >
          Your first day: {steps.length} things to touch
        </button>
        <span className="ml-auto flex gap-2">
          <Button onClick={() => setLater(true)}>Not now</Button>
          <Button disabled={over.pending} onClick={() => over.send({ body: {} })}>
            I know my way
          </Button>
        </span>
      </div>
      {open && (
        <ol className="grid gap-1 pb-2">
          {steps.map(({ to, name, says }, i) => (
            <li key={name} className="flex flex-wrap items-baseline gap-x-2">
              <Link
                to={to}
                className="flex min-h-11 items-center font-semibold underline"
                aria-current={pathname === to ? 'page' : undefined}
              >
                {i + 1}. {name}
              </Link>
              <span className="text-ink-soft">{says}.</span>
            </li>
          ))}
        </ol>
      )}
      {over.error !== null && <p className="pb-2 text-alarm">{over.error.message}</p>}
    </aside>
  );
}
