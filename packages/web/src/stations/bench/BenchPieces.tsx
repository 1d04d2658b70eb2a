import { formatMass, shortName } from '@zabrik/core';
import { wantedOf } from './benchOrder.ts';
import type { BenchFlow } from './useBench.ts';
import type { BenchState } from './useBreakdown.ts';

interface Props {
  readonly flow: BenchFlow;
  readonly state: BenchState;
  /** One under the other, beside a large pan. */
  readonly column?: boolean;
}

/** More pieces than this stand in rows of one line each, so that the pan keeps its place. */
const MOST_IN_TWO_LINES = 8;

/** The pieces of the plan in their order: what is weighed, what is next, and what each should still weigh. */
export function BenchPieces({ flow, state, column = false }: Props) {
  const { order, taken } = flow;
  const { animals } = state.breakdown;
  const tight = !column && order.length > MOST_IN_TWO_LINES;
  return (
    <fieldset
      className={`grid w-full shrink-0 border-0 p-0 ${column ? 'grid-cols-1 gap-1.5' : tight ? 'grid-cols-5 gap-1.5' : 'grid-cols-4 gap-2'} ${column ? '' : 'max-md:grid-cols-2'}`}
      aria-label="Piece"
    >
      {order.map((p) => {
        const n = taken.get(p.id) ?? 0;
        const e = state.expected.get(p.id);
        const active = p.id === flow.piece.id;
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
            onClick={() => flow.pick(p.id)}
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
