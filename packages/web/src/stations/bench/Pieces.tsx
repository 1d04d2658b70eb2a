import { formatMass, type PlanPiece } from '@zabrik/core';
import type { BenchState } from './useBreakdown.ts';

interface Props {
  readonly order: readonly PlanPiece[];
  readonly state: Pick<BenchState, 'expected' | 'counted'>;
  readonly taken: ReadonlyMap<string, number>;
  readonly current: string;
  readonly onPick: (id: string) => void;
}

/** The pieces of the plan in their order: what is weighed, what is next, and what each should still weigh. */
export function Pieces({ order, state, taken, current, onPick }: Props) {
  return (
    <fieldset className="grid w-full shrink-0 grid-cols-4 gap-2 border-0 p-0" aria-label="Piece">
      {order.map((p) => {
        const n = taken.get(p.id) ?? 0;
        const e = state.expected.get(p.id);
        const active = p.id === current;
        const done = n >= p.units.length;
        const mass = state.counted.filter((w) => w.piece.id === p.id).reduce((sum, w) => sum + w.massMg, 0);
        return (
          <button
            key={p.id}
            type="button"
            aria-pressed={active}
            onClick={() => onPick(p.id)}
            className={`min-h-13 min-w-0 rounded-md border-[1.5px] px-2.5 py-1 text-left leading-tight ${active ? 'border-ink bg-white shadow-[inset_0_-4px_0] shadow-portion' : done ? 'border-line bg-ground-deep text-ink-soft' : 'border-line-strong bg-white'}`}
          >
            <span className="block truncate font-head text-[14px] font-semibold">
              {p.name.split(',')[0]}
              {p.units.length > 1 && ` ${Math.min(n + (done ? 0 : 1), p.units.length)}/${p.units.length}`}
            </span>
            <span className="block truncate text-[13px]">
              {done
                ? `${formatMass(mass)} ✓`
                : e !== undefined && e.nextMg > 0
                  ? `${formatMass(e.low80Mg)} to ${formatMass(e.high80Mg)}`
                  : ' '}
            </span>
          </button>
        );
      })}
    </fieldset>
  );
}
