import { useQuery } from '@tanstack/react-query';
import type { Ask } from '@zabrik/contract';
import type { CoolingSteps } from '@zabrik/core';
import { formatTemperature, inKilograms, secondsToFreeze } from '@zabrik/core';
import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { v7 as uuidv7 } from 'uuid';
import { dayAndTime } from '../../app/dates.ts';
import { api } from '../../app/endpoints.ts';
import { useKeptDocument } from '../../app/keptForm.ts';
import { keep } from '../../app/outbox.ts';
import { lotQuery, useHouse, useMay } from '../../app/queries.ts';
import { Button } from '../../kit/Button.tsx';
import { Field } from '../../kit/Field.tsx';
import { Failed, Loading } from '../../kit/Notice.tsx';
import { NumField } from '../../kit/NumField.tsx';
import { Select } from '../../kit/Select.tsx';
import { Toggle } from '../../kit/Toggle.tsx';
import { unitWord } from '../../parts/amountIn.ts';
import { ProbeReading } from '../../parts/ProbeReading.tsx';
import { RefusedHere } from '../../parts/RefusedHere.tsx';
import { StillHere } from '../../parts/StillHere.tsx';
import { verdictWords } from '../../parts/verdictWords.ts';
import { CoolingChart } from './CoolingChart.tsx';
import { CoolingLog } from './CoolingLog.tsx';
import { CoolingMethods } from './CoolingMethods.tsx';
import { longWords, type Method, methodsFor } from './coolingMethods.ts';
import { PotsHead } from './PotsHead.tsx';
import { useHouseLimits } from './potQueries.ts';
import { useLogs } from './useLogs.ts';
import { useStove } from './useStove.ts';

/** Below what it stands still: a strong stock gels at about 15 °C, a purée stands from the beginning. */
const setsAt = { no: null, gels: 15, thick: 110 } as const;

interface Typed {
  readonly kind: 'cooling' | 'freezing';
  readonly name: string;
  /** null: as much as there is. */
  readonly litres: number | null;
  readonly sets: keyof typeof setsAt;
  readonly coldRoomC: number;
  readonly thickMm: number;
  readonly freezerC: number;
  /** null: the first that is offered, and the first way that holds it. */
  readonly limitId: string | null;
  readonly picked: string | null;
}
const blank: Typed = {
  kind: 'cooling',
  name: '',
  litres: null,
  sets: 'no',
  coldRoomC: 2,
  thickMm: 40,
  freezerC: -25,
  limitId: null,
  picked: null,
};
/** Its fields take nothing that is wrong; what it is at is asked for by the button. */
const faultless = (): readonly string[] => [];

