import { useQueryClient } from '@tanstack/react-query';
import type { House } from '@zabrik/contract';
import { Trash2 } from 'lucide-react';
import { useFieldArray } from 'react-hook-form';
import { Link, useParams } from 'react-router';
import { useCommand } from '../../app/command.ts';
import { timeIn, todayIn, weekdays } from '../../app/dates.ts';
import { api } from '../../app/endpoints.ts';
import { useKeptForm } from '../../app/keptForm.ts';
import { moneyOf, useCatalogue, useHouse, useMay } from '../../app/queries.ts';
import { useOpen } from '../../app/title.ts';
import { Button } from '../../kit/Button.tsx';
import { Field } from '../../kit/Field.tsx';
import { MoneyField } from '../../kit/MoneyField.tsx';
import { Empty, Failed, Loading, Notice } from '../../kit/Notice.tsx';
import { Select } from '../../kit/Select.tsx';
import { Toggle } from '../../kit/Toggle.tsx';
import { ReceiveHead } from '../../parts/ReceiveHead.tsx';
import { StillHere } from '../../parts/StillHere.tsx';
import { boughtItems } from './boughtItems.ts';
import { type SupplierRead, type SupplierTyped, supplierForm, supplierTyped } from './supplierForm.ts';
import { moneyWords, turnWords } from './supplierWords.ts';
import { type Supplier, useSuppliers } from './useSuppliers.ts';

interface DaysProps {
  readonly legend: string;
  readonly says: string;
  readonly days: readonly number[];
  readonly onDays: (days: number[]) => void;
}

const Days = ({ legend, says, days, onDays }: DaysProps) => (
  <fieldset className="border-0 p-0">
    <legend className="mb-1 text-[15px] font-semibold">{legend}</legend>
    <div className="flex flex-wrap gap-1.5">
      {weekdays.map((name, i) => {
        const on = days.includes(i + 1);
        return (
          <Toggle
            key={name}
            on={on}
            className="min-w-13"
            onPress={() => onDays(on ? days.filter((d) => d !== i + 1) : [...days, i + 1].sort())}
          >
            {name}
          </Toggle>
        );
      })}
    </div>
    <p className="mt-1 text-[13px] text-ink-soft">{days.length === 0 ? says : ' '}</p>
  </fieldset>
);

/** It stands above the form, which begins anew with each version: what came of saving is said on the new one too. */
function useSaveSupplier() {
  const client = useQueryClient();
  // somebody was first: theirs is read, and what was typed stays
  const again = (): void => void client.invalidateQueries({ queryKey: ['suppliers'] });
  return useCommand(api.receive.saveSupplier, { onDone: again, onFailed: again });
}

interface TermsProps {
  readonly supplier: Supplier;
  readonly house: House;
  readonly save: ReturnType<typeof useSaveSupplier>;
}

