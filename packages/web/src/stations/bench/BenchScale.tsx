import { formatMass, PRACTICE_SCALE, shortName } from '@zabrik/core';
import { type ComponentProps, useEffect } from 'react';
import { leavePractice, useChosenScale, useScale } from '../../app/live.ts';
import { useHouse } from '../../app/queries.ts';
import { Button } from '../../kit/Button.tsx';
import { NotForMe } from '../../parts/NotForMe.tsx';
import { Pan } from '../../parts/Pan.tsx';
import { SimulatedPan } from '../../parts/SimulatedPan.tsx';
import { BenchPieces } from './BenchPieces.tsx';
import { useBenchDevice } from './benchDevice.ts';
import { unitName } from './benchWords.ts';
import { GuardStrip } from './GuardStrip.tsx';
import { Picking } from './Picking.tsx';
import { TakeBar } from './TakeBar.tsx';
import type { BenchFlow } from './useBench.ts';
import type { BenchState } from './useBreakdown.ts';

/** The only part of the bench that is drawn at every tremble of the pan. */
function LivePan(props: Omit<ComponentProps<typeof Pan>, 'reading' | 'scaleName'>) {
  const reading = useScale();
  const [, ...others] = useHouse().data?.scales ?? [];
  return <Pan reading={reading} scaleName={others.find((s) => s.id === reading.scale)?.name} {...props} />;
}

/** How many units this weight stands for, when it may be more than one. */
function CountStep({ flow, state }: { readonly flow: BenchFlow; readonly state: BenchState }) {
  const { piece, count, right } = flow;
  const inAll = piece.count * state.breakdown.animals;
  if (right !== undefined || piece.accumulates === true || inAll < 2) return null;
  return (
    <fieldset className="flex items-center gap-2 border-0 p-0" aria-label="How many in this weight">
      <Button className="size-11 px-0 text-xl" aria-label="One fewer" onClick={() => flow.setCount(count - 1)}>
        −
      </Button>
      <span className="min-w-24 text-center leading-tight">
        <strong className="figure text-lg" data-testid="count">
          {count}
        </strong>{' '}
        in this weight
      </span>
      <Button className="size-11 px-0 text-xl" aria-label="One more" onClick={() => flow.setCount(count + 1)}>
        +
      </Button>
    </fieldset>
  );
}

/** What a boned-out piece can be filled with, from what it weighs now and what came out of it. */
function FillWords({ state }: { readonly state: BenchState }) {
  const { fill, pieces } = state.stage;
  if (fill === undefined) return null;
  const own = state.counted.filter((w) => w.piece.id === fill.piece).reduce((sum, w) => sum + w.massMg, 0);
  if (own === 0) return null;
  const out = state.counted.filter((w) => w.piece.id !== fill.piece).reduce((sum, w) => sum + w.massMg, 0);
  const name = shortName(pieces.find((p) => p.id === fill.piece)?.name ?? '');
  return (
    <p className="w-full border-y border-line bg-sheet px-3 py-1.5 text-center text-[15px]" data-testid="fill">
      {name} {formatMass(own)}; what came out {formatMass(out)}. Filling{' '}
      <strong>
        {formatMass(Math.round((own * fill.low) / 1_000) * 1_000)} to{' '}
        {formatMass(Math.round((own * fill.high) / 1_000) * 1_000)}
      </strong>
      .
    </p>
  );
}

interface Props {
  readonly flow: BenchFlow;
  readonly state: BenchState;
  readonly may: boolean;
  /** False for the first drawing, which leaves out what nobody touches yet. */
  readonly standing: boolean;
}

/** The middle: which piece, what to mind before it, the pan, what was said, and the one big button. */
export function BenchScale({ flow, state, may, standing }: Props) {
  const { breakdown } = state;
  const { piece, right } = flow;
  const device = useBenchDevice();
  const practice = useChosenScale() === PRACTICE_SCALE;
  useEffect(() => leavePractice, []);
  const several = breakdown.animals > 1;
  return (
    <section
      className="flex min-h-0 min-w-0 flex-col items-center gap-2 overflow-y-auto px-3 py-2.5"
      aria-label="Scale"
    >
      {!device.large && <BenchPieces flow={flow} state={state} />}
      {may && <GuardStrip flow={flow} />}
      {piece.accumulates === true && <Picking flow={flow} state={state} />}
      <FillWords state={state} />
      <NotForMe has={breakdown.allergens} />
      {practice && (
        <p className="w-full border-l-4 border-attention bg-[#fff7e0] px-3 py-1.5 font-semibold" data-testid="practice">
          Practice scale. Its weights are marked, and the stage cannot be closed with them.
        </p>
      )}
      <LivePan expected={flow.expectedNow} takenAt={flow.takenAt} large={device.large} />
      {right === undefined && piece.accumulates !== true && (several || flow.usualCount > 1 || flow.count > 1) && (
        <div className="flex min-h-11 shrink-0 items-center justify-center gap-x-4 gap-y-2 max-md:flex-wrap">
          <span className="font-head font-semibold" data-testid="now">
            {flow.complete ? 'all weighed' : flow.name}
            {flow.animal !== null && ` of ${breakdown.animals}`}
          </span>
          <CountStep flow={flow} state={state} />
          {flow.animal !== null && flow.animal < breakdown.animals && (
            <Button hotkey="n" className="min-h-11" onClick={flow.toNextAnimal}>
              Next animal
            </Button>
          )}
        </div>
      )}
      <div
        className="min-h-10 w-full max-w-[540px] shrink-0 text-center leading-snug"
        role="status"
        aria-live="polite"
        data-testid="says"
      >
        {right !== undefined && flow.typing === undefined ? (
          <span>
            Putting right: <strong>{unitName(right.piece, right.unit, right.count, breakdown.animals)}</strong>,{' '}
            {formatMass(right.massMg)}. Weigh it again, pick its tray or its piece, split it, or take it back.
          </span>
        ) : (
          <>
            <span
              className={`block ${flow.asked === undefined ? '' : 'border-l-4 border-attention bg-[#fff7e0] px-2 py-1 font-semibold'}`}
            >
              {flow.says}
            </span>
            {flow.advice !== undefined && <strong className="block text-alarm">{flow.advice}</strong>}
          </>
        )}
      </div>
      <TakeBar flow={flow} may={may} />
      {may && standing && (
        <SimulatedPan
          next={
            flow.complete
              ? undefined
              : { what: 'piece', breakdownId: breakdown.id, pieceId: piece.id, unit: flow.unit, count: flow.count }
          }
        />
      )}
    </section>
  );
}
