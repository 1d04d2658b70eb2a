import type { ScaleReading } from '@zabrik/contract';
import { formatMass } from '@zabrik/core';
import { useScale } from '../../../app/live.ts';
import { Button } from '../../../kit/Button.tsx';
import { Field } from '../../../kit/Field.tsx';
import { RangeBar } from '../../../kit/RangeBar.tsx';
import type { Taking } from './useTake.ts';

const stateWords: Readonly<Record<ScaleReading['state'], string>> = {
  away: 'no scale: type the weight',
  moving: 'moving',
  over: 'too heavy for this scale',
  under: 'below zero: set zero',
  steady: 'steady',
};

/** The pan's figure in a strip, against what should lie there: the plate where it belongs is shaded. */
export function PanStrip({
  taking,
  target,
}: {
  readonly taking: Taking;
  readonly target: { readonly lowMg: number; readonly highMg: number; readonly mg: number } | undefined;
}) {
  const reading = useScale();
  const { typing } = taking;
  const shown = reading.state === 'away' ? '–' : formatMass(reading.netMg);
  // the wanted range is three fifths of the ruler, and never too small to be seen
  const half = target === undefined ? 1 : Math.max(target.highMg - target.lowMg, target.mg * 0.1) / 0.6;
  const inside = target !== undefined && reading.netMg >= target.lowMg && reading.netMg <= target.highMg;
  return (
    <div
      className="border-b border-line px-3 py-2"
      data-testid="pan-strip"
      data-state={reading.state}
      data-settled={reading.settled}
    >
      <p className="flex items-baseline justify-between gap-2">
        <output className={`figure text-[44px] leading-none ${inside ? 'text-portion' : ''}`} aria-live="off">
          {shown}
        </output>
        <span className="text-right text-[13px] leading-tight text-ink-soft">
          {taking.wasTaken ? 'taken' : stateWords[reading.state]}
          {target !== undefined && <span className="block">wanted {formatMass(target.mg)}</span>}
        </span>
      </p>
      {target !== undefined && (
        <div className="mt-1.5">
          <RangeBar
            low={target.lowMg}
            high={target.highMg}
            value={reading.netMg > 0 ? reading.netMg : undefined}
            from={target.mg - half}
            to={target.mg + half}
            height="thin"
          />
        </div>
      )}
      {typing !== undefined && (
        <form
          className="mt-2 flex gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            taking.takeTyped();
          }}
        >
          <Field
            autoFocus
            aria-label="Weight in grams"
            placeholder="grams"
            inputMode="decimal"
            className="figure h-12 text-xl"
            value={typing}
            onChange={(event) => taking.setTyping(event.target.value)}
          />
          <Button type="submit" variant="strong" className="h-12" disabled={taking.typedMg === undefined}>
            Take
          </Button>
          <Button className="h-12" onClick={() => taking.setTyping(undefined)}>
            No
          </Button>
        </form>
      )}
    </div>
  );
}
