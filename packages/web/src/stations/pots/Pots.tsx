import { useMutation, useQuery } from '@tanstack/react-query';
import type { Answer, Lot, Run } from '@zabrik/contract';
import {
  formatMass,
  inGrams,
  inKilograms,
  parseMass,
  Refusal,
  refusalOf,
  type ScaledUse,
  scaleUse,
  type Use,
} from '@zabrik/core';
import { ChevronRight } from 'lucide-react';
import { Collapsible } from 'radix-ui';
import { useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import { v7 as uuidv7 } from 'uuid';
import { call } from '../../app/api.ts';
import { clockTime, dayAndTime, dueWords } from '../../app/dates.ts';
import { api } from '../../app/endpoints.ts';
import { useScale } from '../../app/live.ts';
import { moneyOf, useCatalogue, useHouse, useMay } from '../../app/queries.ts';
import { Button } from '../../parts/Button.tsx';
import { clothOf } from '../../parts/destinations.ts';
import { Field, inputLook } from '../../parts/Field.tsx';
import { Empty, Failed, Loading, Notice } from '../../parts/Notice.tsx';
import { SimulatedPan } from '../bench/SimulatedPan.tsx';

type Catalogue = Answer<typeof api.house.catalogue>;

const clothOfKind = { stock: clothOf.stock, filling: clothOf.filling, 'staff-dish': clothOf.staff } as const;

const offerOf = (lot: Lot): { lotId: string; name: string; category: string; massMg: number; pastDate: boolean } => ({
  lotId: lot.id,
  name: lot.name,
  category: lot.category ?? '',
  massMg: lot.massMg,
  pastDate: dueWords(lot.useBy).tone === 'late',
});

const readMass = (text: string): number | undefined => {
  try {
    return parseMass(text);
  } catch {
    return undefined;
  }
};

function UseCard({
  use,
  on,
  offered,
  onPick,
}: {
  readonly use: Use;
  readonly on: boolean;
  readonly offered: number;
  readonly onPick: () => void;
}) {
  return (
    <button
      type="button"
      aria-pressed={on}
      onClick={onPick}
      className={`flex min-h-16 w-full overflow-hidden rounded-plate border-[1.5px] bg-white text-left ${on ? 'border-ink outline-3 outline-ink' : 'border-line-strong hover:border-ink'}`}
    >
      <span className={`w-2.5 shrink-0 ${clothOfKind[use.kind]}`} aria-hidden="true" />
      <span className="px-3 py-2">
        <span className="block font-head text-[17px] leading-tight font-semibold">{use.title}</span>
        <span className="text-[14px] text-ink-soft">
          {offered > 0 ? `${formatMass(offered)} lies ready` : 'nothing ready for it'} · {use.minutes.typical} min
        </span>
      </span>
    </button>
  );
}

interface BatchProps {
  readonly use: Use;
  readonly lots: readonly Lot[];
}

function Batch({ use, lots }: BatchProps) {
  const { data: house } = useHouse();
  const may = useMay('pots.plan');
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [vesselId, setVesselId] = useState<string>('');
  const [onHand, setOnHand] = useState<Readonly<Record<string, string>>>({});
  const key = useRef(uuidv7());
  const plan = useMutation({
    mutationFn: (body: { lotIds: string[]; onHandMg: Record<string, number> }) =>
      call(
        api.pots.plan,
        { body: { useId: use.id, vesselId: vesselId === '' ? null : vesselId, ...body } },
        key.current,
      ),
    onSettled: () => {
      key.current = uuidv7();
    },
  });
  const shown = lots.filter(
    (lot) =>
      lot.category !== null &&
      lot.destination !== null &&
      (use.trays.includes(lot.destination) || refusalOf(use, offerOf(lot)) === undefined),
  );
  const usual = (lot: Lot): boolean =>
    refusalOf(use, offerOf(lot)) === undefined &&
    lot.destination !== null &&
    use.trays.includes(lot.destination) &&
    lot.destination !== 'portion';
  const isIn = (lot: Lot): boolean => (usual(lot) ? !left.has(lot.id) : left.has(lot.id));
  const chosen = shown.filter((lot) => refusalOf(use, offerOf(lot)) === undefined && isIn(lot));
  const vessel = house?.vessels.find((v) => v.id === vesselId);
  const limits = Object.fromEntries(
    Object.entries(onHand).flatMap(([id, text]) =>
      readMass(text) === undefined || text.trim() === '' ? [] : [[id, readMass(text) ?? 0]],
    ),
  );
  const scaled = useMemo((): ScaledUse | undefined => {
    try {
      return scaleUse(use, chosen.map(offerOf), {
        onHandMg: limits,
        vesselLitres: vessel === undefined ? undefined : vessel.litres * 0.75,
      });
    } catch (error) {
      if (error instanceof Refusal) return undefined;
      throw error;
    }
  }, [use, chosen, limits, vessel]);
  const takenOf = (id: string): number => scaled?.taken.find((t) => t.lotId === id)?.massMg ?? 0;
  return (
    <div className="grid min-h-0 grid-cols-[1fr_1fr] gap-5">
      <section aria-label={`Lots for ${use.title}`}>
        <h3 className="mb-2 text-[15px] font-bold text-ink-soft">What there is, oldest first</h3>
        {shown.length === 0 && (
          <p className="text-ink-soft">
            Nothing in the trays for this. Bones and trim stand here once a stage is closed.
          </p>
        )}
        <ul className="grid gap-1.5">
          {shown.map((lot) => {
            const refusal = refusalOf(use, offerOf(lot));
            const due = dueWords(lot.useBy);
            return (
              <li key={lot.id}>
                <label
                  className={`grid min-h-13 cursor-pointer grid-cols-[22px_1fr_auto] items-center gap-3 rounded-md border-[1.5px] px-3 py-1.5 ${refusal !== undefined ? 'border-dashed border-line-strong bg-sheet-soft text-ink-soft' : isIn(lot) ? 'border-ink bg-white' : 'border-line bg-white'}`}
                >
                  <input
                    type="checkbox"
                    className="size-5 accent-flow"
                    disabled={refusal !== undefined || !may}
                    checked={refusal === undefined && isIn(lot)}
                    onChange={() =>
                      setLeft((before) => {
                        const after = new Set(before);
                        if (!after.delete(lot.id)) after.add(lot.id);
                        return after;
                      })
                    }
                  />
                  <span className="min-w-0 leading-tight">
                    <span className="block truncate font-semibold">{lot.name}</span>
                    <span
                      className={`block text-[13px] ${refusal === undefined ? 'truncate' : ''} ${due.tone === 'late' || due.tone === 'now' ? 'text-alarm' : 'text-ink-soft'}`}
                    >
                      {refusal !== undefined
                        ? `Refused: ${refusal}`
                        : `${lot.code} · ${due.text}${lot.destination === 'portion' ? ' · a portion, only if you choose it' : ''}`}
                    </span>
                  </span>
                  <span className="figure text-right">
                    {formatMass(lot.massMg)}
                    {refusal === undefined && isIn(lot) && takenOf(lot.id) < lot.massMg && (
                      <span className="block text-[13px] font-normal text-ink-soft">
                        takes {formatMass(takenOf(lot.id))}
                      </span>
                    )}
                  </span>
                </label>
              </li>
            );
          })}
        </ul>
      </section>
      <section aria-label={`Batch of ${use.title}`}>
        <h3 className="mb-2 text-[15px] font-bold text-ink-soft">The batch</h3>
        {scaled === undefined ? (
          <p className="text-ink-soft">Choose at least one lot that may go in.</p>
        ) : (
          <div className="rounded-plate border-[1.5px] border-ink bg-white p-4">
            <table className="w-full">
              <tbody>
                <tr className="border-b border-line">
                  <th scope="row" className="py-1.5 text-left font-semibold">
                    {use.baseName}
                  </th>
                  <td className="figure py-1.5 text-right">{formatMass(scaled.baseMg)}</td>
                  <td className="w-36" />
                </tr>
                {scaled.ingredients.map((i) => (
                  <tr key={i.id} className="border-b border-line">
                    <th scope="row" className="py-1 text-left font-normal">
                      {i.name}
                    </th>
                    <td className="figure py-1 text-right">{formatMass(i.massMg)}</td>
                    <td className="py-1 pl-3">
                      {i.id !== 'water' && (
                        <input
                          aria-label={`${i.name} there is, grams`}
                          placeholder="there is, g"
                          inputMode="decimal"
                          className={`${inputLook} h-9 px-2 py-1 text-[14px]`}
                          value={onHand[i.id] ?? ''}
                          onChange={(event) => setOnHand((before) => ({ ...before, [i.id]: event.target.value }))}
                        />
                      )}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
            {use.litresPerKg !== undefined && (
              <label className="mt-3 flex items-center justify-between gap-3 text-[15px]">
                Pot
                <select
                  className={`${inputLook} h-10 w-40`}
                  value={vesselId}
                  onChange={(event) => setVesselId(event.target.value)}
                >
                  <option value="">large enough</option>
                  {house?.vessels.map((v) => (
                    <option key={v.id} value={v.id}>
                      {v.name}
                    </option>
                  ))}
                </select>
              </label>
            )}
            <p className="mt-3">
              <span className="figure text-2xl">
                {scaled.plates === undefined
                  ? `${inKilograms(scaled.output.meanMg).toFixed(2)} kg`
                  : `${scaled.plates} plates`}
              </span>{' '}
              <span className="text-ink-soft">
                of {use.output.name}, usually {inKilograms(scaled.output.lowMg).toFixed(2)} to{' '}
                {inKilograms(scaled.output.highMg).toFixed(2)} kg
              </span>
            </p>
            <p className="text-[15px]">
              Limited by <strong>{scaled.limiting.name}</strong>.
            </p>
            {scaled.capped.map((c) => (
              <p key={c.category} className="text-[15px] text-ink-soft">
                {formatMass(c.heldBackMg)} held back. {c.reason}.
              </p>
            ))}
            {may && (
              <Button
                look="strong"
                size="bench"
                className="mt-3 w-full"
                disabled={plan.isPending}
                onClick={() => plan.mutate({ lotIds: chosen.map((lot) => lot.id), onHandMg: limits })}
              >
                Plan this batch
              </Button>
            )}
            {plan.isError && <p className="mt-2 text-alarm">{plan.error.message}</p>}
          </div>
        )}
        <ul className="mt-3 grid gap-1 text-[14px] text-ink-soft">
          {use.cautions.map((c) => (
            <li key={c} className="border-l-4 border-alarm bg-alarm-soft px-2.5 py-1 text-ink">
              {c}
            </li>
          ))}
          <li>Source of the ratio: {use.source}.</li>
        </ul>
      </section>
    </div>
  );
}

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

function Runs({ catalogue }: { readonly catalogue: Catalogue }) {
  const runs = useQuery({ queryKey: ['runs'], queryFn: () => call(api.pots.list, { query: { limit: 30 } }) });
  const { data: house } = useHouse();
  const money = moneyOf(house);
  if (runs.isPending) return <Loading />;
  if (runs.isError) return <Failed error={runs.error} again={() => void runs.refetch()} />;
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

export default function Pots() {
  const catalogue = useCatalogue();
  const [useId, setUseId] = useState<string | undefined>(undefined);
  const lots = useQuery({
    queryKey: ['lots', 'pieces'],
    queryFn: () => call(api.larder.list, { query: { kind: 'piece', limit: 200 } }),
  });
  if (catalogue.isPending || lots.isPending) return <Loading />;
  if (catalogue.isError) return <Failed error={catalogue.error} again={() => void catalogue.refetch()} />;
  if (lots.isError) return <Failed error={lots.error} again={() => void lots.refetch()} />;
  const uses = catalogue.data.uses;
  const use = uses.find((u) => u.id === useId) ?? uses[0];
  const ready = (u: Use): number =>
    lots.data.lots
      .filter(
        (lot) =>
          lot.category !== null &&
          lot.destination !== null &&
          lot.destination !== 'portion' &&
          u.trays.includes(lot.destination) &&
          refusalOf(u, offerOf(lot)) === undefined,
      )
      .reduce((sum, lot) => sum + lot.massMg, 0);
  return (
    <div className="grid flex-1 grid-cols-[1fr_380px]">
      <section className="grid content-start gap-4 bg-ground p-5" aria-label="Make a batch">
        <h1 className="sr-only">Pots</h1>
        <ul className="grid grid-cols-3 gap-4">
          {uses.map((u) => (
            <li key={u.id}>
              <UseCard use={u} on={u.id === use?.id} offered={ready(u)} onPick={() => setUseId(u.id)} />
            </li>
          ))}
        </ul>
        {use === undefined ? (
          <Empty title="No uses in the catalogue">Uses turn bones and trim into batches.</Empty>
        ) : (
          <Batch key={use.id} use={use} lots={lots.data.lots} />
        )}
        <Notice tone="attention">
          Cool at once and log it. Limits, times and who may decide come from your local code and your own plan.
        </Notice>
      </section>
      <aside className="border-l border-line bg-sheet p-4" aria-label="Batches">
        <Runs catalogue={catalogue.data} />
        <div className="mt-4">
          <SimulatedPan />
        </div>
      </aside>
    </div>
  );
}
