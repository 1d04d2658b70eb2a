/** What weighs, measures and prints: where it answers, what it shows now, when it was last checked. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { Answer, House } from '@zabrik/contract';
import { deviceAddress } from '@zabrik/contract/deviceAddress';
import { roleNames, roles } from '@zabrik/contract/roles';
import { formatMass, formatTemperature, inGrams, inKilograms } from '@zabrik/core';
import { lazy, Suspense, useEffect, useState } from 'react';
import { type UseFormReturn, useFieldArray } from 'react-hook-form';
import { call } from '../../app/api.ts';
import { cablesHere } from '../../app/cable.ts';
import { useCommand } from '../../app/command.ts';
import { api } from '../../app/endpoints.ts';
import { useKeptForm } from '../../app/keptForm.ts';
import { ownScale, useReadingOf } from '../../app/live.ts';
import { useHouse, useMay } from '../../app/queries.ts';
import { Button } from '../../kit/Button.tsx';
import { Check } from '../../kit/Check.tsx';
import { Field } from '../../kit/Field.tsx';
import { Failed, Loading, Notice } from '../../kit/Notice.tsx';
import { Select } from '../../kit/Select.tsx';
import { StillHere } from '../../parts/StillHere.tsx';
import { type DevicesTyped, devicesForm, newScale, settingsOf, typedOf } from './devicesForm.ts';
import { ForChefs, HouseHead } from './HouseHead.tsx';
import { List, Row } from './ListOfThings.tsx';
import { SaveFoot } from './SaveFoot.tsx';
import { ScaleCheckForm } from './ScaleCheckForm.tsx';
import { lastCheckWords } from './scaleCheckWords.ts';
import { Tablets } from './Tablets.tsx';
import { type SaveHouse, useSaveHouse } from './useSaveHouse.ts';

const ScaleCable = lazy(() => import('./ScaleCable.tsx').then((m) => ({ default: m.ScaleCable })));

type Listed = Answer<typeof api.house.devices>['scales'][number];
type Tried = Answer<typeof api.house.tryDevice>;

const isAddress = (text: string): boolean => deviceAddress.safeParse(text.trim()).success;

/** Asks at an address before anything is saved, and says what answered. */
function TryIt({
  kind,
  address,
  onPlate,
}: {
  readonly kind: 'scale' | 'probe' | 'printer';
  readonly address: string;
  readonly onPlate?: (plate: NonNullable<Tried['plate']>) => void;
}) {
  const trying = useCommand(api.house.tryDevice, {
    onDone: ({ plate }) => {
      if (plate !== null) onPlate?.(plate);
    },
  });
  const { answer, last } = trying;
  // what was asked of another address says nothing of this one
  const of = last?.body.address === address.trim();
  const words = (a: Tried): string =>
    !a.answers
      ? `Nothing there answers as a ${kind}. Is it switched on, and on the kitchen’s network?`
      : kind === 'scale'
        ? `It answers, and shows ${formatMass(a.netMg ?? 0)}.${
            a.plate === null
              ? ' It says nothing of its plate: read class, step and capacity from it.'
              : ` Class ${a.plate.accuracyClass}, in steps of ${inGrams(a.plate.intervalMg)} g to ${inKilograms(a.plate.maxMg)} kg.`
          }`
        : kind === 'probe'
          ? `It answers, and shows ${formatTemperature(a.centiC ?? 0)}.`
          : 'It answers.';
  return (
    <>
      <Button
        className="mt-[22px] h-10"
        disabled={trying.pending || !isAddress(address)}
        onClick={() => trying.send({ body: { kind, address: address.trim() } })}
      >
        {trying.pending ? 'Asking…' : 'Try it'}
      </Button>
      {of && answer !== undefined && !trying.pending && (
        <div className="w-full">
          <Notice tone={answer.answers ? 'calm' : 'attention'}>{words(answer)}</Notice>
        </div>
      )}
      {trying.error !== null && (
        <div className="w-full">
          <Notice tone="alarm">{trying.error.message}</Notice>
        </div>
      )}
    </>
  );
}

/** What a scale of the house shows at this moment. */
function ShowsNow({
  id,
  from,
  listed,
}: {
  readonly id: string;
  /** The address that is saved. */
  readonly from: string;
  readonly listed: Listed | undefined;
}) {
  const reading = useReadingOf(id);
  if (id === '') return <span className="text-ink-soft">not saved yet</span>;
  if (ownScale(id) !== undefined) return null;
  if (listed?.address == null) return <span className="text-ink-soft">not connected: weights are typed</span>;
  if (reading === undefined || reading.state === 'away')
    return <span className="border-l-4 border-attention pl-2 font-semibold">does not answer at {listed.address}</span>;
  return (
    <span>
      <output className="figure text-xl">{formatMass(reading.netMg)}</output>{' '}
      <span className="text-ink-soft">
        {reading.state === 'steady' ? 'steady' : reading.state} · {listed.address}
        {from === '' && ', from the start command'}
      </span>
    </span>
  );
}

