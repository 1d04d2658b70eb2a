import type { Batch } from '@zabrik/contract';
import { formatMass } from '@zabrik/core';
import { Link } from 'react-router';
import { clockTime, dayAndTime } from '../../app/dates.ts';
import { api } from '../../app/endpoints.ts';
import { moneyOf, useHouse } from '../../app/queries.ts';
import { countWords, useTick, useTimers } from '../../app/timers.ts';
import { Empty, Failed, Loading } from '../../kit/Notice.tsx';
import { amountIn } from '../../parts/amountIn.ts';
import { SimulatedPan } from '../../parts/SimulatedPan.tsx';
import { WaitsHereOf } from '../../parts/WaitsHere.tsx';
import { PotsHead } from './PotsHead.tsx';
import { useBatches } from './potQueries.ts';

function Going({ batch }: { readonly batch: Batch }) {
  const timers = useTimers();
  const mine = (timers.data?.timers ?? []).filter((t) => t.batchId === batch.id);
  const now = useTick(mine.length > 0, 1_000) + (timers.data?.aheadMs ?? 0);
  const next = mine[0];
  return (
    <li>
      <Link
        to={`/pots/stove/${batch.id}`}
        className="grid min-h-20 grid-cols-[1fr_auto] items-center gap-4 rounded-plate border-[1.5px] border-line-strong bg-white px-4 py-3 hover:border-ink"
      >
        <span className="min-w-0">
          <span className="block truncate font-head text-xl font-semibold">{batch.title}</span>
          <span className="block truncate text-[15px] text-ink-soft">
            {formatMass(batch.baseMg)} · {batch.inputs.map((i) => i.name).join(', ')}
          </span>
          <span className="block text-[14px] text-ink-soft">
            {batch.startedAt === null
              ? `planned ${clockTime(batch.plannedAt)}, ${batch.by}`
              : `on since ${clockTime(batch.startedAt)}`}
          </span>
        </span>
        {next !== undefined && (
          <span className="text-right">
            <span className="figure block text-2xl">{countWords(Date.parse(next.dueAt) - now)}</span>
            <span className="block max-w-40 truncate text-[14px] text-ink-soft">{next.label}</span>
          </span>
        )}
      </Link>
    </li>
  );
}

/** Batches that are on, those planned, and what came out of the latest. */
export default function Stove() {
  return (
    <div className="flex flex-1 flex-col">
      <PotsHead />
      <WaitsHereOf ids={[api.pots.plan.id]} className="px-5 pt-4" />
      <Batches />
    </div>
  );
}

function Batches() {
  const batches = useBatches();
  const { data: house } = useHouse();
  const money = moneyOf(house);
  if (batches.isPending) return <Loading />;
  if (batches.isLoadingError) return <Failed error={batches.error} again={() => void batches.refetch()} />;
  const of = (state: Batch['state']): Batch[] => batches.data.batches.filter((r) => r.state === state);
  const [on, planned, done] = [of('on'), of('planned'), of('done')];
  return (
    <div className="grid flex-1 content-start gap-6 p-5 lg:grid-cols-[1fr_400px]">
      <section className="grid content-start gap-6" aria-label="Going">
        {on.length + planned.length === 0 && (
          <Empty title="Nothing is on">
            Choose what to make from what there is, and plan it.{' '}
            <Link className="underline" to="/pots">
              Make something
            </Link>
            .
          </Empty>
        )}
        {on.length > 0 && (
          <div>
            <h2 className="mb-2 text-xl font-bold">On</h2>
            <ul className="grid gap-3" aria-label="On">
              {on.map((r) => (
                <Going key={r.id} batch={r} />
              ))}
            </ul>
          </div>
        )}
        {planned.length > 0 && (
          <div>
            <h2 className="mb-2 text-xl font-bold">Planned</h2>
            <ul className="grid gap-3" aria-label="Planned">
              {planned.map((r) => (
                <Going key={r.id} batch={r} />
              ))}
            </ul>
          </div>
        )}
        <SimulatedPan />
      </section>
      <section aria-label="Done">
        <h2 className="mb-1 text-xl font-bold">Done</h2>
        {done.length === 0 && <p className="text-ink-soft">What came out of the pots stands here.</p>}
        <ol className="divide-y divide-line">
          {done.map((batch) => (
            <li key={batch.id} className="py-2">
              <span className="flex justify-between gap-3">
                <Link to={`/pots/stove/${batch.id}`} className="truncate font-head font-semibold hover:underline">
                  {batch.title}
                </Link>
                <span className="figure">{amountIn(batch.measure, batch.outputMg ?? 0)}</span>
              </span>
              <span className="flex justify-between gap-3 text-[14px] text-ink-soft">
                <span>
                  {batch.doneAt !== null && dayAndTime(batch.doneAt)} · from {formatMass(batch.baseMg)}
                </span>
                {batch.outputLot !== null && (
                  <Link className="underline" to={`/larder/${batch.outputLot.id}`}>
                    {batch.outputLot.code} · {batch.unpriced.length > 0 && 'at least '}
                    {money(batch.outputLot.costMinor)}
                  </Link>
                )}
              </span>
            </li>
          ))}
        </ol>
      </section>
    </div>
  );
}
