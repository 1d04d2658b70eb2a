import { useQuery } from '@tanstack/react-query';
import { Bell } from 'lucide-react';
import { useState } from 'react';
import { call } from '../../app/api.ts';
import { api } from '../../app/endpoints.ts';
import { useRinging } from '../../app/ring.ts';
import { clockAhead, countWords, useTick } from '../../app/timers.ts';

/** What rings in the kitchen, at a tablet where nobody is signed in: seen and heard there, stopped by whoever signs in. */
export function DoorBells({ slug }: { readonly slug: string }) {
  const [quiet, setQuiet] = useState<ReadonlySet<string>>(new Set());
  const { data } = useQuery({
    queryKey: ['bells', slug],
    queryFn: async () => {
      const askedAt = Date.now();
      const { at, bells } = await call(api.pots.bells, { params: { slug } });
      return { bells, aheadMs: clockAhead(askedAt, Date.now(), Date.parse(at)) };
    },
    // nobody is told by events here; without the server what was heard last still rings
    refetchInterval: 10_000,
    staleTime: 0,
  });
  const bells = data?.bells ?? [];
  const now = useTick(bells.length > 0) + (data?.aheadMs ?? 0);
  const over = bells.filter((b) => Date.parse(b.dueAt) <= now);
  useRinging(over.some((b) => !quiet.has(b.id)));
  if (over.length === 0) return null;
  return (
    <div role="alert" className="grid gap-px bg-ink" data-testid="ringing">
      {over.map((b) => (
        <div key={b.id} className="flex min-h-14 items-center gap-4 bg-attention px-4 text-ink">
          <Bell size={24} aria-hidden="true" />
          <span className="min-w-0 flex-1 truncate text-lg">
            <strong className="font-head">{b.label}</strong> is over · {b.title}
          </span>
          <span className="figure text-xl" aria-hidden="true">
            {countWords(Date.parse(b.dueAt) - now)}
          </span>
          {quiet.has(b.id) ? (
            <span>stopped by whoever signs in</span>
          ) : (
            <button
              type="button"
              className="min-h-11 rounded-md border-2 border-ink bg-white px-5 font-head font-semibold"
              onClick={() => setQuiet(new Set([...quiet, b.id]))}
            >
              Quiet here
            </button>
          )}
        </div>
      ))}
    </div>
  );
}
