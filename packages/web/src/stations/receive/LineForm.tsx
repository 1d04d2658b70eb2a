import { zodResolver } from '@hookform/resolvers/zod';
import type { DeliveryLine, Order } from '@zabrik/contract';
import {
  type CameAs,
  formatCount,
  formatMass,
  type InspectionAnswer,
  inGrams,
  inspectionFor,
  parseMass,
  usuallyRaised,
} from '@zabrik/core';
import { Scale } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { useForm, useWatch } from 'react-hook-form';
import { Refused } from '../../app/api.ts';
import { useCommand } from '../../app/command.ts';
import { useDraft } from '../../app/draft.ts';
import { api } from '../../app/endpoints.ts';
import { useScale } from '../../app/live.ts';
import { moneyOf, useCatalogue, useHouse } from '../../app/queries.ts';
import { Button } from '../../kit/Button.tsx';
import { Choice } from '../../kit/Choice.tsx';
import { Field } from '../../kit/Field.tsx';
import { Failed, Loading, Notice } from '../../kit/Notice.tsx';
import { Select } from '../../kit/Select.tsx';
import { Toggle } from '../../kit/Toggle.tsx';
import { Caution } from '../../parts/Caution.tsx';
import { Nod } from '../../parts/Nod.tsx';
import { ProbeReading } from '../../parts/ProbeReading.tsx';
import { SimulatedPan } from '../../parts/SimulatedPan.tsx';
import { StillHere } from '../../parts/StillHere.tsx';
import { AnimalPicker } from './AnimalPicker.tsx';
import {
  bodyOf,
  cameUsually,
  type DeliveryInput,
  type DeliveryRead,
  deliveryForm,
  differenceOf,
  emptyDelivery,
  type LineBody,
  netOf,
  nextLine,
  papersOf,
  type RefusalReason,
  refusing,
} from './deliveryForm.ts';
import { Inspection } from './Inspection.tsx';
import { Papers } from './Papers.tsx';
import { ScanBox } from './ScanBox.tsx';
import { useSuppliers } from './useSuppliers.ts';
import { Verdict } from './Verdict.tsx';
import { differenceWords } from './words.ts';

/** Grams, until someone types a unit of their own. */
const unitOf = (text: string): string => (/[a-z]/i.test(text) ? '' : 'g');

const cameNames: readonly { readonly id: CameAs; readonly name: string }[] = [
  { id: 'fresh', name: 'fresh' },
  { id: 'live', name: 'live' },
  { id: 'frozen', name: 'frozen' },
  { id: 'vacuum-packed', name: 'vacuum-packed' },
];

/** Fields that a scanned box fills but that are its own, not the line's. */
const fromCode = (fills: Partial<DeliveryInput>): [keyof DeliveryInput, string][] =>
  Object.entries(fills).flatMap(([name, value]): [keyof DeliveryInput, string][] =>
    typeof value === 'string' ? [[name as keyof DeliveryInput, value]] : [],
  );

interface Props {
  readonly deliveryId: string;
  readonly order: Order | undefined;
  /** The supplier of the delivery, once it has a line. */
  readonly supplierId: string | undefined;
  readonly onLine: (line: DeliveryLine) => void;
}

/** What is typed, and what is known of the line beside its fields. */
interface Typed {
  readonly fields: DeliveryInput;
  readonly answers: readonly InspectionAnswer[];
  readonly boxes: NonNullable<LineBody['boxes']>;
  /** Gross and tare in the form are those of all boxes together. */
  readonly addedUp: boolean;
  readonly codes: readonly string[];
  readonly position: number | null;
}
const besideTheFields: Omit<Typed, 'fields'> = { answers: [], boxes: [], addedUp: false, codes: [], position: null };

/** A line of a delivery as it is spoken of while it waits. */
const lineWords = (body: LineBody, catalogue: ReturnType<typeof useCatalogue>['data']): string => {
  const name =
    catalogue?.species.find((s) => s.id === body.species)?.name ??
    catalogue?.goods.find((g) => g.id === body.goods)?.name;
  return `${name ?? 'A delivery'}, ${body.grossMg === null ? 'refused' : `${formatMass(body.grossMg - body.tareMg)} taken in`}`;
};

