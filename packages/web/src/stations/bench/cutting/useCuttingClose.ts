/** The end of a cutting: what is missing is asked about first. It goes out behind the weights that still wait on this device. */
import type { Ask } from '@zabrik/contract';
import { type Balance, judgeCutting, type ScaleSpec } from '@zabrik/core';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useCommand } from '../../../app/command.ts';
import { api } from '../../../app/endpoints.ts';
import { useHouse } from '../../../app/queries.ts';
import type { AtBoard } from './useCutting.ts';

const KITCHEN_SCALES: readonly [ScaleSpec, ...ScaleSpec[]] = [
  { accuracyClass: 'III', intervalMg: 1_000, maxMg: 15_000_000 },
];
type CloseBody = Ask<typeof api.cutting.close>['body'];

export function useCuttingClose({ cutting, state }: AtBoard) {
  const { data: house } = useHouse();
  const navigate = useNavigate();
  const [asking, setAsking] = useState(false);
  const clingMg = state.setup?.kind === 'portions' ? state.setup.clingMg : 0;
  const [first, ...others] = house?.scales ?? [];
  const balance: Balance = judgeCutting(
    cutting.startMg,
    0,
    state.weights,
    first === undefined ? KITCHEN_SCALES : [first, ...others],
    clingMg,
  );
  const close = useCommand(api.cutting.close, {
    spoken: () => ({ says: `${cutting.name} cut, closed` }),
    onDone: () => setAsking(false),
    onKept: () => setAsking(false),
  });
  const cancel = useCommand(api.cutting.cancel, { onDone: () => void navigate('/bench/cut') });
  const finish = (body: CloseBody): void => close.send({ params: { cuttingId: cutting.id }, body });
  return {
    balance,
    asking: asking && balance.verdict !== 'balanced',
    pending: close.pending || cancel.pending,
    error: close.error ?? cancel.error,
    ask: (): void => {
      if (balance.verdict === 'balanced') finish({ leftMg: 0, left: null, unbalancedReason: null });
      else setAsking(true);
    },
    finish,
    goOn: (): void => setAsking(false),
    putBack: (): void => cancel.send({ params: { cuttingId: cutting.id }, body: {} }),
  };
}
