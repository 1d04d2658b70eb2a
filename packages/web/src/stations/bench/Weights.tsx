import { formatMass, PRACTICE_SCALE } from '@zabrik/core';
import { clockTime } from '../../app/dates.ts';
import { clothOf, trayName } from '../../parts/destinations.ts';
import { unitName } from './benchWords.ts';
import type { BenchState } from './useBreakdown.ts';

interface Props {
  readonly state: BenchState;
  readonly selected: string | undefined;
  readonly onSelect: (id: string | undefined) => void;
}

/** Every weight taken, newest first: those that count, and under them what was put right or taken back. */
export function Weights({ state, selected, onSelect }: Props) {
  const counts = new Set(state.counted.map((w) => w.id));
  const gone = state.all.filter((w) => w.massMg !== null && !counts.has(w.id));
  return (
    <div className="px-4 py-2">
      {state.counted.length === 0 && (
        <p className="py-4 text-ink-soft">
          No weight taken yet. Put the first piece on the scale and press Take weight.
        </p>
      )}
      <ol className="grid gap-1.5">
        {[...state.counted].reverse().map((w) => (
          <li key={w.id}>
            <button
              type="button"
              aria-pressed={selected === w.id}
              onClick={() => onSelect(selected === w.id ? undefined : w.id)}
              className={`grid min-h-12 w-full grid-cols-[10px_1fr_auto] items-center gap-2.5 rounded-md border-[1.5px] px-2.5 text-left ${selected === w.id ? 'border-ink bg-white outline-3 outline-attention' : 'border-line bg-white'}`}
            >
              <span
                className={`h-8 rounded-sm ${w.destination === null ? '' : clothOf[w.destination]}`}
                aria-hidden="true"
              />
              <span className="min-w-0 leading-tight">
                <span className="block truncate font-semibold">
                  {unitName(w.piece, w.unit, w.count, state.breakdown.animals, w.animal)}
                </span>
                <span className="block truncate text-[13px] text-ink-soft">
                  {w.scale === PRACTICE_SCALE && <strong>practice · </strong>}
                  {w.destination !== null && trayName(w.destination)} ·{' '}
                  {w.waiting ? 'kept here, not sent yet' : `${clockTime(w.at)}, ${w.by}`}
                  {w.source === 'typed' ? ', typed' : ''}
                </span>
              </span>
              <span className="figure">{formatMass(w.massMg)}</span>
            </button>
          </li>
        ))}
      </ol>
      {gone.length > 0 && (
        <>
          <h3 className="mt-4 mb-1 text-[14px] font-semibold text-ink-soft">Put right or taken back</h3>
          <ol>
            {gone.map((w) => (
              <li key={w.id} className="flex justify-between text-[14px] text-ink-soft line-through">
                <span>{state.stage.pieces.find((p) => p.id === w.pieceId)?.name}</span>
                <span>{formatMass(w.massMg ?? 0)}</span>
              </li>
            ))}
          </ol>
        </>
      )}
    </div>
  );
}
