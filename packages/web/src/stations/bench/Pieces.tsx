import { formatMass, type PlanPiece, shortName } from '@zabrik/core';
import { wantedOf } from './benchOrder.ts';
import type { BenchState } from './useBreakdown.ts';

interface Props {
  readonly order: readonly PlanPiece[];
  readonly state: Pick<BenchState, 'expected' | 'counted'>;
  readonly taken: ReadonlyMap<string, number>;
  readonly animals: number;
  readonly current: string;
  readonly onPick: (id: string) => void;
}

/** More pieces than this stand in rows of one line each, so that the pan keeps its place. */
const MOST_IN_TWO_LINES = 8;

/** The pieces of the plan in their order: what is weighed, what is next, and what each should still weigh. */
export function Pieces({ order, state, taken, animals, current, onPick }: Props) {
  const tight = order.length > MOST_IN_TWO_LINES;
  return (
    <fieldset
      className={`grid w-full shrink-0 border-0 p-0 ${tight ? 'grid-cols-5 gap-1.5' : 'grid-cols-4 gap-2'}`}
      aria-label="Piece"
    >
      {order.map((p) => {
        const n = taken.get(p.id) ?? 0;
        const e = state.expected.get(p.id);
        const active = p.id === current;
        const wanted = wantedOf(p, animals);
        const done = n >= wanted;
        const mass = state.counted.filter((w) => w.piece.id === p.id).reduce((sum, w) => sum + w.massMg, 0);
        const usual =
          e === undefined || e.nextMg === 0
            ? undefined
            : p.accumulates === true
              ? `${formatMass(e.remainingLow80Mg)} to ${formatMass(e.remainingHigh80Mg)}`
              : `${formatMass(e.low80Mg)} to ${formatMass(e.high80Mg)}`;
        const range = n > 0 && (done || p.accumulates === true) ? `${formatMass(mass)} ✓` : usual;
        return (
          <button
            key={p.id}
            type="button"
            aria-pressed={active}
            title={p.name}
            onClick={() => onPick(p.id)}
            className={`min-w-0 rounded-md border-[1.5px] py-1 text-left leading-tight ${tight ? 'min-h-11 px-2' : 'min-h-13 px-2.5'} ${active ? 'border-ink bg-white shadow-[inset_0_-4px_0] shadow-portion' : done ? 'border-line bg-ground-deep text-ink-soft' : 'border-line-strong bg-white'}`}
          >
            <span className="block truncate font-head text-[14px] font-semibold">
              {shortName(p.name)}
              {wanted > 1 && ` ${Math.min(n + (done ? 0 : 1), wanted)}/${wanted}`}
            </span>
            <span className="block truncate text-[13px]">{range ?? ' '}</span>
          </button>
        );
      })}
    </fieldset>
  );
}
