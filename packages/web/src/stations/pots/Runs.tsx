import { useMutation, useQuery } from '@tanstack/react-query';
import type { Answer, Run } from '@zabrik/contract';
import { formatMass, inGrams, type Use } from '@zabrik/core';
import { ChevronRight } from 'lucide-react';
import { Collapsible } from 'radix-ui';
import { useRef, useState } from 'react';
import { Link } from 'react-router';
import { v7 as uuidv7 } from 'uuid';
import { call } from '../../app/api.ts';
import { clockTime, dayAndTime } from '../../app/dates.ts';
import { api } from '../../app/endpoints.ts';
import { useScale } from '../../app/live.ts';
import { moneyOf, useHouse, useMay } from '../../app/queries.ts';
import { Button } from '../../parts/Button.tsx';
import { Field } from '../../parts/Field.tsx';
import { Failed, Loading } from '../../parts/Notice.tsx';

import { readMass } from './offers.ts';

type Catalogue = Answer<typeof api.house.catalogue>;

function Planned({ run, use }: { readonly run: Run; readonly use: Use | undefined }) {
  const may = useMay('pots.finish');
  const scale = useScale();
  const [output, setOutput] = useState('');
  const [spent, setSpent] = useState('');
  const key = useRef(uuidv7());
  const finish = useMutation({
    mutationFn: () =>
      call(
        api.pots.finish,
        {
          params: { runId: run.id },
          body: {
            outputMg: readMass(output) ?? 0,
            spentMg: spent.trim() === '' ? 0 : (readMass(spent) ?? 0),
            note: null,
          },
        },
        key.current,
      ),
    onSettled: () => {
      key.current = uuidv7();
    },
  });
  const cancel = useMutation({ mutationFn: () => call(api.pots.cancel, { params: { runId: run.id }, body: {} }) });
  const outputMg = readMass(output);
  const spentFine = spent.trim() === '' || readMass(spent) !== undefined;
  const low = outputMg !== undefined && outputMg > 0 && outputMg < run.expectedMg.low;
  const high = outputMg !== undefined && outputMg > run.expectedMg.high;
  return (
    <li className="rounded-plate border-[1.5px] border-ink bg-white p-3">
      <h3 className="text-lg leading-tight font-bold">{run.title}</h3>
      <p className="text-[14px] text-ink-soft">
        planned {clockTime(run.plannedAt)}, {run.by}
      </p>
      <p className="mb-2 text-[15px] leading-snug text-ink-soft">
        {run.inputs.map((i) => `${formatMass(i.massMg)} ${i.name}`).join(', ')};{' '}
        {run.ingredients.map((i) => `${formatMass(i.massMg)} ${i.name}`).join(', ')}
      </p>
      {use !== undefined && (
        <Collapsible.Root className="mb-2 text-[15px]">
          <Collapsible.Trigger className="group flex min-h-10 items-center gap-1.5 font-semibold">
            <ChevronRight size={18} className="group-data-[state=open]:rotate-90" aria-hidden="true" />
            How it is made
          </Collapsible.Trigger>
          <Collapsible.Content>
            <ol className="list-decimal pl-6">
              {use.steps.map((s) => (
                <li key={s}>{s}</li>
              ))}
            </ol>
          </Collapsible.Content>
        </Collapsible.Root>
      )}
      {may && (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            finish.mutate();
          }}
        >
          <div className="grid grid-cols-2 gap-3">
            <Field
              label="Came out"
              unit="g"
              inputMode="decimal"
              value={output}
              onChange={(event) => setOutput(event.target.value)}
              error={output !== '' && outputMg === undefined ? 'A weight, such as 6300 or 6.3 kg' : undefined}
              hint={
                low
                  ? `Less than usual, ${formatMass(run.expectedMg.low)}`
                  : high
                    ? `More than usual, ${formatMass(run.expectedMg.high)}`
                    : `usually ${formatMass(run.expectedMg.low)} to ${formatMass(run.expectedMg.high)}`
              }
            />
            {run.kind === 'stock' ? (
              <Field
                label="Bones thrown away"
                unit="g"
                inputMode="decimal"
                value={spent}
                onChange={(event) => setSpent(event.target.value)}
                error={spentFine ? undefined : 'A weight'}
                hint="Empty: counted as boiled off"
              />
            ) : (
              <span />
            )}
          </div>
          <div className="mt-2 flex flex-wrap gap-2">
            <Button
              disabled={scale.state !== 'steady' || scale.netMg <= 0}
              onClick={() => setOutput(String(inGrams(scale.netMg)))}
            >
              From the scale
            </Button>
            <Button
              look="strong"
              type="submit"
              className="flex-1"
              disabled={outputMg === undefined || outputMg <= 0 || !spentFine || finish.isPending}
            >
              Done
            </Button>
            <Button look="alarm" disabled={cancel.isPending} onClick={() => cancel.mutate()}>
              Call it off
            </Button>
          </div>
          {(finish.isError || cancel.isError) && (
            <p className="mt-2 text-alarm">{(finish.error ?? cancel.error)?.message}</p>
          )}
        </form>
      )}
    </li>
  );
}

/** Planned batches with what came out of them, and those that are done. */
export function Runs({ catalogue }: { readonly catalogue: Catalogue }) {
  const runs = useQuery({ queryKey: ['runs'], queryFn: () => call(api.pots.list, { query: { limit: 30 } }) });
  const { data: house } = useHouse();
  const money = moneyOf(house);
  if (runs.isPending) return <Loading />;
  if (runs.isLoadingError) return <Failed error={runs.error} again={() => void runs.refetch()} />;
  const planned = runs.data.runs.filter((r) => r.state === 'planned');
  const done = runs.data.runs.filter((r) => r.state === 'done');
  return (
    <>
      <h2 className="mb-2 text-xl font-bold">Planned</h2>
      {planned.length === 0 ? (
        <p className="mb-5 text-ink-soft">Nothing planned. Choose what to make and plan a batch.</p>
      ) : (
        <ul className="mb-5 grid gap-3">
          {planned.map((run) => (
            <Planned key={run.id} run={run} use={catalogue.uses.find((u) => u.id === run.useId)} />
          ))}
        </ul>
      )}
      <h2 className="mb-1 text-xl font-bold">Done</h2>
      <ol className="divide-y divide-line">
        {done.map((run) => (
          <li key={run.id} className="py-2">
            <span className="flex justify-between gap-3">
              <span className="font-head font-semibold">{run.title}</span>
              <span className="figure">{formatMass(run.outputMg ?? 0)}</span>
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
    </>
  );
}
