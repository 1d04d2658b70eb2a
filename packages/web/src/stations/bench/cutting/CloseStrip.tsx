import { formatMass } from '@zabrik/core';
import { useState } from 'react';
import { Button } from '../../../parts/Button.tsx';
import { ReasonRow } from '../ReasonRow.tsx';
import type { useCuttingClose } from './useCuttingClose.ts';

const reasons = {
  short: ['The end was not weighed', 'Skin or sinew came off', 'Dropped'],
  gain: ['A tray was not tared', 'Something was added'],
} as const;

/** Asked only when what was weighed is not what lay there: put the rest back, weigh on, or say why. */
export function CloseStrip({
  closing,
  startMg,
}: {
  readonly closing: ReturnType<typeof useCuttingClose>;
  readonly startMg: number;
}) {
  const [reason, setReason] = useState('');
  const { verdict, unaccountedMg, allowedMg } = closing.balance;
  if (!closing.asking || verdict === 'balanced') return null;
  return (
    <section aria-label="Not all is weighed" className="border-t-4 border-attention bg-[#fff7e0] px-4 py-3">
      <p className="mb-2 text-[17px]">
        <strong className="font-head">
          {verdict === 'gain'
            ? `What was weighed is ${formatMass(-unaccountedMg)} more than lay there.`
            : `${formatMass(unaccountedMg)} of ${formatMass(startMg)} is not weighed.`}
        </strong>{' '}
        {verdict === 'short' && `Drip and scale explain ${formatMass(allowedMg)}.`}
      </p>
      <div className="flex flex-wrap items-center gap-3">
        {verdict === 'short' && (
          <Button
            size="bench"
            look="plain"
            disabled={closing.pending}
            onClick={() => closing.finish({ leftMg: unaccountedMg, unbalancedReason: null })}
          >
            The rest goes back uncut
          </Button>
        )}
        <ReasonRow usual={reasons[verdict]} reason={reason} onReason={setReason} />
        <Button size="bench" onClick={closing.goOn}>
          Weigh on
        </Button>
        <Button
          size="bench"
          look="strong"
          disabled={reason.trim() === '' || closing.pending}
          onClick={() => closing.finish({ leftMg: 0, unbalancedReason: reason.trim() })}
        >
          Finish all the same
        </Button>
      </div>
    </section>
  );
}
