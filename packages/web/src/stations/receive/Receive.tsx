import { zodResolver } from '@hookform/resolvers/zod';
import { useMutation, useQuery } from '@tanstack/react-query';
import type { Delivery } from '@zabrik/contract';
import { formatCount, formatMass, formatTemperature, inGrams } from '@zabrik/core';
import { Scale, ScanBarcode } from 'lucide-react';
import { useRef, useState } from 'react';
import { useForm, useWatch } from 'react-hook-form';
import { Link } from 'react-router';
import { v7 as uuidv7 } from 'uuid';
import { call, Refused } from '../../app/api.ts';
import { clockTime, dayName, dueWords } from '../../app/dates.ts';
import { api } from '../../app/endpoints.ts';
import { useScale } from '../../app/live.ts';
import { moneyOf, useCatalogue, useHouse, useMay } from '../../app/queries.ts';
import { Button } from '../../parts/Button.tsx';
import { Field, inputLook } from '../../parts/Field.tsx';
import { Empty, Failed, Loading, Notice } from '../../parts/Notice.tsx';
import { SimulatedPan } from '../bench/SimulatedPan.tsx';
import { AnimalPicker } from './AnimalPicker.tsx';
import { type BoxRead, readBox } from './boxCode.ts';
import {
  bodyOf,
  type DeliveryInput,
  type DeliveryRead,
  deliveryForm,
  differenceOf,
  emptyDelivery,
  netOf,
} from './deliveryForm.ts';

const differenceWords = (differenceMg: number, differenceMinor: number, money: (minor: number) => string): string => {
  if (differenceMg === 0) return 'The scale agrees with the invoice.';
  const amount = differenceMinor === 0 ? '' : `, ${money(Math.abs(differenceMinor))}`;
  return `${formatMass(Math.abs(differenceMg))} ${differenceMg < 0 ? 'short' : 'over'}${amount}`;
};

/** Grams, until someone types a unit of their own. */
const unitOf = (text: string): string => (/[a-z]/i.test(text) ? '' : 'g');

function Accepted({
  delivery,
  money,
  again,
}: {
  readonly delivery: Delivery;
  readonly money: (minor: number) => string;
  readonly again: () => void;
}) {
  return (
    <section className="rounded-plate border-2 border-calm bg-white p-5" role="status" aria-label="Accepted">
      <p className="text-ink-soft">
        {delivery.speciesName}, {delivery.formName} · {formatMass(delivery.netMg)} · {money(delivery.paidMinor)}
      </p>
      <p className="figure my-2 text-[64px] leading-none" data-testid="new-code">
        {delivery.code}
      </p>
      <p className="mb-1">
        Write it on the box. Use by {dayName(delivery.useBy)} ({dueWords(delivery.useBy).text}).
      </p>
      <p className="mb-4">{differenceWords(delivery.differenceMg, delivery.differenceMinor, money)}</p>
      <div className="flex gap-3">
        <Link
          to={`/bench?lot=${delivery.lotId}`}
          className="inline-flex min-h-14 items-center rounded-plate bg-ink px-5 font-head text-[17px] font-semibold text-white"
        >
          Put it on the bench
        </Link>
        <Button size="bench" onClick={again} autoFocus>
          Next delivery
        </Button>
      </div>
    </section>
  );
}

