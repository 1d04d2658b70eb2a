import { Bell } from 'lucide-react';
import { Link } from 'react-router';
import { api } from '../app/endpoints.ts';
import { keep, useOutbox } from '../app/outbox.ts';
import { useMay } from '../app/queries.ts';
import { useRinging } from '../app/ring.ts';
import { countWords, useTick, useTimers } from '../app/timers.ts';

interface Said {
  readonly kind?: string;
  readonly timerId?: string;
  readonly replaces?: string;
}

/** Rings on every screen of the house when a timer at the stove is over, until someone stops it. */
export function TimerBell() {
  const timers = useTimers();
  const outbox = useOutbox();
  const may = useMay('pots.event');
  // stopped or moved on this device, and the server does not know it yet
  const stopped = new Set(
    outbox.flatMap((w) => {
      const said = w.body as (Said & { body?: Said }) | null;
      const body = said?.body ?? said;
      return (body?.kind === 'timer-off' ? body.timerId : body?.kind === 'timer' ? body.replaces : undefined) ?? [];
    }),
  );
  const running = (timers.data?.timers ?? []).filter((t) => !stopped.has(t.id));
  const now = useTick(running.length > 0) + (timers.data?.aheadMs ?? 0);
  const over = running.filter((t) => Date.parse(t.dueAt) <= now);
  const ringing = over.length > 0;
  useRinging(ringing);
  if (!ringing) return null;
  return (
    <div role="alert" className="no-print grid gap-px bg-ink" data-testid="ringing">
      {over.map((t) => (
        <div key={t.id} className="flex min-h-14 items-center gap-4 bg-attention px-4 text-ink">
          <Bell size={24} aria-hidden="true" />
          <Link
            to={t.batchId === null ? `/bench/${t.breakdownId}` : `/pots/stove/${t.batchId}`}
            className="min-w-0 flex-1 truncate text-lg underline-offset-2 hover:underline"
          >
            <strong className="font-head">{t.label}</strong> is over · {t.title}
          </Link>
          <span className="figure text-xl" aria-hidden="true">
            {countWords(Date.parse(t.dueAt) - now)}
          </span>
          {may && (
            <button
              type="button"
              className="min-h-11 rounded-md border-2 border-ink bg-white px-5 font-head font-semibold"
              onClick={() => {
                const at = new Date().toISOString();
                const says = { says: `Timer of ${t.title} stopped` };
                const off = { kind: 'timer-off', timerId: t.id } as const;
                if (t.batchId !== null)
                  void keep(api.pots.event, { params: { batchId: t.batchId }, body: { at, body: off } }, says);
                else if (t.breakdownId !== null)
                  void keep(api.bench.event, { params: { breakdownId: t.breakdownId }, body: { ...off, at } }, says);
              }}
            >
              Stop
            </button>
          )}
        </div>
      ))}
    </div>
  );
}
