import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { Lot, Way } from '@zabrik/contract';
import { figureWords, formatMass, grams, inGrams, parseMass, startOf } from '@zabrik/core';
import { useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { useCommand } from '../../app/command.ts';
import { ageWords, clockTime, dayAndTime, dayName, dueWords } from '../../app/dates.ts';
import { api } from '../../app/endpoints.ts';
import { useScale } from '../../app/live.ts';
import { moneyOf, useCatalogue, useHouse, useMay } from '../../app/queries.ts';
import { Button } from '../../kit/Button.tsx';
import { Field } from '../../kit/Field.tsx';
import { Empty, Failed, Loading, Notice } from '../../kit/Notice.tsx';
import { Toggle } from '../../kit/Toggle.tsx';
import { BodyMap } from '../../parts/BodyMap.tsx';
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

const ways: readonly { readonly id: Way; readonly name: string; readonly says: string }[] = [
  { id: 'one-by-one', name: 'Piece by piece', says: 'every piece has its own weight' },
  { id: 'pooled', name: 'By kind', says: 'all legs together, all breasts together' },
  { id: 'by-animal', name: 'Animal by animal', says: 'one after the other, so that they can be compared' },
];

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

function StartOne({ lot, back }: { readonly lot: Lot; readonly back: () => void }) {
  const catalogue = useCatalogue();
  const { data: house } = useHouse();
  const scale = useScale();
  const navigate = useNavigate();
  const client = useQueryClient();
  const [all, setAll] = useState(lot.pieces === 1);
  const [mass, setMass] = useState('');
  const [animals, setAnimals] = useState('1');
  const [way, setWay] = useState<Way | null>(null);
  const start = useCommand(api.bench.start, {
    onDone: (breakdown) => {
      client.setQueryData(['breakdowns', 'one', breakdown.id], breakdown);
      void navigate(`/bench/${breakdown.id}`);
    },
  });
  if (catalogue.isPending) return <Loading />;
  if (catalogue.isLoadingError) return <Failed error={catalogue.error} again={() => void catalogue.refetch()} />;
  const plans = catalogue.data.plans.flatMap((plan) => {
    const entry = lot.species === null || lot.form === null ? undefined : startOf(plan, lot.species, lot.form);
    if (plan.retired || entry === undefined) return [];
    // a side enters where sides begin
    const from = Math.max(
      0,
      plan.stages.findIndex((s) => s.id === entry.at),
    );
    return [{ plan, stages: plan.stages.slice(from), each: from > 0 ? 'for all of one animal' : 'an animal' }];
  });
  let massError: string | undefined;
  if (!all) {
    try {
      if (parseMass(mass) > lot.massMg) massError = `The lot has ${formatMass(lot.massMg)}`;
    } catch (thrown) {
      massError = mass === '' ? '' : figureWords(thrown, 'A weight, such as 2860');
    }
  }
  const animalsFine = all || /^[1-9]\d{0,2}$/.test(animals);
  return (
    <section aria-label={`Start ${lot.name}`} className="grid content-start gap-5">
      <div className="flex items-start justify-between gap-4">
        <div>
          <h2 className="text-3xl font-extrabold">{lot.name}</h2>
          <p className="text-ink-soft">
            {lot.code} · {lot.supplierName} · {lot.pieces === 1 ? 'one' : `${lot.pieces} of them`} ·{' '}
            {formatMass(lot.massMg)} · {moneyOf(house)(lot.costMinor)} · {dueWords(lot.useBy).text}
          </p>
        </div>
        <Button onClick={back}>Another lot</Button>
      </div>
      {lot.pieces > 1 && (
        <fieldset className="border-0 p-0">
          <legend className="mb-2 text-[15px] font-semibold">How much of it?</legend>
          <div className="flex flex-wrap items-end gap-3">
            <Toggle on={all} size="bench" onPress={() => setAll(true)}>
              All {lot.pieces}, {formatMass(lot.massMg)}
            </Toggle>
            <Toggle on={!all} size="bench" onPress={() => setAll(false)}>
              Some
            </Toggle>
            {!all && (
              <>
                <Field
                  label="How many"
                  className="w-28"
                  inputMode="numeric"
                  value={animals}
                  onChange={(event) => setAnimals(event.target.value)}
                />
                <Field
                  label="Weight at the start"
                  unit="g"
                  className="w-80"
                  inputMode="decimal"
                  value={mass}
                  error={massError === '' ? undefined : massError}
                  onChange={(event) => setMass(event.target.value)}
                  action={
                    <Button
                      variant="plain"
                      className="h-11"
                      disabled={scale.state !== 'steady' || scale.netMg <= 0}
                      onClick={() => setMass(String(inGrams(scale.netMg)))}
                    >
                      From the scale
                    </Button>
                  }
                />
              </>
            )}
          </div>
        </fieldset>
      )}
      {(all ? lot.pieces : Number(animals)) > 1 && (
        <fieldset className="border-0 p-0">
          <legend className="mb-2 text-[15px] font-semibold">How are they weighed?</legend>
          <div className="flex flex-wrap gap-3">
            {ways.map(({ id, name, says }) => (
              <Toggle
                key={id}
                on={way === id}
                size="bench"
                className="max-w-60 text-left leading-tight"
                onPress={() => setWay(way === id ? null : id)}
              >
                <span className="block font-head font-semibold">{name}</span>
                <span className="block text-[13px]">{says}</span>
              </Toggle>
            ))}
          </div>
        </fieldset>
      )}
      <h3 className="text-lg font-bold">
        Cut plan
        {!all && massError === '' && (
          <span className="ml-3 text-[15px] font-normal text-ink-soft">once what you take is weighed</span>
        )}
      </h3>
      {plans.length === 0 && (
        <Notice tone="attention">
          No cut plan starts from {lot.name} yet.{' '}
          <Link className="font-semibold underline" to="/bench/plans">
            Make one from another
          </Link>
          .
        </Notice>
      )}
      <ul className="grid grid-cols-2 gap-4">
        {plans.map(({ plan, stages, each }) => (
          <li key={plan.id}>
            <button
              type="button"
              disabled={start.pending || massError !== undefined || !animalsFine}
              onClick={() =>
                start.send({
                  body: {
                    lotId: lot.id,
                    planId: plan.id,
                    animals: all ? lot.pieces : Number(animals),
                    massMg: all ? null : parseMass(mass),
                    way,
                    confirmed: false,
                  },
                })
              }
              className="block w-full rounded-plate border-[1.5px] border-ink bg-white p-4 text-left hover:bg-sheet-soft disabled:opacity-50"
            >
              <BodyMap body={plan.body} lit={new Set()} className="mb-2 h-24" />
              <span className="block font-head text-xl font-semibold">{plan.title}</span>
              <span className="block text-[14px] text-ink-soft">
                {stages.map((stage) => stage.name.toLowerCase()).join(', then ')}
              </span>
              <span className="block text-[14px] text-ink-soft">
                {stages[0]?.steps} steps first, {stages[0]?.minutes.low} to {stages[0]?.minutes.high} min {each}
                {plan.own && ' · your own'}
              </span>
            </button>
          </li>
        ))}
      </ul>
      <Confirm
        error={start.error}
        words="Put it on the bench all the same"
        onConfirm={() => {
          if (start.last !== undefined) start.send({ body: { ...start.last.body, confirmed: true } });
        }}
      />
    </section>
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

export default function BenchList() {
  const [search, setSearch] = useSearchParams();
  const chosen = search.get('lot');
  const may = useMay('bench.start');
  const lots = useQuery(toCutQuery);
  const lot = lots.data?.lots.find((l) => l.id === chosen);
  const heaviest = Math.max(grams(1), ...(lots.data?.lots.map((l) => l.massMg) ?? []));
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
          <StartOne key={lot.id} lot={lot} back={() => setSearch({})} />
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
            <h2 className="mb-3 text-xl font-bold">To be cut, earliest date first</h2>
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
                          {l.code} · {l.supplierName} · {l.pieces === 1 ? 'one' : `${l.pieces} of them`} · here{' '}
                          {ageWords(l.madeAt)}
                        </span>
                      </span>
                      <span className="max-md:order-last max-md:col-span-2">
                        <MiniRibbon
                          totalMg={l.massMg}
                          scaleMg={heaviest}
                          parts={[{ id: l.id, name: l.name, destination: 'whole', massMg: l.massMg }]}
                        />
                        <span
                          className={`mt-1 block text-[14px] ${due.tone === 'late' || due.tone === 'now' ? 'font-semibold text-alarm' : 'text-ink-soft'}`}
                        >
                          use by {l.useBy === null ? 'no date' : `${dayName(l.useBy)}, ${due.text}`}
                        </span>
                      </span>
                      <span className="figure text-right text-xl">{formatMass(l.massMg)}</span>
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