/** Where a scanner types: it ends with Enter, and what the box says goes into the form. */
function ScanBox({ onRead }: { readonly onRead: (fills: Partial<DeliveryInput>) => void }) {
  const [text, setText] = useState('');
  const [read, setRead] = useState<BoxRead | string | undefined>(undefined);
  const scan = (): void => {
    const box = readBox(text, new Date().getFullYear());
    setRead(box);
    if (typeof box === 'string') return;
    onRead(box.fills);
    setText('');
  };
  return (
    <div>
      <label htmlFor="scan-box" className="sr-only">
        Scan a box
      </label>
      <div className="relative">
        <ScanBarcode size={20} className="absolute top-3 left-3 text-ink-soft" aria-hidden="true" />
        <input
          id="scan-box"
          className={`${inputLook} h-11 pl-10`}
          placeholder="scan a box, or type its code"
          autoComplete="off"
          value={text}
          aria-invalid={typeof read === 'string'}
          aria-describedby="scan-read"
          onChange={(event) => setText(event.target.value)}
          onKeyDown={(event) => {
            if (event.key !== 'Enter') return;
            event.preventDefault();
            if (text !== '') scan();
          }}
        />
      </div>
      <div id="scan-read" role="status" className="text-[14px] leading-snug">
        {typeof read === 'string' && <p className="mt-1 text-alarm">{read}</p>}
        {typeof read === 'object' && (
          <>
            <p className="mt-1 text-ink-soft">{read.says.join(' · ')}</p>
            {read.mind.map((m) => (
              <p key={m} className="mt-1 font-semibold text-alarm">
                {m}
              </p>
            ))}
          </>
        )}
      </div>
    </div>
  );
}

