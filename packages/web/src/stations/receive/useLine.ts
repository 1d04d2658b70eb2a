/** One line of a delivery while it is typed: its fields and what is known beside them, kept on the tablet, and the command it becomes. */
import { zodResolver } from '@hookform/resolvers/zod';
import type { DeliveryLine, Order } from '@zabrik/contract';
import { formatMass, type InspectionAnswer, inspectionFor, massTyped, parseMass, usuallyRaised } from '@zabrik/core';
import { useEffect, useRef } from 'react';
import { useForm, useWatch } from 'react-hook-form';
import { Refused } from '../../app/api.ts';
import { useCommand } from '../../app/command.ts';
import { useDraft } from '../../app/draft.ts';
import { api } from '../../app/endpoints.ts';
import type { Catalogue } from '../../app/queries.ts';
import {
  bodyOf,
  cameUsually,
  type DeliveryInput,
  type DeliveryRead,
  deliveryForm,
  emptyDelivery,
  type LineBody,
  netOf,
  nextLine,
  papersOf,
  type RefusalReason,
  refusing,
  unweighedForm,
} from './deliveryForm.ts';

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

export interface LineProps {
  readonly deliveryId: string;
  readonly order: Order | undefined;
  /** The supplier of the delivery, once it has a line. */
  readonly supplierId: string | undefined;
  readonly onLine: (line: DeliveryLine) => void;
}

/** A line of a delivery as it is spoken of while it waits. */
const lineWords = (body: LineBody, catalogue: Catalogue): string => {
  const name =
    catalogue.species.find((s) => s.id === body.species)?.name ??
    catalogue.goods.find((g) => g.id === body.goods)?.name;
  return `${name ?? 'A delivery'}, ${body.grossMg === null ? 'refused' : `${formatMass(body.grossMg - body.tareMg)} taken in`}`;
};

/** Fields that a scanned box fills but that are its own, not the line's. */
const fromCode = (fills: Partial<DeliveryInput>): [keyof DeliveryInput, string][] =>
  Object.entries(fills).flatMap(([name, value]): [keyof DeliveryInput, string][] =>
    typeof value === 'string' ? [[name as keyof DeliveryInput, value]] : [],
  );

export type Line = ReturnType<typeof useLine>;