/** How a batch is best cooled before it is done, and the logs of what cools now. */
export default function CoolingPage() {
  const { query: coolings, open, closed, refused } = useLogs();
  const limits = useHouseLimits();
  const { data: house } = useHouse();
  const may = useMay('pots.startCooling');
  const [params] = useSearchParams();
  const asked = params.get('lot');
  const lot = useQuery({ ...lotQuery(asked ?? ''), enabled: asked !== null });
  // begun in the cooling step of a batch that is on: there is no lot yet
  const fromStove = params.get('batch');
  const batch = useStove(fromStove ?? '').query;
  const called = lot.data?.name ?? batch.data?.title;
  const form = useKeptDocument<Typed>(`cooling/${asked ?? fromStove ?? ''}`, blank, faultless);
  const { put, kept } = form;
  const { kind, name, litres, sets, coldRoomC, thickMm, freezerC, limitId, picked } = form.doc;
  // what it is at is not kept: read an hour ago it is another figure. And what the field begins with is for the forecast: a log begins with one
  // that someone read
  const [fromC, setFromC] = useState(kind === 'cooling' ? 85 : 2);
  const [read, setRead] = useState<'probe' | 'typed'>();

  const shown = (limits.data?.limits ?? []).filter((l) => l.shownAs === 'limit').map((l) => l.limit);
  const cooling = shown.filter((l): l is CoolingSteps => l.kind === 'cooling');
  const freezing = shown.filter((l) => l.kind === 'freeze_treatment');
  const offered = kind === 'cooling' ? cooling : freezing;
  const limit = offered.find((l) => l.id === limitId) ?? offered[0];
  const steps = limit?.kind === 'cooling' ? limit : undefined;
  const there = lot.data?.massMg ?? batch.data?.expectedMg.mean;
  const amount = litres ?? (there === undefined ? 10 : Math.max(0.1, inKilograms(there)));
  const methods = useMemo(
    () => methodsFor({ litres: amount, fromC, setsAtC: setsAt[sets], coldRoomC }, house, steps),
    [amount, fromC, sets, coldRoomC, house, steps],
  );
  const method =
    methods.find((m) => m.id === picked) ?? methods.find((m) => m.progress?.verdict === 'within') ?? methods[0];
  // moving air; seven tenths of fish is water that freezes
  const freezes = secondsToFreeze({ shape: 'slab', halfM: thickMm / 2_000, h: 25, airC: freezerC, waterShare: 0.7 });
  const begin = (m: Method): void => {
    if (read === undefined) return;
    const id = uuidv7();
    const body: Ask<typeof api.pots.startCooling>['body'] = {
      id,
      kind,
      lotId: asked,
      batchId: fromStove,
      name: (name.trim() || called || (kind === 'cooling' ? 'A pot' : 'Fish')).slice(0, 120),
      setup: {
        mediumId: kind === 'cooling' ? m.mediumId : 'blast-freezer',
        vesselName: m.vesselName,
        vessel: m.vessel,
        count: m.count,
        litres: Math.round(m.litres * 1_000) / 1_000,
        airC: m.mediumId.startsWith('cold-room') && kind === 'cooling' ? coldRoomC : null,
        setsAtC: setsAt[sets],
      },
      limitId: limit?.id ?? null,
      at: new Date().toISOString(),
      centiC: Math.round(fromC * 100),
      source: read,
    };
    void keep(
      api.pots.startCooling,
      { body },
      {
        about: id,
        says: `${kind === 'cooling' ? 'Cooling' : 'Freezing'} of ${body.name} from ${formatTemperature(body.centiC)}`,
      },
    );
    setRead(undefined);
    form.clear();
  };
  return (
    <div className="flex flex-1 flex-col">
      <PotsHead />
      <div className="grid flex-1 content-start gap-5 p-4 xl:grid-cols-[minmax(0,560px)_minmax(0,1fr)]">
        <section aria-label="Before it is cooled" className="grid min-w-0 content-start gap-3">
          <div className="flex flex-wrap items-center gap-3">
            <h2 className="text-xl font-bold">
              {kind === 'cooling' ? 'Cool' : 'Freeze'} {called ?? 'a batch'}
            </h2>
            <fieldset
              className="flex overflow-hidden rounded-md border-[1.5px] border-line-strong p-0"
              aria-label="What is logged"
            >
              {(['cooling', 'freezing'] as const).map((k) => (
                <Toggle
                  key={k}
                  on={kind === k}
                  shape="part"
                  className="font-head font-semibold"
                  onPress={() => {
                    put({ kind: k });
                    setFromC(k === 'cooling' ? 85 : 2);
                    setRead(undefined);
                  }}
                >
                  {k === 'cooling' ? 'Cool it' : 'Freeze for parasites'}
                </Toggle>
              ))}
            </fieldset>
          </div>
          <StillHere draft={kept} />
          <div className="grid grid-cols-2 gap-3 md:grid-cols-5">
            {called === undefined && (
              <Field
                label="What"
                className="col-span-2"
                placeholder={kind === 'cooling' ? 'brown stock' : 'salmon, for raw'}
                value={name}
                maxLength={120}
                onChange={(event) => put({ name: event.target.value })}
              />
            )}
            <NumField
              label={unitWord(kind === 'cooling' ? 'l' : 'kg')}
              unit={kind === 'cooling' ? 'l' : 'kg'}
              value={amount}
              min={0.1}
              max={500}
              onValue={(l) => put({ litres: l })}
            />
            <NumField
              label="It is at"
              unit="°C"
              value={fromC}
              min={-40}
              max={110}
              onValue={(C) => {
                setFromC(C);
                setRead('typed');
              }}
            />
            {kind === 'cooling' && (
              <NumField
                label="Cold room at"
                unit="°C"
                value={coldRoomC}
                min={-5}
                max={15}
                onValue={(C) => put({ coldRoomC: C })}
              />
            )}
          </div>
          <div className="grid gap-3 md:grid-cols-2">
            <Select
              label="Limit"
              value={limit?.id ?? ''}
              onValue={(id) => put({ limitId: id })}
              options={offered.map((l) => ({ value: l.id, name: `${l.citation.document}: ${l.product}` }))}
            />
            {kind === 'cooling' && (
              <Select
                label="How thick"
                value={sets}
                onValue={(how) => put({ sets: how })}
                options={[
                  { value: 'no', name: 'moves by itself: a thin stock' },
                  { value: 'gels', name: 'gels as it cools: a strong stock' },
                  { value: 'thick', name: 'stands still: a purée, a ragù, rice' },
                ]}
              />
            )}
          </div>
          {may && (
            <ProbeReading
              onTake={(centiC) => {
                setFromC(centiC / 100);
                setRead('probe');
              }}
            />
          )}
          {may && method !== undefined && (
            <Button variant="strong" size="bench" disabled={read === undefined} onClick={() => begin(method)}>
              {read !== undefined
                ? `Begin the log at ${formatTemperature(fromC * 100)}`
                : 'Read what it is at, then begin the log'}
              {read !== undefined && kind === 'cooling' && `: ${method.medium.toLowerCase()}`}
            </Button>
          )}
          {kind === 'cooling' && (
            <>
              <CoolingMethods methods={methods} limit={steps} on={method?.id} onPick={(id) => put({ picked: id })} />
              {method !== undefined && (
                <CoolingChart
                  curves={[{ name: 'expected', C: method.C }]}
                  limit={steps}
                  clockFrom={method.progress?.start?.to}
                  label={`Expected: ${method.medium}, ${method.vesselName}`}
                  height={210}
                />
              )}
            </>
          )}
          {kind === 'freezing' && (
            <div className="grid grid-cols-2 items-end gap-3 md:grid-cols-4">
              <NumField
                label="Thick"
                unit="mm"
                value={thickMm}
                min={3}
                max={300}
                decimals={0}
                onValue={(mm) => put({ thickMm: mm })}
              />
              <NumField
                label="Freezer at"
                unit="°C"
                value={freezerC}
                min={-60}
                max={-5}
                onValue={(C) => put({ freezerC: C })}
              />
              <p className="col-span-2 pb-2" data-testid="freezes">
                <span className="figure text-xl">{longWords(freezes === undefined ? undefined : freezes / 60)}</span>{' '}
                until it is frozen through, by thickness; the hours of the limit begin after it.
              </p>
            </div>
          )}
          {limit !== undefined && (
            <p className="text-[14px] text-ink-soft">
              {limit.citation.document} {limit.citation.section}. {limit.caution} What is foretold is an estimate, good
              to a factor of two: only measured readings close a log, and your local code decides.
            </p>
          )}
        </section>
        <section aria-label="Logs" className="grid min-w-0 content-start gap-4">
          <h2 className="text-xl font-bold">Cooling now</h2>
          <RefusedHere refused={refused} className="" />
          {coolings.isPending && <Loading />}
          {coolings.isLoadingError && <Failed error={coolings.error} again={() => void coolings.refetch()} />}
          {coolings.isSuccess && open.length === 0 && (
            <p className="text-ink-soft">
              No log is open. Choose how it is cooled, and begin the log when it leaves the stove.
            </p>
          )}
          {open.map((c) => (
            <CoolingLog key={c.id} cooling={c} />
          ))}
          {closed.length > 0 && (
            <>
              <h2 className="text-xl font-bold">Closed</h2>
              <ul className="divide-y divide-line" aria-label="Closed logs">
                {closed.map((c) => (
                  <li key={c.id} className="flex flex-wrap justify-between gap-x-4 py-2">
                    <span>
                      <strong>{c.name}</strong>{' '}
                      <span className="text-ink-soft">
                        {c.closedAt !== null && dayAndTime(c.closedAt)}, {c.readings.length} readings, {c.by}
                        {c.outcome !== null && ` · ${c.outcome}`}
                      </span>
                    </span>
                    <span className={c.verdict === 'outside' ? 'font-semibold text-alarm' : 'font-semibold'}>
                      {verdictWords[c.verdict].toLowerCase()}
                    </span>
                  </li>
                ))}
              </ul>
            </>
          )}
        </section>
      </div>
    </div>
  );
}