function DeliveryForm() {
  const catalogue = useCatalogue();
  const suppliers = useQuery({
    queryKey: ['suppliers'],
    queryFn: () => call(api.receive.suppliers, {}),
    staleTime: 600_000,
  });
  const { data: house } = useHouse();
  const scale = useScale();
  const money = moneyOf(house);
  const key = useRef(uuidv7());
  const [accepted, setAccepted] = useState<Delivery | undefined>(undefined);
  const form = useForm<DeliveryInput, undefined, DeliveryRead>({
    resolver: zodResolver(deliveryForm),
    defaultValues: emptyDelivery,
  });
  const { register, setValue, handleSubmit, setError, reset, formState, control } = form;
  const values = useWatch({ control });
  const accept = useMutation({
    mutationFn: (read: DeliveryRead) => call(api.receive.accept, { body: bodyOf(read) }, key.current),
    onSuccess: (delivery) => {
      key.current = uuidv7();
      setAccepted(delivery);
      reset({ ...emptyDelivery, supplierId: values.supplierId ?? '' });
    },
    onError: (error) => {
      if (!(error instanceof Refused)) return;
      key.current = uuidv7(); // the server kept nothing under it
      if (error.field === 'form' || error.field === 'species') setError(error.field, { message: error.message });
    },
  });
  if (catalogue.isPending || suppliers.isPending) return <Loading />;
  if (catalogue.isError) return <Failed error={catalogue.error} again={() => void catalogue.refetch()} />;
  if (suppliers.isError) return <Failed error={suppliers.error} again={() => void suppliers.refetch()} />;
  if (accepted !== undefined)
    return <Accepted delivery={accepted} money={money} again={() => setAccepted(undefined)} />;

  const species = catalogue.data.species.find((s) => s.id === values.species);
  const error = (name: keyof DeliveryInput): string | undefined => formState.errors[name]?.message;
  const typed = { ...emptyDelivery, ...values };
  const netMg = netOf(typed);
  const difference = differenceOf(typed);
  const fromScale = (name: 'gross' | 'tare') => (
    <Button
      look="plain"
      className="h-14 px-3"
      disabled={scale.state !== 'steady' || scale.grossMg <= 0}
      onClick={() => setValue(name, String(inGrams(scale.grossMg)), { shouldValidate: true })}
      aria-label={`Take ${name === 'gross' ? 'gross' : 'box'} from the scale`}
    >
      <Scale size={20} aria-hidden="true" />
      <span className="figure w-16 text-right" aria-hidden="true">
        {scale.state === 'away' ? 'no scale' : formatCount(inGrams(scale.grossMg))}
      </span>
    </Button>
  );
  return (
    <form
      className="grid gap-4"
      noValidate
      onSubmit={(event) => void handleSubmit((read) => accept.mutate(read))(event)}
    >
      <div className="grid grid-cols-2 gap-x-5 gap-y-4">
        <div>
          <AnimalPicker
            species={catalogue.data.species}
            chosen={values.species ?? ''}
            error={error('species')}
            onChoose={(id) => {
              setValue('species', id, { shouldValidate: true });
              const forms = catalogue.data.species.find((s) => s.id === id)?.forms.filter((f) => f.purchase) ?? [];
              setValue('form', (forms.find((f) => f.id === 'gutted') ?? forms[0])?.id ?? '');
            }}
          />
          {error('species') !== undefined && <p className="mt-1 text-[14px] text-alarm">{error('species')}</p>}
          {species !== undefined && (
            <fieldset className="mt-3 min-w-0 border-0 p-0">
              <legend className="mb-1 text-[15px] font-semibold">How it came</legend>
              <div className="flex flex-wrap gap-2">
                {species.forms
                  .filter((f) => f.purchase)
                  .map((f) => (
                    <label
                      key={f.id}
                      className="flex min-h-11 cursor-pointer items-center rounded-md border-[1.5px] border-line-strong bg-white px-3 has-checked:border-ink has-checked:bg-flow has-checked:text-white has-focus-visible:outline-3 has-focus-visible:outline-attention"
                    >
                      <input type="radio" value={f.id} className="sr-only" {...register('form')} />
                      {f.name}
                    </label>
                  ))}
              </div>
              {error('form') !== undefined && <p className="mt-1 text-[14px] text-alarm">{error('form')}</p>}
            </fieldset>
          )}
        </div>
        <div>
          <ScanBox
            onRead={(fills) => {
              for (const [name, value] of Object.entries(fills))
                setValue(name as keyof DeliveryInput, value, { shouldValidate: true, shouldDirty: true });
            }}
          />
          <h2 className="mt-3 mb-1 text-[15px] font-semibold">Before you sign for it</h2>
          {species === undefined ? (
            <p className="text-ink-soft">Pick the animal: what to look at, smell and press stands here.</p>
          ) : (
            <ul className="grid content-start gap-1 text-[14px] leading-snug text-ink-soft">
              {species.inspection.slice(0, 4).map((i) => (
                <li key={i.check}>
                  <strong className="text-ink">{i.check}:</strong> {i.accept}; refuse {i.reject}
                </li>
              ))}
            </ul>
          )}
        </div>
      </div>
      <div className="grid gap-5 md:grid-cols-[1fr_1fr_0.62fr]">
        <Field
          label="Gross, with box"
          unit={unitOf(typed.gross)}
          big
          inputMode="decimal"
          error={error('gross')}
          action={fromScale('gross')}
          {...register('gross')}
        />
        <Field
          label="Box"
          unit={unitOf(typed.tare)}
          big
          inputMode="decimal"
          error={error('tare')}
          action={fromScale('tare')}
          {...register('tare')}
        />
        <div>
          <span className="mb-1 block text-[15px] font-semibold">Net</span>
          <output className="figure flex h-14 items-center text-[32px]" data-testid="net">
            {netMg === undefined ? '–' : formatMass(netMg)}
          </output>
        </div>
      </div>
      <div className="grid gap-5 md:grid-cols-[1fr_1fr_1.24fr]">
        <Field
          label="Invoice weight"
          unit={unitOf(typed.invoice)}
          big
          inputMode="decimal"
          error={error('invoice')}
          {...register('invoice')}
        />
        <Field
          label="Invoice price, in all"
          unit={house?.currency === 'GBP' ? '£' : (house?.currency ?? '')}
          big
          inputMode="decimal"
          error={error('price')}
          {...register('price')}
        />
        <div className="self-end pb-1" role="status" data-testid="difference">
          {difference !== undefined && (
            <Notice tone={difference.differenceMg < 0 ? 'attention' : 'calm'}>
              <span className="figure">
                {differenceWords(difference.differenceMg, difference.differenceMinor, money)}
              </span>
              {difference.differenceMg < 0 && ' Tell the driver before he leaves.'}
            </Notice>
          )}
        </div>
      </div>
      <div className="grid grid-cols-4 gap-5">
        <div>
          <label htmlFor="supplier" className="mb-1 block text-[15px] font-semibold">
            Supplier
          </label>
          <select
            id="supplier"
            className={`${inputLook} h-11`}
            aria-invalid={error('supplierId') !== undefined}
            {...register('supplierId')}
          >
            <option value="">who brought it</option>
            {suppliers.data.suppliers.map((s) => (
              <option key={s.id} value={s.id}>
                {s.name}
              </option>
            ))}
          </select>
          {error('supplierId') !== undefined && <p className="mt-1 text-[14px] text-alarm">{error('supplierId')}</p>}
        </div>
        <Field
          label="Temperature"
          unit="°C"
          inputMode="decimal"
          error={error('temperature')}
          {...register('temperature')}
        />
        <Field label="How many" inputMode="numeric" error={error('animals')} {...register('animals')} />
        <Field label="Origin" error={error('origin')} {...register('origin')} />
        <Field label="Landed or killed on" type="date" error={error('landedOn')} {...register('landedOn')} />
        <Field label="Use by" type="date" error={error('useBy')} hint="Empty: the usual life" {...register('useBy')} />
        <Field label="Note" className="col-span-2" error={error('note')} {...register('note')} />
      </div>
      {accept.isError && <Notice tone="alarm">{accept.error.message} What you typed is still here.</Notice>}
      <div className="flex items-center justify-between gap-4">
        <SimulatedPan />
        <Button type="submit" look="strong" size="bench" className="ml-auto px-10" disabled={accept.isPending}>
          {accept.isPending ? 'Writing…' : 'Accept delivery'}
        </Button>
      </div>
    </form>
  );
}

