import { useState } from 'react';
import { Button } from '../../parts/Button.tsx';
import { inputLook } from '../../parts/Field.tsx';
import type { BenchFlow } from './useBench.ts';

/** What should have come before this piece, said before the harm is done: one touch says it is done, one touch skips it. */
export function GuardStrip({ flow }: { readonly flow: BenchFlow }) {
  const [note, setNote] = useState('');
  const { guard, guardsLeft } = flow;
  if (guard === undefined) return null;
  const answer = (mark: 'done' | 'skipped'): void => {
    flow.answerGuard(mark, note.trim() === '' ? null : note.trim());
    setNote('');
  };
  return (
    <section
      aria-label="Before this piece"
      role="alert"
      className="w-full shrink-0 rounded-plate border-2 border-ink bg-attention px-3 py-2"
    >
      <p className="font-head text-[17px] leading-snug font-bold">{guard.warn}</p>
      <div className="mt-1.5 flex items-center gap-2">
        <Button size="bench" look="strong" hotkey="g" className="px-4" onClick={() => answer('done')}>
          It is done
        </Button>
        <Button size="bench" look="plain" hotkey="k" className="px-4" onClick={() => answer('skipped')}>
          Skip it
        </Button>
        <input
          aria-label="Note to skipping"
          placeholder="note, if you like"
          maxLength={120}
          className={`${inputLook} h-14 min-w-0 flex-1`}
          value={note}
          onChange={(event) => setNote(event.target.value)}
        />
        {guardsLeft > 1 && <span className="text-[13px] whitespace-nowrap">{guardsLeft - 1} more</span>}
      </div>
    </section>
  );
}
