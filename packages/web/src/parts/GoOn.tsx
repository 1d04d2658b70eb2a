import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { WaitingStage } from '@zabrik/contract';
import { useNavigate } from 'react-router';
import { call } from '../app/api.ts';
import { useCommand } from '../app/command.ts';
import { api } from '../app/endpoints.ts';
import { useMay } from '../app/queries.ts';
import { Button } from '../kit/Button.tsx';
import { Confirm } from './Confirm.tsx';
import { restWords } from './restWords.ts';

/** Pieces that wait between two stages of a plan. */
export const waitingQuery = { queryKey: ['lots', 'waiting'], queryFn: () => call(api.bench.waiting, {}) } as const;

/** Takes what waits on to its next stage, on the bench. */
export function useGoOn() {
  const navigate = useNavigate();
  const client = useQueryClient();
  const goOn = useCommand(api.bench.goOn, {
    onDone: (breakdown) => {
      client.setQueryData(['breakdowns', 'one', breakdown.id], breakdown);
      void navigate(`/bench/${breakdown.id}`);
    },
  });
  return {
    pending: goOn.pending,
    error: goOn.error,
    start: (stage: WaitingStage): void =>
      goOn.send({
        body: { lots: stage.lots.map((l) => ({ lotId: l.lotId, massMg: null })), way: null, confirmed: false },
      }),
    allTheSame: (): void => {
      if (goOn.last !== undefined) goOn.send({ body: { ...goOn.last.body, confirmed: true } });
    },
  };
}

/** What of these breakdowns waits to go on, each a touch away from its next stage. */
export function GoOn({ breakdownIds }: { readonly breakdownIds: readonly string[] }) {
  const may = useMay('bench.goOn');
  const waiting = useQuery(waitingQuery);
  const goOn = useGoOn();
  const mine = (waiting.data?.waiting ?? []).filter((w) => breakdownIds.includes(w.breakdownId));
  if (!may || mine.length === 0) return null;
  return (
    <div className="no-print mt-2">
      <div className="flex flex-wrap gap-2">
        {mine.map((stage) => {
          const rest = restWords(stage, new Date());
          return (
            <Button
              key={stage.stageId}
              size="bench"
              variant={rest.tone === 'resting' || stage.missing.length > 0 ? 'quiet' : 'strong'}
              disabled={goOn.pending}
              onClick={() => goOn.start(stage)}
            >
              Go on: {stage.stageName.toLowerCase()}
              {rest.tone !== 'none' && <span className="text-[14px] font-normal"> ({rest.text})</span>}
            </Button>
          );
        })}
      </div>
      <Confirm error={goOn.error} words="Carry on all the same" onConfirm={goOn.allTheSame} />
    </div>
  );
}