/** One line of a delivery: what it is, what the papers and the nose say, what the scale says, and the verdict. */
export function LineForm({ deliveryId, order, supplierId, onLine }: Props) {
  const catalogue = useCatalogue();
  const suppliers = useSuppliers();
  const { data: house } = useHouse();
  const scale = useScale();
  const money = moneyOf(house);
  const blank = { ...emptyDelivery, supplierId: supplierId ?? order?.supplierId ?? '' };
  const draft = useDraft<Typed>('line', { ...besideTheFields, fields: blank });
  const { put } = draft;
  const { answers, boxes, addedUp, codes, position, fields } = draft.value;
  const form = useForm<DeliveryInput, undefined, DeliveryRead>({
    resolver: zodResolver(deliveryForm),
    defaultValues: fields,
  });
  const { register, setValue, handleSubmit, setError, reset, formState, control } = form;
  // an order that is touched fills in who brings it, and leaves what was typed
  const touched = useRef(order?.id);
  useEffect(() => {
    if (touched.current === order?.id) return;
    touched.current = order?.id;
    if (order !== undefined && supplierId === undefined) setValue('supplierId', order.supplierId);
    put({ position: null });
  }, [order, supplierId, setValue, put]);
  const values = useWatch({ control });
  const typed = { ...emptyDelivery, ...values };
  useEffect(() => put({ fields: { ...emptyDelivery, ...values } }), [values, put]);
  const next = (): void => {
    const following = nextLine(typed);
    draft.set({ ...besideTheFields, fields: following });
    reset(following);
  };
  const anew = (): void => {
    draft.clear();
    reset(blank);
  };
  const send = useCommand(api.receive.accept, {
    spoken: ({ body }) => ({ says: lineWords(body, catalogue.data) }),
    onDone: (line) => {
      next();
      onLine(line);
    },
    onKept: next,
    onFailed: (error) => {
      if (!(error instanceof Refused)) return;
      if (error.field === 'form' || error.field === 'species') setError(error.field, { message: error.message });
    },
  });
  if (catalogue.isPending || suppliers.isPending) return <Loading />;
  if (catalogue.isLoadingError) return <Failed error={catalogue.error} again={() => void catalogue.refetch()} />;
  if (suppliers.isLoadingError) return <Failed error={suppliers.error} again={() => void suppliers.refetch()} />;

  const species = catalogue.data.species.find((s) => s.id === typed.species);
  const papers = papersOf(species, typed.raised);
  const raised = usuallyRaised(species) === null ? null : typed.raised === '' ? usuallyRaised(species) : typed.raised;
  const classId = inspectionFor(typed.goods === '' ? species : undefined, typed.form, typed.came, raised);
  const inspection = catalogue.data.inspection.find((c) => c.id === classId);
  const error = (name: keyof DeliveryInput): string | undefined => formState.errors[name]?.message;
  const netMg = netOf(typed);
  const whole = addedUp && boxesMatch(typed, boxes);
  const difference = differenceOf(typed, house?.tolerance);
  const write = (change: (body: LineBody) => LineBody): void =>
    void handleSubmit((read) =>
      send.send({
        body: change(
          bodyOf(read, papers, {
            deliveryId,
            orderId: order?.id ?? null,
            orderPosition: position,
            inspection: answers.filter((a) => inspection?.points.some((p) => p.id === a.pointId)),
            boxes: whole ? boxes : [],
            codes: [...codes],
          }),
        ),
      }),
    )();
  /** What is refused unweighed has no figures: the form need not be whole for it. */
  const refuse = (reason: RefusalReason, refusedMg: number | 'all'): void => {
    if (refusedMg === 'all' && typed.gross.trim() === '') {
      const invoice = typed.invoice.trim() === '' ? '1' : typed.invoice;
      const read = deliveryForm.safeParse({
        ...typed,
        gross: invoice,
        tare: '',
        invoice,
        price: typed.price === '' ? '0' : typed.price,
      });
      if (read.success) {
        const body = bodyOf(read.data, papers, {
          deliveryId,
          orderId: order?.id ?? null,
          orderPosition: position,
          inspection: [...answers],
          boxes: [],
          codes: [...codes],
        });
        send.send({ body: { ...refusing(body, reason, 'all'), grossMg: null, tareMg: 0 } });
        return;
      }
    }
    write((body) => refusing(body, reason, refusedMg));
  };
  const boxNow = () => ({
    grossMg: parseMass(typed.gross) as number,
    tareMg: (typed.tare.trim() === '' ? 0 : parseMass(typed.tare)) as number,
  });
  const addBox = (): void => {
    draft.put({ boxes: whole ? boxes : [...boxes, boxNow()] });
    draft.put({ addedUp: false });
    setValue('gross', '');
    setValue('tare', '');
  };
  const sumBoxes = (): void => {
    const all = netMg === undefined ? boxes : [...boxes, boxNow()];
    draft.put({ boxes: all, addedUp: true });
    setValue('gross', String(inGrams(all.reduce((s, b) => s + b.grossMg, 0))), { shouldValidate: true });
    setValue('tare', String(inGrams(all.reduce((s, b) => s + b.tareMg, 0))), { shouldValidate: true });
  };
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
      onSubmit={(event) => {
        event.preventDefault();
        write((body) => body);
      }}
    >
      {(fields.species !== '' || fields.goods !== '') && <StillHere draft={{ typedAt: draft.typedAt, clear: anew }} />}
      {order !== undefined && (
        <fieldset className="min-w-0 border-0 p-0">
          <legend className="mb-1 text-[15px] font-semibold">Expected of {order.supplierName}</legend>
          <div className="flex flex-wrap gap-2">
            {order.lines.map((l) => (
              <Toggle
                key={l.position}
                on={position === l.position}
                size="bench"
                className={`text-left leading-tight ${l.cameMg >= l.massMg * 0.9 ? 'border-line bg-sheet text-ink-soft' : ''}`}
                onPress={() => {
                  draft.put({ position: l.position });
                  setValue('goods', l.goods ?? '');
                  setValue('species', l.species ?? '', { shouldValidate: true });
                  setValue('form', l.form ?? '');
                  setValue('raised', '');
                  setValue(
                    'came',
                    cameUsually(
                      catalogue.data.species.find((x) => x.id === l.species),
                      l.form ?? '',
                    ),
                  );
                  setValue('supplierId', order.supplierId);
                  if (l.count !== null) setValue('animals', String(l.count));
                  setValue('invoice', String(inGrams(l.massMg - l.cameMg > 0 ? l.massMg - l.cameMg : l.massMg)));
                }}
              >
                <span className="block font-semibold">{l.name}</span>
                <span className="text-[14px]">
                  {formatMass(l.massMg)}
                  {l.cameMg > 0 && `, ${formatMass(l.cameMg)} came`}
                </span>
              </Toggle>
            ))}
          </div>
        </fieldset>
      )}
      <div className="grid grid-cols-2 gap-x-5 gap-y-4">
        <div>
          <AnimalPicker
            species={catalogue.data.species}
            goods={catalogue.data.goods}
            chosen={typed.goods === '' ? typed.species : typed.goods}
            error={error('species')}
            onChoose={(id, what) => {
              draft.put({ answers: [] });
              setValue('goods', what === 'goods' ? id : '');
              setValue('species', what === 'species' ? id : '', { shouldValidate: true });
              const chosen = catalogue.data.species.find((s) => s.id === id);
              const forms = chosen?.forms.filter((f) => f.purchase) ?? [];
              const usual = what === 'goods' ? '' : ((forms.find((f) => f.id === 'gutted') ?? forms[0])?.id ?? '');
              setValue('form', usual);
              setValue('raised', '');
              setValue('came', cameUsually(chosen, usual));
            }}
          />
          {error('species') !== undefined && <p className="mt-1 text-[14px] text-alarm">{error('species')}</p>}
          {species !== undefined && (
            <Choice
              legend="How it came"
              error={error('form')}
              className="mt-3"
              options={species.forms.filter((f) => f.purchase).map((f) => ({ value: f.id, name: f.name }))}
              {...register('form', {
                onChange: (event: { target: { value: string } }) => {
                  // a lobster is alive, its cooked tail is not
                  if (typed.came === 'live' || typed.came === 'fresh')
                    setValue('came', cameUsually(species, event.target.value));
                },
              })}
            />
          )}
          {raised !== null && (
            <fieldset className="mt-2 min-w-0 border-0 p-0">
              <legend className="sr-only">Wild or raised</legend>
              <div className="flex flex-wrap gap-2">
                {(['wild', 'farmed'] as const).map((how) => (
                  <Toggle key={how} on={raised === how} shape="pill" onPress={() => setValue('raised', how)}>
                    {how === 'wild' ? 'wild, shot' : 'farmed'}
                  </Toggle>
                ))}
              </div>
            </fieldset>
          )}
          {(species !== undefined || typed.goods !== '') && (
            <Choice
              legend="Fresh, live, frozen or packed"
              quiet
              round
              className="mt-2"
              options={cameNames.map((c) => ({ value: c.id, name: c.name }))}
              {...register('came')}
            />
          )}
        </div>
        <div>
          <ScanBox
            onRead={(fills, code) => {
              for (const [name, value] of fromCode(fills))
                setValue(name, value, { shouldValidate: true, shouldDirty: true });
              draft.set((before) => ({ ...before, codes: [...before.codes, code].slice(0, 200) }));
            }}
          />
          <div className="mt-3">
            <Caution id={papers === 'game' ? 'game.source' : classId === 'live-shellfish' ? 'molluscs' : 'receiving'} />
          </div>
          <div className="mt-3 grid grid-cols-[120px_minmax(0,1fr)] items-end gap-3">
            <Field
              label="Temperature"
              unit="°C"
              inputMode="decimal"
              error={error('temperature')}
              {...register('temperature')}
            />
            <ProbeReading
              onTake={(centiC) => setValue('temperature', (centiC / 100).toFixed(1), { shouldValidate: true })}
            />
          </div>
        </div>
      </div>
      {inspection !== undefined && (species !== undefined || typed.goods !== '') && (
        <Inspection
          inspection={inspection}
          answers={answers}
          onAnswer={(answer) =>
            draft.set((before) => ({
              ...before,
              answers: [...before.answers.filter((a) => a.pointId !== answer.pointId), answer],
            }))
          }
          tags={(species?.inspection ?? []).slice(0, 2)}
        />
      )}
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
      <div className="-mt-2 flex flex-wrap items-center gap-2 text-[15px]">
        <Button disabled={netMg === undefined && !whole} onClick={addBox}>
          Another box
        </Button>
        {boxes.length > 0 && (
          <>
            <span data-testid="boxes">
              {boxes.length} {boxes.length === 1 ? 'box' : 'boxes'}:{' '}
              {boxes.map((b) => formatMass(b.grossMg - b.tareMg)).join(', ')}
            </span>
            <Button look="plain" disabled={whole} onClick={sumBoxes}>
              Add them up
            </Button>
            <Button
              onClick={() => {
                draft.put({ boxes: boxes.slice(0, -1), addedUp: false });
              }}
            >
              Take the last back
            </Button>
          </>
        )}
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
            <Notice tone={difference.differenceMg < 0 && !difference.within ? 'attention' : 'calm'}>
              <span className="figure">
                {differenceWords(difference.differenceMg, difference.differenceMinor, money)}
              </span>
              {difference.differenceMg !== 0 && difference.within && ', which the scales may differ'}
              {difference.differenceMg < 0 && !difference.within && ' Tell the driver before he leaves.'}
            </Notice>
          )}
        </div>
      </div>
      <div className="grid grid-cols-4 gap-x-4 gap-y-3">
        <Select
          label="Supplier"
          error={error('supplierId')}
          {...register('supplierId')}
          disabled={supplierId !== undefined}
          none="who brought it"
          options={suppliers.data.suppliers.map((s) => ({ value: s.id, name: s.name }))}
        />
        <Field label="Invoice number" error={error('invoiceNumber')} {...register('invoiceNumber')} />
        <Field label="How many" inputMode="numeric" error={error('animals')} {...register('animals')} />
        <Field label="Origin" error={error('origin')} {...register('origin')} />
        <Field label="Landed or killed on" type="date" error={error('landedOn')} {...register('landedOn')} />
        <Field label="Use by" type="date" error={error('useBy')} hint="Empty: the usual life" {...register('useBy')} />
        <Field label="Note" className="col-span-2" error={error('note')} {...register('note')} />
      </div>
      <Papers kind={papers} register={register} error={error} />
      {send.error instanceof Refused && send.error.code === 'needs_a_nod' ? (
        <Nod error={send.error} onNod={() => write((body) => ({ ...body, nod: true }))} words="Take it in, on hold" />
      ) : (
        send.error !== null && <Notice tone="alarm">{send.error.message} What you typed is still here.</Notice>
      )}
      <div className="sticky bottom-0 -mx-5 flex flex-wrap items-center justify-between gap-4 border-t border-line bg-ground px-5 py-3">
        <SimulatedPan />
        <Verdict netMg={netMg} busy={send.pending} onAccept={() => write((body) => body)} onRefuse={refuse} />
      </div>
    </form>
  );
}

/** Whether gross and tare in the form are those of all boxes together. */
function boxesMatch(
  typed: DeliveryInput,
  boxes: readonly { readonly grossMg: number; readonly tareMg: number }[],
): boolean {
  if (boxes.length === 0) return false;
  try {
    return (
      parseMass(typed.gross) === boxes.reduce((s, b) => s + b.grossMg, 0) &&
      (typed.tare.trim() === '' ? 0 : parseMass(typed.tare)) === boxes.reduce((s, b) => s + b.tareMg, 0)
    );
  } catch {
    return false;
  }
}
