import { type Balance, formatMass, type PlanStage } from '@zabrik/core';
import { useState } from 'react';
import { Button } from '../../kit/Button.tsx';
import { ReasonRow } from './ReasonRow.tsx';

interface Props {
  readonly balance: Balance;
  readonly stage: PlanStage;
  readonly missingPasses: readonly { readonly step: string; readonly done: number; readonly wanted: number }[];
  /** They were made and not counted one by one: they are counted now. */
  readonly onPasses: () => void;
  readonly pending: boolean;
  readonly onClose: (reason: string) => void;
  readonly onBack: () => void;
  /** The way to say what was joined: a gain that has a reason is a weight, not an error. */
  readonly onJoined: () => void;
}

const reasons = {
  short: ['A piece was not weighed', 'Meat was dropped', 'Stood long: more drip'],
  gain: ['Ice or water on the pieces', 'A tray was not tared', 'The start was weighed wrong'],
  balanced: ['Checked by a second person, not counted', 'Not for eating as it is'],
} as const;

/** Asked only when the pieces do not add up: what is missing, what it may be, and why it is closed all the same. */
export function CloseBar({ balance, stage, missingPasses, pending, onClose, onBack, onPasses, onJoined }: Props) {
  const [reason, setReason] = useState('');
  const likeliest = stage.pieces.find((piece) => piece.id === balance.likeliestPieceId);
  const gap = formatMass(Math.abs(balance.unaccountedMg));
  return (
    <section
      aria-label={balance.verdict === 'balanced' ? 'Passes are missing' : 'The balance does not hold'}
      className="border-t-4 border-attention bg-[#fff7e0] px-4 py-3"
    >
      {missingPasses.map((m) => (
        <p key={m.step} className="mb-2 text-[17px]">
          <strong className="font-head">
            {m.done} of {m.wanted} passes counted.
          </strong>{' '}
          {m.step}.
        </p>
      ))}
      {balance.verdict !== 'balanced' && (
        <p className="mb-2 text-[17px]">
          <strong className="font-head">
            {balance.verdict === 'gain'
              ? `The pieces weigh ${gap} more than the animal did.`
              : `${gap} is not accounted for.`}
          </strong>{' '}
          {balance.verdict === 'gain'
            ? `The scale explains ${formatMass(balance.scaleErrorMg)}. A weight taken twice, a tray not tared, or water?`
            : `Drip and scale explain ${formatMass(balance.allowedMg)}.${likeliest === undefined ? '' : ` Not weighed yet, and about that heavy: ${likeliest.name}.`}`}
        </p>
      )}
      <div className="flex flex-wrap items-center gap-3">
        <ReasonRow usual={reasons[balance.verdict]} reason={reason} onReason={setReason} />
        {missingPasses.length > 0 && (
          <Button size="bench" variant="plain" disabled={pending} onClick={onPasses}>
            All passes were made
          </Button>
        )}
        {balance.verdict === 'gain' && (
          <Button size="bench" onClick={onJoined}>
            Something was joined
          </Button>
        )}
        <Button size="bench" onClick={onBack}>
          Weigh on
        </Button>
        <Button
          size="bench"
          variant="strong"
          disabled={reason.trim() === '' || pending}
          onClick={() => onClose(reason.trim())}
        >
          Close all the same
        </Button>
      </div>
    </section>
  );
}