function Latest() {
  const { data: house } = useHouse();
  const money = moneyOf(house);
  const deliveries = useQuery({
    queryKey: ['deliveries'],
    queryFn: () => call(api.receive.list, { query: { limit: 12 } }),
  });
  if (deliveries.isPending) return <Loading />;
  if (deliveries.isError) return <Failed error={deliveries.error} again={() => void deliveries.refetch()} />;
  if (deliveries.data.deliveries.length === 0)
    return <Empty title="Nothing has come in yet">The first delivery you accept stands here with its code.</Empty>;
  return (
    <ol className="divide-y divide-line">
      {deliveries.data.deliveries.map((d) => (
        <li key={d.lotId} className={`py-2.5 ${d.reversed ? 'line-through opacity-60' : ''}`}>
          <Link to={`/larder/${d.lotId}`} className="block hover:bg-sheet-soft">
            <span className="flex justify-between gap-3">
              <span className="truncate font-head font-semibold">{d.speciesName}</span>
              <span className="figure">{formatMass(d.netMg)}</span>
            </span>
            <span className="flex justify-between gap-3 text-[14px] text-ink-soft">
              <span className="truncate">
                {d.code} · {d.supplierName}
              </span>
              <span className="whitespace-nowrap">
                {money(d.paidMinor)}
                {d.temperatureCentiC !== null && ` · ${formatTemperature(d.temperatureCentiC)}`}
              </span>
            </span>
            <span className="flex justify-between gap-3 text-[14px] text-ink-soft">
              <span>
                {dayName(d.at)} {clockTime(d.at)}
              </span>
              {d.differenceMg !== 0 && (
                <span className={d.differenceMg < 0 ? 'font-semibold text-alarm' : ''}>
                  {differenceWords(d.differenceMg, d.differenceMinor, money)}
                </span>
              )}
            </span>
          </Link>
        </li>
      ))}
    </ol>
  );
}

export default function Receive() {
  const may = useMay('receive.accept');
  return (
    <div className="grid flex-1 content-start lg:grid-cols-[1fr_320px] lg:content-stretch">
      <section className="bg-ground p-5" aria-label="Receive a delivery">
        <h1 className="sr-only">Receive</h1>
        {may ? (
          <DeliveryForm />
        ) : (
          <Empty title="Receiving is for the kitchen">You can read what came in beside this.</Empty>
        )}
      </section>
      <aside className="border-l border-line bg-sheet p-4" aria-label="Latest deliveries">
        <h2 className="mb-1 text-lg font-bold">Came in</h2>
        <Latest />
      </aside>
    </div>
  );
}
