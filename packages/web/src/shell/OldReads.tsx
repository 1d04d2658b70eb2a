import { type Query, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Refused } from '../app/api.ts';
import { dayAndTime } from '../app/dates.ts';
import { useConnected } from '../app/live.ts';
import { Button } from '../kit/Button.tsx';

interface Old {
  /** Of when the oldest read on this screen is. */
  readonly at: number;
  readonly why: string | undefined;
}

const isOld = (query: Query): boolean =>
  query.getObserversCount() > 0 &&
  query.state.data !== undefined &&
  (query.state.status === 'error' || query.state.fetchFailureCount > 1);

const oldOf = (queries: readonly Query[]): Old | undefined => {
  const old = queries.filter(isOld);
  if (old.length === 0) return undefined;
  const refused = old.map((q) => q.state.error).find((e) => e instanceof Refused);
  return { at: Math.min(...old.map((q) => q.state.dataUpdatedAt)), why: refused?.message };
};

/**
 * Says of every screen, in one place, when what stands on it could not be read again: of when it is, and why. A list that stands still
 * without a word is taken for the truth.
 */
export function OldReads() {
  const client = useQueryClient();
  const connected = useConnected();
  const [old, setOld] = useState<Old>();
  useEffect(() => {
    const cache = client.getQueryCache();
    const look = (): void => {
      const now = oldOf(cache.getAll());
      setOld((before) => (before?.at === now?.at && before?.why === now?.why ? before : now));
    };
    look();
    return cache.subscribe(look);
  }, [client]);
  if (old === undefined) return null;
  return (
    <div
      role="status"
      data-testid="old-reads"
      className="no-print flex flex-wrap items-center gap-x-4 gap-y-1 border-b-2 border-attention bg-[#fff7e0] px-4 py-1.5 text-[15px]"
    >
      <span>
        What stands here was read {dayAndTime(new Date(old.at).toISOString())} and could not be read again
        {old.why !== undefined ? `: ${old.why}` : connected ? '.' : ': no connection to the kitchen’s server.'}
      </span>
      <Button
        className="h-10"
        onClick={() => void client.refetchQueries({ type: 'active', predicate: (query) => isOld(query) })}
      >
        Read it again
      </Button>
    </div>
  );
}
