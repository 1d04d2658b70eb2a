/** The end of a cutting: what is missing is asked about first, and nothing closes while something waits on this device. */
import { useMutation } from '@tanstack/react-query';
import type { Ask } from '@zabrik/contract';
import { type Balance, judgeCutting, type ScaleSpec } from '@zabrik/core';
import { useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { call } from '../../../app/api.ts';
import { api } from '../../../app/endpoints.ts';
import { useHouse } from '../../../app/queries.ts';
import type { AtBoard } from './useCutting.ts';

const KITCHEN_SCALES: readonly [ScaleSpec, ...ScaleSpec[]] = [
  { accuracyClass: 'III', intervalMg: 1_000, maxMg: 15_000_000 },
];
type CloseBody = Ask<typeof api.cutting.close>['body'];

export function useCuttingClose({ cutting, state, waiting }: AtBoard) {
  const { data: house } = useHouse();
  const navigate = useNavigate();
  const [asking, setAsking] = useState(false);
  const [wanted, setWanted] = useState<CloseBody | undefined>(undefined);
  const clingMg = state.setup?.kind === 'portions' ? state.setup.clingMg : 0;
  const [first, ...others] = house?.scales ?? [];
  const balance: Balance = judgeCutting(
    cutting.startMg,
    0,
    state.weights,
    first === undefined ? KITCHEN_SCALES : [first, ...others],
    clingMg,
  );
  const close = useMutation({
    mutationFn: (body: CloseBody) => call(api.cutting.close, { params: { cuttingId: cutting.id }, body }),
    onSuccess: () => setAsking(false),
  });
  const cancel = useMutation({
    mutationFn: () => call(api.cutting.cancel, { params: { cuttingId: cutting.id }, body: {} }),
    onSuccess: () => void navigate('/bench/cut'),
  });
  const { mutate, isPending } = close;
  useEffect(() => {
    if (wanted === undefined || waiting > 0 || isPending) return;
    setWanted(undefined);
    mutate(wanted);
  }, [wanted, waiting, isPending, mutate]);
  return {
    balance,
    asking: asking && balance.verdict !== 'balanced',
    /** Wanted, and waiting for what this device still has to send. */
    held: wanted !== undefined && waiting > 0,
    pending: isPending || cancel.isPending,
    error: close.error ?? cancel.error,
    ask: (): void => {
      if (balance.verdict === 'balanced') setWanted({ leftMg: 0, left: null, unbalancedReason: null });
      else setAsking(true);
    },
    finish: (body: CloseBody): void => setWanted(body),
    goOn: (): void => setAsking(false),
    putBack: (): void => cancel.mutate(),
  };
}
