import { Button } from '../../kit/Button.tsx';
import { OneField, someWords } from '../../kit/OneField.tsx';
import type { BenchFlow } from './useBench.ts';

/** What should have come before this piece, said before the harm is done: one touch says it is done, one skips it, and a note may follow. */
export function GuardStrip({ flow }: { readonly flow: BenchFlow }) {
  const { guard, guardsLeft, skipped } = flow.steps;
  if (guard === undefined)
    return skipped === undefined ? null : (
      <OneField
        formLabel="Note to skipping"
        formClass="flex w-full shrink-0 items-center gap-2 rounded-plate border-2 border-line-strong bg-sheet px-3 py-1.5"
        before={<span className="truncate text-[15px]">{skipped.step.title}: skipped.</span>}
        aria-label="Why it was skipped"
        placeholder="why, if you like"
        maxLength={120}
        className="min-w-0! flex-1"
        again
        read={someWords}
        onSend={(note) => flow.steps.noteSkipped(note)}
        send="Keep"
      />
    );
  return (
    <section
      aria-label="Before this piece"
      role="alert"
      className="flex w-full shrink-0 items-center gap-2 rounded-plate border-2 border-ink bg-attention py-1.5 pr-1.5 pl-3"
    >
      <p className="min-w-0 flex-1 font-head text-[16px] leading-tight font-bold">
        {guard.warn}
        {guardsLeft > 1 && (
          <span className="block font-text text-[13px] font-normal">{guardsLeft - 1} more to answer</span>
        )}
      </p>
      <Button
        size="bench"
        variant="strong"
        hotkey="g"
        className="px-3"
        onClick={() => flow.steps.answerGuard('done', null)}
      >
        Done
      </Button>
      <Button
        size="bench"
        variant="plain"
        hotkey="k"
        className="px-3"
        onClick={() => flow.steps.answerGuard('skipped', null)}
      >
        Skip
      </Button>
    </section>
  );
}
