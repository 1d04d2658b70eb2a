import { useQuery } from '@tanstack/react-query';
import type { Lot } from '@zabrik/contract';
import { formatMass, grams } from '@zabrik/core';
import { lazy, Suspense, useEffect, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { ageWords, clockTime, dayAndTime, dayName, dueWords } from '../../app/dates.ts';
import { useMay } from '../../app/queries.ts';
import { Button } from '../../kit/Button.tsx';
import { Empty, Failed, Loading, Notice } from '../../kit/Notice.tsx';
import { PaperLink } from '../../kit/PaperLink.tsx';
import { Confirm } from '../../parts/Confirm.tsx';
import { useGoOn, waitingQuery } from '../../parts/GoOn.tsx';
import { MiniRibbon } from '../../parts/Ribbon.tsx';
import { restWords } from '../../parts/restWords.ts';
import { openBreakdownsQuery, openCuttingsQuery, toCutQuery } from './reads.ts';

function OpenOnes() {
  const open = useQuery(openBreakdownsQuery);
  if (open.isPending) return <Loading />;
  if (open.isLoadingError) return <Failed error={open.error} again={() => void open.refetch()} />;
  if (open.data.breakdowns.length === 0)
    return <p className="py-3 text-ink-soft">The bench is clear. Pick what to cut from the list.</p>;
  return (
    <ul className="grid grid-cols-[minmax(0,1fr)] gap-3">
      {open.data.breakdowns.map((b) => (
        <li key={b.id}>
          <Link
            to={`/bench/${b.id}`}
            className="block rounded-plate border-[1.5px] border-ink bg-white p-3 hover:bg-sheet-soft"
          >
            <span className="flex items-baseline justify-between gap-3">
              <span className="truncate font-head text-lg font-semibold">
                {b.speciesName}
                {b.stageIndex === 0 ? `, ${b.formName}` : `: ${b.stageName.toLowerCase()}`}
              </span>
              <span className="figure text-lg whitespace-nowrap">{formatMass(b.startMg)}</span>
            </span>
            <span className="mb-1.5 block text-[14px] text-ink-soft">
              {b.planTitle}
              {b.stageCount > 1 && `, stage ${b.stageIndex + 1} of ${b.stageCount}`} · {b.lotCode} · {b.holder}, since{' '}
              {clockTime(b.startedAt)}
            </span>
            <MiniRibbon
              totalMg={b.startMg}
              parts={[{ id: 'weighed', name: 'weighed', destination: 'portion', massMg: b.weighedMg }]}
            />
            <span className="mt-1 block text-[14px]">
              {formatMass(b.weighedMg)} weighed, {formatMass(Math.max(0, b.startMg - b.weighedMg))} to go
            </span>
          </Link>
        </li>
      ))}
    </ul>
  );
}

function WaitingOnes() {
  const may = useMay('bench.goOn');
  const waiting = useQuery(waitingQuery);
  const goOn = useGoOn();
  if (waiting.isPending) return <Loading />;
  if (waiting.isLoadingError) return <Failed error={waiting.error} again={() => void waiting.refetch()} />;
  if (waiting.data.waiting.length === 0)
    return <p className="py-3 text-ink-soft">Nothing waits. Pieces stand here between two stages of a plan.</p>;
  return (
    <ul className="grid grid-cols-[minmax(0,1fr)] gap-3">
      {waiting.data.waiting.map((stage) => {
        const rest = restWords(stage, new Date());
        return (
          <li
            key={`${stage.breakdownId}/${stage.stageId}`}
            className="rounded-plate border-[1.5px] border-line-strong bg-white p-3"
          >
            <span className="flex items-baseline justify-between gap-3">
              <span className="truncate font-head text-lg font-semibold">
                {stage.speciesName}: {stage.stageName.toLowerCase()}
              </span>
              <span className="figure text-lg">{formatMass(stage.lots.reduce((sum, l) => sum + l.freeMg, 0))}</span>
            </span>
            <span className="block text-[14px] text-ink-soft">
              {stage.lots.map((l) => `${l.name.replace(`${stage.speciesName} `, '')} ${l.code}`).join(', ')} · since{' '}
              {dayAndTime(stage.madeAt)}
              {stage.useBy !== null && ` · use by ${dayName(stage.useBy)}`}
            </span>
            <span className="mt-1.5 flex items-center justify-between gap-3">
              <span className={`text-[14px] leading-tight ${rest.tone === 'late' ? 'font-semibold text-alarm' : ''}`}>
                {rest.text}
                {stage.missing.length > 0 && (
                  <span className="block border-l-4 border-attention pl-2 font-semibold">
                    not cut yet: {stage.missing.join(', ')}
                  </span>
                )}
              </span>
              <Button
                size="bench"
                variant={rest.tone === 'resting' || stage.missing.length > 0 ? 'quiet' : 'plain'}
                disabled={!may || goOn.pending}
                onClick={() => goOn.start(stage)}
              >
                Carry on
              </Button>
            </span>
          </li>
        );
      })}
      <Confirm error={goOn.error} words="Carry on all the same" onConfirm={goOn.allTheSame} />
    </ul>
  );
}

/** The way to cutting to weight, and whether something lies there. */
function ToWeight() {
  const { data } = useQuery(openCuttingsQuery);
  const [open, resting] = [data?.open.length ?? 0, data?.resting.length ?? 0];
  return (
    <Link
      to="/bench/cut"
      className="mt-6 flex min-h-14 items-center justify-between gap-3 rounded-plate border-[1.5px] border-ink bg-white px-4 font-head text-[17px] font-semibold hover:bg-sheet-soft"
    >
      Cut to weight
      <span className="font-text text-[14px] font-normal text-ink-soft">
        {open + resting === 0
          ? 'portions, rolls, slices, moulds'
          : [open > 0 ? `${open} under the knife` : '', resting > 0 ? `${resting} at rest` : '']
              .filter((t) => t !== '')
              .join(', ')}
      </span>
    </Link>
  );
}

// its form comes with the library of forms, which the list does without; asked for once the list stands
const startOne = () => import('./StartOne.tsx');
const StartOne = lazy(startOne);

export default function BenchList() {
  const [search, setSearch] = useSearchParams();
  const chosen = search.get('lot');
  const may = useMay('bench.start');
  const lots = useQuery(toCutQuery);
  const listed = lots.data?.lots.find((l) => l.id === chosen);
  // one that somebody else takes meanwhile stays on the screen, with what was answered about it
  const [seen, setSeen] = useState<Lot>();
  if (listed !== undefined && listed !== seen) setSeen(listed);
  const lot = listed ?? (seen?.id === chosen ? seen : undefined);
  useEffect(() => void startOne().catch(() => undefined), []);
  const heaviest = Math.max(grams(1), ...(lots.data?.lots.map((l) => l.freeMg) ?? []));
  return (
    <div className="grid flex-1 content-start lg:grid-cols-[400px_1fr] lg:content-stretch">
      <aside className="border-r border-line bg-sheet-soft p-5" aria-label="On the bench now">
        <h2 className="mb-3 text-xl font-bold">On the bench now</h2>
        <OpenOnes />
        <h2 className="mt-6 mb-3 text-xl font-bold">Waiting to go on</h2>
        <WaitingOnes />
        <ToWeight />
        <p className="mt-6">
          <Link className="font-semibold underline" to="/bench/plans">
            Cut plans
          </Link>
        </p>
      </aside>
      <div className="p-5">
        <h1 className="sr-only">Bench</h1>
        {lot !== undefined && may ? (
          <Suspense fallback={<Loading />}>
            <StartOne key={lot.id} lot={lot} gone={listed === undefined} back={() => setSearch({})} />
          </Suspense>
        ) : lots.isPending ? (
          <Loading />
        ) : lots.isLoadingError ? (
          <Failed error={lots.error} again={() => void lots.refetch()} />
        ) : lots.data.lots.length === 0 ? (
          <Empty title="Nothing whole to cut">
            Deliveries wait here until someone cuts them.{' '}
            <Link className="underline" to="/receive">
              Receive one
            </Link>
            .
          </Empty>
        ) : (
          <section aria-label="To be cut">
            <div className="mb-3 flex flex-wrap items-center justify-between gap-3">
              <h2 className="text-xl font-bold">To be cut, earliest date first</h2>
              <PaperLink to="/paper/cutting-list.pdf" />
            </div>
            {chosen !== null && may && (
              <div className="mb-3">
                <Notice tone="attention">
                  The lot you asked for is not here to be cut any more: it is on the bench, moved on or used up.
                </Notice>
              </div>
            )}
            <ul className="grid gap-3">
              {lots.data.lots.map((l) => {
                const due = dueWords(l.useBy);
                return (
                  <li key={l.id}>
                    <button
                      type="button"
                      disabled={!may}
                      onClick={() => setSearch({ lot: l.id })}
                      className="grid min-h-20 w-full grid-cols-[minmax(0,1fr)_110px] md:grid-cols-[1fr_220px_110px] items-center gap-5 rounded-plate border-[1.5px] border-line-strong bg-white px-4 py-2.5 text-left hover:border-ink hover:bg-sheet-soft"
                    >
                      <span className="min-w-0">
                        <span className="block truncate font-head text-lg font-semibold">{l.name}</span>
                        <span className="block truncate text-[14px] text-ink-soft">
                          {l.code}
                          {l.supplierName !== null && ` · ${l.supplierName}`} ·{' '}
                          {l.freePieces === 1 ? 'one' : `${l.freePieces} of them`} · here {ageWords(l.madeAt)}
                        </span>
                      </span>
                      <span className="max-md:order-last max-md:col-span-2">
                        <MiniRibbon
                          totalMg={l.freeMg}
                          scaleMg={heaviest}
                          parts={[{ id: l.id, name: l.name, destination: 'whole', massMg: l.freeMg }]}
                        />
                        <span
                          className={`mt-1 block text-[14px] ${due.tone === 'late' || due.tone === 'now' ? 'font-semibold text-alarm' : 'text-ink-soft'}`}
                        >
                          use by {l.useBy === null ? 'no date' : `${dayName(l.useBy)}, ${due.text}`}
                        </span>
                      </span>
                      <span className="figure text-right text-xl">{formatMass(l.freeMg)}</span>
                    </button>
                  </li>
                );
              })}
            </ul>
          </section>
        )}
      </div>
    </div>
  );
}
