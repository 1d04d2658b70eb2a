import type { Run } from '@zabrik/contract';
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
import { useRuns } from './potQueries.ts';

function Going({ run }: { readonly run: Run }) {
  const timers = useTimers();
  const mine = (timers.data?.timers ?? []).filter((t) => t.runId === run.id);
  const now = useTick(mine.length > 0, 1_000) + (timers.data?.aheadMs ?? 0);
  const next = mine[0];
  return (
    <li>
      <Link
        to={`/pots/stove/${run.id}`}
        className="grid min-h-20 grid-cols-[1fr_auto] items-center gap-4 rounded-plate border-[1.5px] border-line-strong bg-white px-4 py-3 hover:border-ink"
      >
        <span className="min-w-0">
          <span className="block truncate font-head text-xl font-semibold">{run.title}</span>
          <span className="block truncate text-[15px] text-ink-soft">
            {formatMass(run.baseMg)} · {run.inputs.map((i) => i.name).join(', ')}
          </span>
          <span className="block text-[14px] text-ink-soft">
            {run.startedAt === null
              ? `planned ${clockTime(run.plannedAt)}, ${run.by}`
              : `on since ${clockTime(run.startedAt)}`}
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
  const runs = useRuns();
  const { data: house } = useHouse();
  const money = moneyOf(house);
  if (runs.isPending) return <Loading />;
  if (runs.isLoadingError) return <Failed error={runs.error} again={() => void runs.refetch()} />;
  const of = (state: Run['state']): Run[] => runs.data.runs.filter((r) => r.state === state);
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
                <Going key={r.id} run={r} />
              ))}
            </ul>
          </div>
        )}
        {planned.length > 0 && (
          <div>
            <h2 className="mb-2 text-xl font-bold">Planned</h2>
            <ul className="grid gap-3" aria-label="Planned">
              {planned.map((r) => (
                <Going key={r.id} run={r} />
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
          {done.map((run) => (
            <li key={run.id} className="py-2">
              <span className="flex justify-between gap-3">
                <Link to={`/pots/stove/${run.id}`} className="truncate font-head font-semibold hover:underline">
                  {run.title}
                </Link>
                <span className="figure">{amountIn(run.measure, run.outputMg ?? 0)}</span>
              </span>
              <span className="flex justify-between gap-3 text-[14px] text-ink-soft">
                <span>
                  {run.doneAt !== null && dayAndTime(run.doneAt)} · from {formatMass(run.baseMg)}
                </span>
                {run.outputLot !== null && (
                  <Link className="underline" to={`/larder/${run.outputLot.id}`}>
                    {run.outputLot.code} · {money(run.outputLot.costMinor)}
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
