import { formatCount, formatMass, pickingPace, toHouse, unitName } from '@zabrik/core';
import { moneyOf, useHouse } from '../../app/queries.ts';
import { useNow } from '../../app/useNow.ts';
import { hoursAndMinutes } from '../../parts/restWords.ts';
import type { BenchFlow } from './useBench.ts';
import type { BenchState } from './useBreakdown.ts';

/** Meat picked bit by bit: how much, how fast, and what the next ten minutes are worth against what they cost. */
export function Picking({ flow, state }: { readonly flow: BenchFlow; readonly state: BenchState }) {
  const now = useNow(15_000);
  const { data: house } = useHouse();
  const money = moneyOf(house);
  const { piece } = flow;
  const { breakdown, stage, counted } = state;
  const own = counted.filter((w) => w.piece.id === piece.id);
  const pace = pickingPace(
    own.map((w) => ({ at: new Date(w.at), massMg: w.massMg })),
    new Date(breakdown.startedAt),
    now,
    flow.expectation?.remainingMg ?? 0,
    flow.steps.workedBetween,
  );
  // what a kilo of this stage's edible meat costs, if it comes to what it usually does
  const edibleShare = stage.pieces.filter((p) => p.edible).reduce((sum, p) => sum + p.share.mean, 0);
  const minorPerMg = edibleShare > 0 ? breakdown.startMinor / (breakdown.startMg * edibleShare) : 0;
  const rate = house?.labourMinorPerHour ?? null;
  // within the first minute a pace is a figure of nothing
  const early = pace.minutes < 1;
  const perMinute = (mg: number): string => `${formatCount(toHouse('g', mg / 1_000), 1)} ${unitName('g')} a minute`;
  return (
    <section
      aria-label="Picking"
      className="grid w-full shrink-0 grid-cols-3 gap-3 border-y border-line bg-sheet px-3 py-2"
    >
      <div>
        <span className="figure block text-[24px] leading-tight">{formatMass(pace.totalMg)}</span>
        <span className="text-[13px] text-ink-soft">
          picked in {hoursAndMinutes(pace.minutes)}, {own.length} {own.length === 1 ? 'weight' : 'weights'}
        </span>
      </div>
      <div>
        <span className="figure block text-[19px] leading-7">{early ? '–' : perMinute(pace.mgPerMinute)}</span>
        <span className="text-[13px] text-ink-soft">
          {own.length === 0
            ? 'no weight yet'
            : early
              ? 'pace: from the first minute on'
              : `lately ${perMinute(pace.recentMgPerMinute)}`}
        </span>
      </div>
      <div>
        <span className="figure block text-[19px] leading-7">
          {own.length === 0 || early
            ? '–'
            : `${formatMass(pace.nextMg)}, ${money(Math.round(pace.nextMg * minorPerMg))}`}
        </span>
        <span className="text-[13px] text-ink-soft">
          next ten minutes{rate === null ? '' : `, work ${money(Math.round(rate / 6))}`}
        </span>
      </div>
    </section>
  );
}
