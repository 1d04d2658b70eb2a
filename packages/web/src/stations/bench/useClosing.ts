/** The end of a stage: asked for, explained where the balance does not hold, sent once nothing waits on this device. */
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { call } from '../../app/api.ts';
import { api } from '../../app/endpoints.ts';
import type { BenchState } from './useBreakdown.ts';

export function useClosing(state: BenchState, passesMissing: boolean, say: (words: string) => void) {
  const { breakdown, counted, balance, waiting } = state;
  const navigate = useNavigate();
  const client = useQueryClient();
  const [asking, setAsking] = useState(false);
  const [wanted, setWanted] = useState<{ readonly unbalancedReason: string | null } | undefined>(undefined);
  const { mutate, isPending, error } = useMutation({
    mutationFn: (unbalancedReason: string | null) =>
      call(api.bench.close, { params: { breakdownId: breakdown.id }, body: { unbalancedReason } }),
    onSuccess: () => {
      // the list of what is to be cut still has this animal: drawn from memory it would jump under the finger a moment later
      client.removeQueries({ queryKey: ['lots', 'whole'] });
      void navigate(`/ledger/${breakdown.id}`);
    },
  });
  useEffect(() => {
    if (wanted === undefined || waiting > 0 || isPending) return;
    setWanted(undefined);
    mutate(wanted.unbalancedReason);
  }, [wanted, waiting, isPending, mutate]);

  const closeFor = (unbalancedReason: string | null): void => {
    setWanted({ unbalancedReason });
    if (waiting > 0)
      say(
        `${waiting} ${waiting === 1 ? 'weight is' : 'weights are'} still on this device. The stage closes once the server has them.`,
      );
  };
  return {
    /** Whether the bar that asks for a reason stands. */
    asking: asking && (balance.verdict !== 'balanced' || passesMissing),
    isPending,
    error,
    closeFor,
    /** Closes a stage that holds; asks about one that does not. */
    ask: (): void => {
      if (counted.length === 0) say('Nothing is weighed yet.');
      else if (balance.verdict === 'balanced' && !passesMissing) closeFor(null);
      else setAsking(true);
    },
    weighOn: (): void => setAsking(false),
  };
}