function Terms({ supplier, house, save }: TermsProps) {
  const may = useMay('receive.saveSupplier');
  const { data: catalogue } = useCatalogue();
  const { currency } = house;
  const form = useKeptForm<SupplierTyped, SupplierRead>(
    `supplier/${supplier.id}`,
    supplierForm(currency),
    supplierTyped(supplier, currency),
  );
  const { register, control, setValue, handleSubmit, formState, typed } = form;
  const { errors } = formState;
  const items = useFieldArray({ control, name: 'items' });
  const send = (read: SupplierRead, retired: boolean): void =>
    save.send(
      { params: { supplierId: supplier.id }, body: { version: supplier.version, retired, ...read } },
      form.clear,
    );
  const choices = boughtItems(catalogue);
  const days = (field: 'orderDays' | 'deliveryDays') => (next: number[]) =>
    setValue(field, next, { shouldDirty: true });
  return (
    <form
      aria-label="Terms"
      className="grid gap-6"
      onSubmit={(event) => void handleSubmit((read) => send(read, supplier.retired))(event)}
    >
      <StillHere draft={form.kept} />
      <fieldset disabled={!may} className="grid max-w-6xl gap-6 border-0 p-0">
        <div className="grid gap-3 md:grid-cols-2 lg:grid-cols-3">
          <Field label="Name" error={errors.name?.message} {...register('name')} />
          <Field label="Whom to ask for" error={errors.contact?.message} {...register('contact')} />
          <Field label="Our number with them" error={errors.account?.message} {...register('account')} />
          <Field label="Telephone" type="tel" error={errors.phone?.message} {...register('phone')} />
          <Field label="E-mail" type="email" error={errors.email?.message} {...register('email')} />
        </div>
        <div className="grid gap-x-8 gap-y-4 lg:grid-cols-2">
          <Days legend="Orders are taken" says="any day" days={typed.orderDays} onDays={days('orderDays')} />
          <Days legend="They bring it" says="any day" days={typed.deliveryDays} onDays={days('deliveryDays')} />
          <div className="grid grid-cols-2 gap-3">
            <Field
              label="Ordered by"
              placeholder="16:00"
              hint="Empty: until the day ends"
              error={errors.cutOff?.message}
              {...register('cutOff')}
            />
            <Field
              label="Days between at least"
              inputMode="numeric"
              hint="1: on the next day"
              error={errors.lead?.message}
              {...register('lead')}
            />
          </div>
          <div className="grid grid-cols-3 gap-3">
            <MoneyField
              label="Order at least"
              currency={currency}
              error={errors.minimum?.message}
              {...register('minimum')}
            />
            <MoneyField
              label="Carriage"
              currency={currency}
              error={errors.carriage?.message}
              {...register('carriage')}
            />
            <MoneyField
              label="Free from"
              currency={currency}
              error={errors.carriageFree?.message}
              {...register('carriageFree')}
            />
          </div>
        </div>
        <section aria-label="What is bought of them" className="grid gap-2">
          <h3 className="text-lg font-bold">What is bought of them</h3>
          <p className="text-[15px] text-ink-soft">
            These stand first when an order is written down. What they call it, and how they pack it, stands beside it.
          </p>
          <ul className="grid gap-2">
            {items.fields.map((item, i) => (
              <li
                key={item.id}
                className="grid grid-cols-2 items-start gap-2 rounded-plate border border-line bg-white p-3 md:grid-cols-[1.6fr_1fr_1.4fr_1fr_44px]"
              >
                <Select
                  label="What"
                  none="what it is"
                  options={choices}
                  error={errors.items?.[i]?.what?.message}
                  {...register(`items.${i}.what`)}
                />
                <Field
                  label="Their number"
                  error={errors.items?.[i]?.theirCode?.message}
                  {...register(`items.${i}.theirCode`)}
                />
                <Field
                  label="Their name for it"
                  error={errors.items?.[i]?.theirName?.message}
                  {...register(`items.${i}.theirName`)}
                />
                <Field
                  label="A pack"
                  unit="g"
                  inputMode="decimal"
                  error={errors.items?.[i]?.pack?.message}
                  {...register(`items.${i}.pack`)}
                />
                <Button
                  className="size-11 px-0! md:mt-[27px]"
                  aria-label={`Without ${choices.find((c) => c.value === typed.items[i]?.what)?.name ?? 'the new one'}`}
                  onClick={() => items.remove(i)}
                >
                  <Trash2 size={18} aria-hidden="true" />
                </Button>
              </li>
            ))}
          </ul>
          {may && (
            <Button
              className="h-11 justify-self-start"
              onClick={() => items.append({ what: '', theirCode: '', theirName: '', pack: '' })}
            >
              Another thing
            </Button>
          )}
        </section>
        <Field label="Notes" error={errors.note?.message} {...register('note')} />
      </fieldset>
      {save.error !== null && <Notice tone="alarm">{save.error.message}</Notice>}
      {save.answer !== undefined && <Notice tone="calm">Saved.</Notice>}
      {may ? (
        <div className="sticky bottom-0 -mx-5 flex flex-wrap gap-3 border-t border-line bg-ground px-5 py-3">
          <Button type="submit" variant="strong" size="bench" disabled={save.pending}>
            Save
          </Button>
          <Button
            size="bench"
            disabled={save.pending}
            onClick={() => void handleSubmit((read) => send(read, !supplier.retired))()}
          >
            {supplier.retired ? 'Buy from them again' : 'Buy from them no more'}
          </Button>
        </div>
      ) : (
        <p className="text-ink-soft">A chef changes these.</p>
      )}
    </form>
  );
}

/** One supplier: whom to call, until when to order, what it must come to, what they call and pack things. */
export default function SupplierPage() {
  const { supplierId } = useParams();
  const suppliers = useSuppliers();
  const { data: house } = useHouse();
  const supplier = suppliers.data?.suppliers.find((s) => s.id === supplierId);
  useOpen(supplier?.name);
  const money = moneyOf(house);
  const save = useSaveSupplier();
  return (
    <div className="flex flex-1 flex-col">
      <ReceiveHead />
      <div className="grid gap-4 p-5">
        {suppliers.isLoadingError ? (
          <Failed error={suppliers.error} again={() => void suppliers.refetch()} />
        ) : suppliers.isPending || house === undefined ? (
          <Loading />
        ) : supplier === undefined ? (
          <Empty title="No such supplier">
            <Link className="underline" to="/receive/suppliers">
              All suppliers
            </Link>
          </Empty>
        ) : (
          <>
            <div>
              <h2 className="text-3xl font-extrabold">{supplier.name}</h2>
              <p className="text-ink-soft">
                {supplier.retired
                  ? 'Bought from no more: the name stays in the books.'
                  : [turnWords(supplier.terms, { day: todayIn(), time: timeIn() }), moneyWords(supplier.terms, money)]
                      .filter((t) => t !== '')
                      .join(' · ')}
              </p>
            </div>
            <Terms key={supplier.version} supplier={supplier} house={house} save={save} />
          </>
        )}
      </div>
    </div>
  );
}
