/** Something that lies there and stands on no list, as everything does on the first day: weighed, dated, a lot of its own. */
import type { Ask } from '@zabrik/contract';
import { formatMass, massTyped } from '@zabrik/core';
import { useMemo } from 'react';
import { useCommand } from '../../app/command.ts';
import { api } from '../../app/endpoints.ts';
import { useKeptForm } from '../../app/keptForm.ts';
import { useScale } from '../../app/live.ts';
import { useCatalogue, useHouse } from '../../app/queries.ts';
import { Button } from '../../kit/Button.tsx';
import { Check } from '../../kit/Check.tsx';
import { Choice } from '../../kit/Choice.tsx';
import { DateField } from '../../kit/DateField.tsx';
import { Dialog } from '../../kit/Dialog.tsx';
import { Field } from '../../kit/Field.tsx';
import { MoneyField } from '../../kit/MoneyField.tsx';
import { Notice } from '../../kit/Notice.tsx';
import { SearchSelect } from '../../kit/SearchSelect.tsx';
import { Confirm } from '../../parts/Confirm.tsx';
import { StillHere } from '../../parts/StillHere.tsx';
import { nothingYet, takeOnForm } from './takeOnForm.ts';

type Body = Ask<typeof api.larder.takeOn>['body'];

export default function TakeOn({
  place,
  onClose,
}: {
  readonly place: { readonly id: string; readonly name: string; readonly kind: string };
  readonly onClose: () => void;
}) {
  const { data: house } = useHouse();
  const { data: catalogue } = useCatalogue();
  const scale = useScale();
  const shelf = useMemo(
    () => new Set((catalogue?.goods ?? []).filter((g) => g.place === 'ambient').map((g) => g.id)),
    [catalogue],
  );
  const form = useKeptForm(`take-on/${place.id}`, takeOnForm(house?.currency ?? 'GBP', shelf), {
    ...nothingYet,
    frozen: place.kind === 'freezer',
  });
  const { register, handleSubmit, formState, typed, setValue } = form;
  const { errors } = formState;
  const taking = useCommand(api.larder.takeOn, {
    spoken: ({ body }) => ({ says: `What lay there: ${formatMass(body.massMg)}, ${place.name}` }),
  });
  const bought = useMemo(
    () =>
      [
        ...(catalogue?.species ?? []).flatMap((s) =>
          s.forms
            .filter((f) => f.purchase)
            .map((f) => ({ id: `${s.id}/${f.id}`, name: `${s.name}, ${f.name}`, group: s.group.replace('-', ' ') })),
        ),
        ...(catalogue?.goods ?? []).map((g) => ({
          id: `goods/${g.id}`,
          name: g.name,
          group: g.group.replace('-', ' '),
        })),
      ].sort((a, b) => a.name.localeCompare(b.name)),
    [catalogue],
  );
  const animals = (catalogue?.species ?? []).map((s) => ({ id: s.id, name: s.name, group: s.group.replace('-', ' ') }));
  const kinds = (catalogue?.categories ?? []).map((c) => ({ id: c.id, name: c.label, group: c.group }));
  const edible = catalogue?.categories.find((c) => c.id === typed.category)?.edible ?? false;
  const send = (body: Body): void => taking.send({ body }, form.clear);
  const choose = (field: 'bought' | 'species' | 'category', id: string): void =>
    setValue(field, id, { shouldValidate: true });
  return (
    <Dialog
      title="Something that is on no list"
      says={`${place.name}. It came before anybody wrote it down: no supplier, and the date that stands on it.`}
      onClose={onClose}
    >
      <form
        noValidate
        aria-label="What lies there"
        className="grid gap-3"
        onSubmit={(event) => void handleSubmit((said) => send({ ...said, placeId: place.id, confirmed: false }))(event)}
      >
        <StillHere draft={form.kept} />
        <Choice
          legend="What it is"
          options={[
            { value: 'bought', name: 'As it is bought' },
            { value: 'piece', name: 'A piece, bones or trim' },
          ]}
          value={typed.as}
          onValue={(as) => setValue('as', as)}
        />
        {typed.as === 'bought' ? (
          <div>
            <SearchSelect
              label="What lies there"
              placeholder="Type a part of its name"
              none="Nothing is called that."
              options={bought}
              chosen={typed.bought}
              onChoose={(id) => choose('bought', id)}
              error={errors.bought?.message}
            />
            {errors.bought !== undefined && <p className="mt-1 text-[14px] text-alarm">{errors.bought.message}</p>}
          </div>
        ) : (
          <div className="grid gap-3 sm:grid-cols-2">
            {(
              [
                ['species', 'Animal', animals],
                ['category', 'Kind of piece', kinds],
              ] as const
            ).map(([field, label, options]) => (
              <div key={field}>
                <p className="mb-1 text-[15px] font-semibold">{label}</p>
                <SearchSelect
                  label={label}
                  placeholder="Type a part of its name"
                  none="Nothing is called that."
                  options={options}
                  chosen={typed[field]}
                  onChoose={(id) => choose(field, id)}
                  error={errors[field]?.message}
                />
                {errors[field] !== undefined && <p className="mt-1 text-[14px] text-alarm">{errors[field].message}</p>}
              </div>
            ))}
            <Field label="It is called" placeholder="fillet" error={errors.name?.message} {...register('name')} />
            {edible && <Check label="Ready to eat as it is" labelClass="min-h-11 self-end" {...register('ready')} />}
          </div>
        )}
        <div className="grid grid-cols-[1fr_110px] gap-3">
          <Field
            label="Weighs"
            unit="g"
            inputMode="decimal"
            error={errors.mass?.message}
            {...register('mass')}
            action={
              <Button
                className="h-11"
                disabled={scale.state !== 'steady' || scale.netMg <= 0}
                onClick={() => setValue('mass', massTyped(scale.netMg), { shouldValidate: true })}
              >
                From the scale
              </Button>
            }
          />
          <Field label="How many" inputMode="numeric" error={errors.pieces?.message} {...register('pieces')} />
        </div>
        <div className="grid gap-3 sm:grid-cols-2">
          <DateField label="Use by" day={typed.useBy} error={errors.useBy?.message} {...register('useBy')} />
          <MoneyField
            label="All of it cost"
            currency={house?.currency}
            hint="Empty: counts as nothing"
            error={errors.cost?.message}
            {...register('cost')}
          />
          <Field label="Note" maxLength={500} error={errors.note?.message} {...register('note')} />
          <Check label="It is frozen" labelClass="min-h-11 self-end" {...register('frozen')} />
        </div>
        <Confirm
          error={taking.error}
          words="Take it on all the same"
          onConfirm={() => {
            const last = taking.last?.body;
            if (last !== undefined) taking.send({ body: { ...last, confirmed: true } }, taking.lastSent);
          }}
        />
        {taking.answer !== undefined && (
          <Notice tone="calm">
            {taking.answer.code}: {taking.answer.name}, {formatMass(taking.answer.massMg)}. The next, or close.
          </Notice>
        )}
        {taking.kept && <Notice tone="calm">Kept on this tablet until the server has it.</Notice>}
        <Button type="submit" variant="strong" size="bench" disabled={taking.pending}>
          Take it on
        </Button>
      </form>
    </Dialog>
  );
}