function ScaleFields({
  form,
  i,
  typed,
  listed,
  house,
}: {
  readonly form: Pick<UseFormReturn<DevicesTyped>, 'register' | 'setValue' | 'formState'>;
  readonly i: number;
  readonly typed: DevicesTyped['scales'][number];
  readonly listed: Listed | undefined;
  readonly house: House;
}) {
  const { register, setValue, formState } = form;
  const may = useMay('house.saveSettings');
  const errors = formState.errors.scales?.[i];
  const [checking, setChecking] = useState(false);
  const saved = house.scales.find((s) => s.id === typed.id);
  const set = (field: 'accuracyClass' | 'intervalG' | 'maxKg', value: string): void =>
    setValue(`scales.${i}.${field}`, value as 'III', { shouldDirty: true, shouldValidate: true });
  return (
    <>
      <fieldset disabled={!may} className="contents">
        <Field
          label="Name"
          dense
          className="min-w-36 flex-1"
          error={errors?.name?.message}
          {...register(`scales.${i}.name`)}
        />
        <Field
          label="Where it answers"
          dense
          className="min-w-48 flex-1"
          placeholder="address:port, or nothing"
          error={errors?.address?.message}
          {...register(`scales.${i}.address`)}
        />
        <TryIt
          kind="scale"
          address={typed.address}
          onPlate={({ accuracyClass, intervalMg, maxMg }) => {
            set('accuracyClass', accuracyClass);
            set('intervalG', String(inGrams(intervalMg)));
            set('maxKg', String(inKilograms(maxMg)));
          }}
        />
        <div className="flex w-full flex-wrap gap-2">
          <Select
            label="Class"
            dense
            options={(['II', 'III', 'IIII'] as const).map((value) => ({ value, name: value }))}
            {...register(`scales.${i}.accuracyClass`)}
          />
          <Field
            label="Step, e"
            unit="g"
            dense
            className="w-28"
            inputMode="decimal"
            error={errors?.intervalG?.message}
            {...register(`scales.${i}.intervalG`)}
          />
          <Field
            label="Holds"
            unit="kg"
            dense
            className="w-28"
            inputMode="decimal"
            error={errors?.maxKg?.message}
            {...register(`scales.${i}.maxKg`)}
          />
          <div className="min-w-56 flex-1 self-end pb-1">
            <ShowsNow id={typed.id} from={saved?.address ?? ''} listed={listed} />
          </div>
        </div>
      </fieldset>
      {saved !== undefined && listed !== undefined && (
        <div className="w-full border-t border-line pt-2">
          <div className="flex flex-wrap items-center justify-between gap-3">
            <p className="text-[15px]">{lastCheckWords(listed.checks[0])}</p>
            <Button className="h-11" aria-expanded={checking} onClick={() => setChecking(!checking)}>
              Check with weights
            </Button>
          </div>
          {cablesHere() && listed.address === null && (
            <Suspense fallback={null}>
              <ScaleCable scaleId={saved.id} scales={house.scales} />
            </Suspense>
          )}
          {checking && <ScaleCheckForm scale={saved} checks={listed.checks} done={() => setChecking(false)} />}
        </div>
      )}
    </>
  );
}

