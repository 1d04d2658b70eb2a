import { formatCount, formatMass } from '@zabrik/core';
import { moneyOf, useHouse } from '../../app/queries.ts';
import { useNow } from '../../app/useNow.ts';
import { Ribbon, type RibbonPart } from '../../parts/Ribbon.tsx';
import { hoursAndMinutes } from '../../parts/restWords.ts';
import { bracketOf, unitName } from './benchWords.ts';
import type { BenchFlow } from './useBench.ts';
import type { BenchState } from './useBreakdown.ts';

function Clock({ flow, animals }: { readonly flow: BenchFlow; readonly animals: number }) {
  const minutes = flow.steps.minutes(useNow(20_000));
  return (
    <span data-testid="clock">
      {flow.steps.paused ? 'paused at ' : ''}
      {hoursAndMinutes(minutes)}
      {animals > 1 && minutes >= 1 && `, ${formatCount(minutes / animals, 1)} an animal`}
    </span>
  );
}

/** What is on the bench and since when, and the ribbon of all that is weighed. */
export function BenchHead({
  flow,
  state,
  may,
}: {
  readonly flow: BenchFlow;
  readonly state: BenchState;
  readonly may: boolean;
}) {
  const { breakdown, counted } = state;
  const { right, reading } = flow;
  const { data: house } = useHouse();
  const money = moneyOf(house);
  const several = breakdown.animals > 1;
  const parts: RibbonPart[] = counted.flatMap((w) =>
    w.destination === null
      ? []
      : [
          {
            id: w.id,
            name: unitName(w.piece, w.unit, w.count, breakdown.animals, w.animal),
            destination: w.destination,
            massMg: w.massMg,
            selected: w.id === right?.id,
          },
        ],
  );
  if (right === undefined && reading.netMg > 0 && !flow.wasTaken && reading.state === 'steady' && !flow.complete)
    parts.push({ id: 'pan', name: 'on the pan', destination: flow.suggested, massMg: reading.netMg, onPan: true });
  return (
    <div className="border-b border-line bg-sheet px-4 pt-2.5 pb-1">
      <div className="mb-1.5 flex items-baseline gap-x-4 max-md:flex-wrap">
        <h1 className="truncate text-[24px] leading-8 font-bold">
          {breakdown.speciesName}
          {breakdown.stageIndex === 0 ? `, ${breakdown.formName}` : `: ${breakdown.stageName.toLowerCase()}`}
        </h1>
        <p className="min-w-0 flex-1 truncate text-ink-soft">
          lot {breakdown.inputs.map((i) => i.code).join(', ')}
          {breakdown.supplierName !== null && ` · ${breakdown.supplierName}`} · {breakdown.planTitle.toLowerCase()}
          {breakdown.stageCount > 1 && ` · stage ${breakdown.stageIndex + 1} of ${breakdown.stageCount}`}
          {several && ` · ${breakdown.animals} animals`}
        </p>
        <p className="text-[15px] whitespace-nowrap text-ink-soft">
          <Clock flow={flow} animals={breakdown.animals} />
          {breakdown.holder !== breakdown.by && ` · ${breakdown.holder}`}
        </p>
        <p className="whitespace-nowrap">
          <span className="figure text-lg">{formatMass(breakdown.startMg)}</span> at start ·{' '}
          <span className="figure text-lg">{money(breakdown.startMinor)}</span>
        </p>
      </div>
      <Ribbon
        totalMg={breakdown.startMg + state.broughtMg}
        parts={parts}
        openName={flow.openNames.join(', ')}
        bracket={bracketOf(state)}
        onPick={(id) => {
          if (may && id !== 'pan') flow.correct(id === right?.id ? undefined : id);
        }}
      />
    </div>
  );
}
