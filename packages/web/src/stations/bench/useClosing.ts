/** The end of a stage: asked for, explained where the balance does not hold. It goes out behind the weights that still wait on this device. */
import { useQueryClient } from '@tanstack/react-query';
import type { Ask } from '@zabrik/contract';
import { PRACTICE_REFUSED, PRACTICE_SCALE } from '@zabrik/core';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useCommand } from '../../app/command.ts';
import { api } from '../../app/endpoints.ts';
import type { Cooked } from './CookedBar.tsx';
import type { BenchState } from './useBreakdown.ts';

type CloseBody = Ask<typeof api.bench.close>['body'];

export function useClosing(state: BenchState, passesMissing: boolean, say: (words: string) => void) {
  const { breakdown, counted, balance, waiting } = state;
  const navigate = useNavigate();
  const client = useQueryClient();
  const [asking, setAsking] = useState(false);
  const [cooked, setCooked] = useState<{ readonly said: Cooked; readonly thenCool: boolean }>();
  const [askingCooked, setAskingCooked] = useState(false);
  const { send, pending, error } = useCommand(api.bench.close, {
    spoken: () => ({ says: `${breakdown.speciesName}, ${breakdown.formName}: ${state.stage.name}, closed` }),
    onDone: ({ lots }) => {
      // the list of what is to be cut still has this animal: drawn from memory it would jump under the finger a moment later
      client.removeQueries({ queryKey: ['lots', 'whole'] });
      const cooling = cooked?.thenCool === true ? lots[0] : undefined;
      void navigate(cooling === undefined ? `/ledger/${breakdown.id}` : `/pots/cooling?lot=${cooling.lotId}`);
    },
  });
  const closeFor = (unbalancedReason: string | null, said = cooked?.said): void => {
    const body: CloseBody = { unbalancedReason, ...(said === undefined ? {} : { cooked: said }) };
    send({ params: { breakdownId: breakdown.id }, body });
    if (waiting > 0)
      say(
        `${waiting} ${waiting === 1 ? 'weight is' : 'weights are'} still on this device. The stage closes once the server has them.`,
      );
  };
  return {
    /** Whether the bar that asks for a reason stands. */
    asking: asking && (balance.verdict !== 'balanced' || passesMissing),
    pending,
    error,
    closeFor: (reason: string): void => closeFor(reason),
    /** Nothing but the passes was missing. */
    closeIfHolds: (): void => {
      if (balance.verdict === 'balanced') closeFor(null);
    },
    /** Whether it is asked what this stage made of it. */
    askingCooked,
    sayCooked: (said: Cooked, thenCool: boolean): void => {
      setCooked({ said, thenCool });
      setAskingCooked(false);
      if (balance.verdict === 'balanced' && !passesMissing) closeFor(null, said);
      else setAsking(true);
    },
    /** Closes a stage that holds; asks about one that does not. */
    ask: (): void => {
      if (counted.length === 0) say('Nothing is weighed yet.');
      else if (counted.some((w) => w.scale === PRACTICE_SCALE)) say(PRACTICE_REFUSED);
      else if (state.stage.cooks !== undefined && cooked === undefined) setAskingCooked(true);
      else if (balance.verdict === 'balanced' && !passesMissing) closeFor(null);
      else setAsking(true);
    },
    weighOn: (): void => {
      setAsking(false);
      setAskingCooked(false);
      setCooked(undefined);
    },
  };
}