function DevicesForm({
  house,
  listed,
  saving,
}: {
  readonly house: House;
  readonly listed: Answer<typeof api.house.devices>;
  readonly saving: SaveHouse;
}) {
  const form = useKeptForm('devices', devicesForm, typedOf(house));
  const { control, register, handleSubmit, formState, typed, kept } = form;
  const scales = useFieldArray({ control, name: 'scales', keyName: 'row' });
  const may = useMay('house.saveSettings');
  const { errors } = formState;
  return (
    <form
      aria-label="Devices"
      className="grid gap-8"
      onSubmit={(event) => void handleSubmit((read) => saving.save(settingsOf(read), form.clear))(event)}
    >
      <StillHere draft={kept} />
      <List
        title="Scales"
        says="The first is the one at the bench. Class and step stand on the plate: they say how far a balance may be out."
        more="Another scale"
        onMore={may ? () => scales.append(newScale) : undefined}
      >
        {scales.fields.map((row, i) => {
          const { [i]: scale = newScale } = typed.scales;
          return (
            <Row
              key={row.row}
              name={scale.name}
              onAway={may && scales.fields.length > 1 ? () => scales.remove(i) : undefined}
            >
              <ScaleFields
                form={form}
                i={i}
                typed={scale}
                listed={listed.scales.find((s) => s.id === scale.id)}
                house={house}
              />
            </Row>
          );
        })}
      </List>
      <fieldset disabled={!may} className="min-w-0 border-0 p-0">
        <section aria-label="Practice" className="mb-8 grid content-start gap-1">
          <h2 className="text-lg font-bold">A scale to practise on</h2>
          <p className="max-w-[70ch] text-[15px] text-ink-soft">
            Simulated: the bench offers it beside the real ones, and it gives what an animal like the one on the bench
            would weigh. Each of its weights is marked, and a breakdown with one of them cannot be closed.
          </p>
          <Check label="The bench has a practice scale" {...register('practiceScale')} />
        </section>
        <section aria-label="Tablets nobody touches" className="mb-8 grid content-start gap-2">
          <div>
            <h2 className="text-lg font-bold">A tablet that nobody touches</h2>
            <p className="max-w-[70ch] text-[15px] text-ink-soft">
              After so many minutes it asks again who stands there, over the page: what was typed is still there. The
              more somebody may do, the sooner.
            </p>
          </div>
          <div className="flex flex-wrap gap-2">
            {roles.map((role) => (
              <Field
                key={role}
                label={roleNames[role]}
                unit="min"
                dense
                className="w-32"
                inputMode="numeric"
                error={errors.idleMinutes?.[role]?.message}
                {...register(`idleMinutes.${role}`)}
              />
            ))}
          </div>
        </section>
        <section aria-label="Probe and printer" className="grid content-start gap-3">
          <div>
            <h2 className="text-lg font-bold">Probe thermometer and label printer</h2>
            <p className="text-[15px] text-ink-soft">Without them a temperature is typed, and labels are a PDF.</p>
          </div>
          <div className="flex flex-wrap items-start gap-2 rounded-plate border border-line bg-white p-3">
            <Field
              label="Where the probe answers"
              dense
              className="min-w-48 flex-1"
              placeholder={listed.probe ?? 'address:port, or nothing'}
              error={errors.probeAt?.message}
              {...register('probeAt')}
            />
            <TryIt kind="probe" address={typed.probeAt} />
          </div>
          <div className="flex flex-wrap items-start gap-2 rounded-plate border border-line bg-white p-3">
            <Field
              label="Where the label printer answers"
              dense
              className="min-w-48 flex-1"
              placeholder={listed.printer ?? 'address:port, or nothing'}
              error={errors.printerAt?.message}
              {...register('printerAt')}
            />
            <TryIt kind="printer" address={typed.printerAt} />
          </div>
        </section>
      </fieldset>
      {errors.scales?.root?.message !== undefined && <Notice tone="alarm">{errors.scales.root.message}</Notice>}
      <p className="max-w-[70ch] text-[15px] text-ink-soft">
        A device is reached by a small bridge that speaks plain lines over the network. A scale on this tablet’s own
        cable
        {cablesHere()
          ? ' is read here, too'
          : ' can be read where the browser has Web Serial and the address is a safe one; this one cannot'}
        . Tried against the simulated ones that come with Zabrik, never against a scale; the lines are in
        docs/devices.md.
      </p>
      <SaveFoot saving={saving} />
    </form>
  );
}

function DevicesPage() {
  const house = useHouse();
  const client = useQueryClient();
  const devices = useQuery({ queryKey: ['house', 'devices'], queryFn: () => call(api.house.devices, {}) });
  const saving = useSaveHouse();
  const scales = house.data?.scales;
  useEffect(() => {
    if (scales === undefined) return;
    void client.invalidateQueries({ queryKey: ['house', 'devices'] });
  }, [scales, client]);
  return (
    <div className="flex flex-1 flex-col">
      <HouseHead />
      <div className="mx-auto grid w-full max-w-[1000px] gap-8 p-5">
        {house.isPending || devices.isPending ? (
          <Loading />
        ) : house.isLoadingError ? (
          <Failed error={house.error} again={() => void house.refetch()} />
        ) : devices.isLoadingError ? (
          <Failed error={devices.error} again={() => void devices.refetch()} />
        ) : (
          <DevicesForm key={house.data.version} house={house.data} listed={devices.data} saving={saving} />
        )}
        <Tablets />
      </div>
    </div>
  );
}

export default function Devices() {
  return (
    <ForChefs>
      <DevicesPage />
    </ForChefs>
  );
}
