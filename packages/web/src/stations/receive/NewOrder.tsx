import type { Ask } from '@zabrik/contract';
import { addDays, formatMass, nextTurn } from '@zabrik/core';
import { useFieldArray } from 'react-hook-form';
import { z } from 'zod';
import { useCommand } from '../../app/command.ts';
import { timeIn, todayIn } from '../../app/dates.ts';
import { api } from '../../app/endpoints.ts';
import { useKeptForm } from '../../app/keptForm.ts';
import { moneyOf, useCatalogue, useHouse } from '../../app/queries.ts';
import { Button } from '../../kit/Button.tsx';
import { DateField } from '../../kit/DateField.tsx';
import { Field } from '../../kit/Field.tsx';
import { Notice } from '../../kit/Notice.tsx';
import { weightIn } from '../../kit/readers.ts';
import { named, Select } from '../../kit/Select.tsx';
import { StillHere } from '../../parts/StillHere.tsx';
import { boughtItems, itemId } from './boughtItems.ts';
import { hasRounds, moneyWords, packsWords, wantedWords } from './supplierWords.ts';
import { useSuppliers } from './useSuppliers.ts';

type OrderLine = Ask<typeof api.receive.order>['body']['lines'][number];

/** What the draft of an order is called. */
export const NEW_ORDER = 'order';

const orderForm = z
  .object({
    supplierId: z.string().min(1, 'Say who brings it'),
    dueOn: z.iso.date('The day it is expected on'),
    what: z.string(),
    mass: z.string(),
    lines: z.array(z.custom<OrderLine>()),
  })
  .refine(({ what, mass }) => what === '' && mass.trim() === '', {
    path: ['what'],
    message: 'This line is not on the order yet: Add it, or empty it',
  })
  .refine(({ what, mass, lines }) => lines.length > 0 || what !== '' || mass.trim() !== '', {
    path: ['what'],
    message: 'Nothing is on it yet: say what and how much, then Add',
  })
  .transform(({ supplierId, dueOn, lines }) => ({ supplierId, dueOn, note: null, lines }));
type Typed = z.input<typeof orderForm>;

/** Writes down what was ordered: a supplier, a day, and its lines one by one. */
export function NewOrder({ done }: { readonly done: () => void }) {
  const { data: catalogue } = useCatalogue();
  const suppliers = useSuppliers();
  const money = moneyOf(useHouse().data);
  const form = useKeptForm<Typed, z.output<typeof orderForm>>(NEW_ORDER, orderForm, {
    supplierId: '',
    dueOn: addDays(todayIn(), 1),
    what: '',
    mass: '',
    lines: [],
  });
  const { register, control, setValue, handleSubmit, formState, kept } = form;
  const { what, mass } = form.typed;
  // two lines may be alike: each has a key of its own
  const lines = useFieldArray({ control, name: 'lines' });
  const dueOn = form.typed.dueOn;
  const order = useCommand(api.receive.order, {
    onDone: () => {
      form.clear();
      done();
    },
  });
  const supplier = suppliers.data?.suppliers.find((x) => x.id === form.typed.supplierId);
  // what is agreed with them stands first
  const theirs = new Set(supplier?.terms.items.map(itemId));
  const items = boughtItems(catalogue).sort((a, b) => Number(theirs.has(b.value)) - Number(theirs.has(a.value)));
  const now = { day: todayIn(), time: timeIn() };
  const wanted = supplier === undefined ? undefined : wantedWords(supplier.terms, dueOn, now);
  const pack = supplier?.terms.items.find((x) => itemId(x) === what)?.packMg ?? null;
  // the day it comes by itself, until somebody says another
  const chosen = (id: string): void => {
    const terms = suppliers.data?.suppliers.find((x) => x.id === id)?.terms;
    setValue('supplierId', id, { shouldValidate: formState.isSubmitted });
    if (terms !== undefined && hasRounds(terms)) setValue('dueOn', nextTurn(terms, now.day, now.time).comesOn);
  };
  const massMg = weightIn(mass);
  const add = (): void => {
    const [first = '', second = ''] = what.split('/');
    if (massMg === undefined || second === '') return;
    const goods = first === 'goods';
    lines.append({
      species: goods ? null : first,
      form: goods ? null : second,
      goods: goods ? second : null,
      count: null,
      massMg,
      minorPerKg: null,
    });
    setValue('mass', '');
    setValue('what', '', { shouldValidate: formState.isSubmitted });
  };
  const { errors } = formState;
  const nameOf = (l: OrderLine): string => items.find((i) => i.value === itemId(l))?.name ?? '';
  return (
    <form
      className="mb-3 grid gap-2 rounded-plate border-[1.5px] border-ink bg-white p-3"
      aria-label="Order"
      onSubmit={(event) => void handleSubmit((body) => order.send({ body }))(event)}
    >
      <StillHere draft={kept} />
      <Select
        label="Of which supplier"
        none="who brings it"
        options={named(suppliers.data?.suppliers.filter((x) => !x.retired))}
        error={errors.supplierId?.message}
        value={form.typed.supplierId}
        onValue={chosen}
      />
      <DateField label="Expected on" day={dueOn} error={errors.dueOn?.message} {...register('dueOn')} />
      {wanted !== undefined && (
        <p role="status" className={`text-[14px] ${wanted.fits ? 'text-ink-soft' : 'font-semibold text-alarm'}`}>
          {wanted.says}
        </p>
      )}
      {supplier !== undefined && moneyWords(supplier.terms, money) !== '' && (
        <p className="text-[14px] text-ink-soft">
          Of {supplier.name} {moneyWords(supplier.terms, money)}.
        </p>
      )}
      <ul className="text-[15px]">
        {lines.fields.map((l, i) => (
          <li key={l.id} className="flex items-center justify-between gap-2">
            <span className="truncate">{nameOf(l)}</span>
            <span className="figure">{formatMass(l.massMg)}</span>
            <button type="button" className="min-h-9 underline" onClick={() => lines.remove(i)}>
              take out
            </button>
          </li>
        ))}
      </ul>
      <div className="grid grid-cols-[minmax(0,1fr)_84px_auto] gap-2">
        <Select aria-label="What" none="what" options={items} {...register('what')} />
        <Field
          aria-label="How much"
          placeholder="5 kg"
          {...register('mass')}
          onKeyDown={(event) => {
            if (event.key !== 'Enter') return;
            event.preventDefault();
            add();
          }}
        />
        <Button disabled={what === '' || massMg === undefined} onClick={add}>
          Add
        </Button>
      </div>
      {pack !== null && (
        <p className="text-[14px] text-ink-soft">
          They pack it by {formatMass(pack)}
          {massMg !== undefined && `: ${packsWords(massMg, pack)}`}.
        </p>
      )}
      {errors.what?.message !== undefined && (
        <p role="alert" className="text-[14px] text-alarm">
          {errors.what.message}
        </p>
      )}
      {order.error !== null && <Notice tone="alarm">{order.error.message}</Notice>}
      <Button type="submit" variant="strong" disabled={order.pending}>
        Write the order down
      </Button>
    </form>
  );
}
