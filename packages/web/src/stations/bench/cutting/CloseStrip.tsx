import type { Cutting } from '@zabrik/contract';
import { formatMass, grams, inGrams } from '@zabrik/core';
import { useState } from 'react';
import { Button } from '../../../kit/Button.tsx';
import { NumField } from '../../../kit/NumField.tsx';
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
  inputs,
}: {
  readonly closing: ReturnType<typeof useCuttingClose>;
  readonly startMg: number;
  readonly inputs: Cutting['inputs'];
}) {
  const [reason, setReason] = useState('');
  const [lefts, setLefts] = useState<Readonly<Record<string, number>>>({});
  // of two lots that are not alike only who weighed them knows what is left of which
  const unlike = new Set(inputs.map((i) => i.name)).size > 1;
  const leftMg = inputs.reduce((sum, i) => sum + (lefts[i.lotId] ?? 0), 0);
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
      {verdict === 'short' && unlike && (
        <fieldset className="mb-2 flex flex-wrap items-end gap-3 border-0 p-0" aria-label="What is left of each">
          {inputs.map((i) => (
            <NumField
              key={i.lotId}
              label={`Left of ${i.name} ${i.code}`}
              unit="g"
              max={inGrams(i.massMg)}
              decimals={0}
              value={lefts[i.lotId] === undefined ? null : inGrams(lefts[i.lotId] ?? 0)}
              onValue={(g) => setLefts((before) => ({ ...before, [i.lotId]: grams(g) }))}
            />
          ))}
          <span className="pb-2.5 text-[15px]">
            {formatMass(leftMg)} of {formatMass(unaccountedMg)} said: each went in by its own weight.
          </span>
        </fieldset>
      )}
      <div className="flex flex-wrap items-center gap-3">
        {verdict === 'short' && (
          <Button
            size="bench"
            variant="plain"
            disabled={closing.pending || (unlike && Math.abs(unaccountedMg - leftMg) > allowedMg)}
            onClick={() =>
              closing.finish(
                unlike
                  ? {
                      leftMg,
                      left: inputs.map((i) => ({ lotId: i.lotId, massMg: lefts[i.lotId] ?? 0 })),
                      unbalancedReason: null,
                    }
                  : { leftMg: unaccountedMg, unbalancedReason: null },
              )
            }
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
          variant="strong"
          disabled={reason.trim() === '' || closing.pending}
          onClick={() => closing.finish({ leftMg: 0, unbalancedReason: reason.trim() })}
        >
          Finish all the same
        </Button>
      </div>
    </section>
  );
}