export function useLine({ deliveryId, order, supplierId, onLine }: LineProps, catalogue: Catalogue, currency: string) {
  const blank = { ...emptyDelivery, supplierId: supplierId ?? order?.supplierId ?? '' };
  const draft = useDraft<Typed>('line', { ...besideTheFields, fields: blank });
  const { put } = draft;
  const { answers, boxes, addedUp, codes, position, fields } = draft.value;
  const form = useForm<DeliveryInput, undefined, DeliveryRead>({
    resolver: zodResolver(deliveryForm(currency)),
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
  const send = useCommand(api.receive.accept, {
    spoken: ({ body }) => ({ says: lineWords(body, catalogue) }),
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

  const species = catalogue.species.find((s) => s.id === typed.species);
  const papers = papersOf(species, typed.raised);
  const raised = usuallyRaised(species) === null ? null : typed.raised === '' ? usuallyRaised(species) : typed.raised;
  const classId = inspectionFor(typed.goods === '' ? species : undefined, typed.form, typed.came, raised);
  const inspection = catalogue.inspection.find((c) => c.id === classId);
  const netMg = netOf(typed);
  const whole = addedUp && boxesMatch(typed, boxes);
  const context = (ofBoxes: boolean) => ({
    deliveryId,
    orderId: order?.id ?? null,
    orderPosition: position,
    inspection: answers.filter((a) => inspection?.points.some((p) => p.id === a.pointId)),
    boxes: ofBoxes ? boxes : [],
    codes: [...codes],
  });
  const write = (change: (body: LineBody) => LineBody): void =>
    void handleSubmit((read) => send.send({ body: change(bodyOf(read, papers, context(whole))) }))();
  /** What is refused unweighed has no figures: of those the form asks none. */
  const refuse = (reason: RefusalReason, refusedMg: number | 'all'): void => {
    const unweighed =
      refusedMg === 'all' && typed.gross.trim() === '' ? unweighedForm(currency).safeParse(typed) : undefined;
    if (unweighed?.success === true)
      send.send({ body: refusing(bodyOf(unweighed.data, papers, context(false)), reason, 'all') });
    else write((body) => refusing(body, reason, refusedMg));
  };
  const boxNow = () => ({
    grossMg: parseMass(typed.gross) as number,
    tareMg: (typed.tare.trim() === '' ? 0 : parseMass(typed.tare)) as number,
  });
  const judged = { shouldValidate: true } as const;
  /** It is this animal, or these goods: in the form it usually comes in. */
  const choose = (id: string, what: 'species' | 'goods'): void => {
    put({ answers: [] });
    setValue('goods', what === 'goods' ? id : '');
    setValue('species', what === 'species' ? id : '', judged);
    const chosen = catalogue.species.find((s) => s.id === id);
    const forms = chosen?.forms.filter((f) => f.purchase) ?? [];
    const usual = what === 'goods' ? '' : ((forms.find((f) => f.id === 'gutted') ?? forms[0])?.id ?? '');
    setValue('form', usual);
    setValue('raised', '');
    setValue('came', cameUsually(chosen, usual));
  };
  /** It is this line of the order. */
  const chooseOrdered = (l: Order['lines'][number], ofSupplier: string): void => {
    put({ position: l.position });
    setValue('goods', l.goods ?? '');
    setValue('species', l.species ?? '', judged);
    setValue('form', l.form ?? '');
    setValue('raised', '');
    const animal = catalogue.species.find((x) => x.id === l.species);
    setValue('came', cameUsually(animal, l.form ?? ''));
    setValue('supplierId', ofSupplier);
    if (l.count !== null) setValue('animals', String(l.count));
    setValue('invoice', massTyped(l.massMg - l.cameMg > 0 ? l.massMg - l.cameMg : l.massMg));
  };
  return {
    setSupplier: (id: string): void => setValue('supplierId', id, judged),
    typed,
    register,
    setValue,
    error: (name: keyof DeliveryInput): string | undefined => formState.errors[name]?.message,
    /** Typed before this screen was opened, and how to let go of it. */
    before: {
      typedAt: fields.species === '' && fields.goods === '' ? undefined : draft.typedAt,
      clear: () => {
        draft.clear();
        reset(blank);
      },
    },
    species,
    papers,
    raised,
    classId,
    inspection,
    answers,
    position,
    netMg,
    boxes,
    /** Gross and tare in the form are those of all boxes together. */
    whole,
    send,
    write,
    refuse,
    choose,
    chooseOrdered,
    answer: (answer: InspectionAnswer): void =>
      draft.set((before) => ({
        ...before,
        answers: [...before.answers.filter((a) => a.pointId !== answer.pointId), answer],
      })),
    /** A code on the box was read: what it says goes into the fields. */
    fill: (fills: Partial<DeliveryInput>, code: string): void => {
      for (const [name, value] of fromCode(fills)) setValue(name, value, { shouldValidate: true, shouldDirty: true });
      draft.set((before) => ({ ...before, codes: [...before.codes, code].slice(0, 200) }));
    },
    addBox: (): void => {
      put({ boxes: whole ? boxes : [...boxes, boxNow()], addedUp: false });
      setValue('gross', '');
      setValue('tare', '');
    },
    dropBox: (): void => put({ boxes: boxes.slice(0, -1), addedUp: false }),
    sumBoxes: (): void => {
      const all = netMg === undefined ? boxes : [...boxes, boxNow()];
      put({ boxes: all, addedUp: true });
      setValue('gross', massTyped(all.reduce((s, b) => s + b.grossMg, 0)), judged);
      setValue('tare', massTyped(all.reduce((s, b) => s + b.tareMg, 0)), judged);
    },
  };
}

/** The same but for what a thousandth of an ounce rounds away. */
const near = (aMg: number, bMg: number): boolean => Math.abs(aMg - bMg) <= 20;

/** Whether gross and tare in the form are those of all boxes together. */
function boxesMatch(
  typed: DeliveryInput,
  boxes: readonly { readonly grossMg: number; readonly tareMg: number }[],
): boolean {
  if (boxes.length === 0) return false;
  try {
    return (
      near(
        parseMass(typed.gross),
        boxes.reduce((s, b) => s + b.grossMg, 0),
      ) &&
      near(
        typed.tare.trim() === '' ? 0 : parseMass(typed.tare),
        boxes.reduce((s, b) => s + b.tareMg, 0),
      )
    );
  } catch {
    return false;
  }
}
