import { formatMass, massTyped, refusalOf, roleIn, unitName } from '@zabrik/core';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import { z } from 'zod';
import { dueWords } from '../../app/dates.ts';
import { useKeptForm } from '../../app/keptForm.ts';
import { Button } from '../../kit/Button.tsx';
import { Field } from '../../kit/Field.tsx';
import { weightIn } from '../../kit/readers.ts';
import { Select } from '../../kit/Select.tsx';
import { offerOf, type PotLot } from './offers.ts';
import { useLotsForPots } from './potQueries.ts';
import type { AtStove } from './useStove.ts';

const joinForm = z.object({
  lotId: z.string().min(1, 'Choose which'),
  /** Nothing: all of it. */
  mass: z
    .string()
    .refine((text) => text.trim() === '' || weightIn(text) !== undefined, 'A weight, such as 250 or 1.2 kg'),
});

/** A lot joins the pot that is on: which, how much of it. It is promised to the batch at once; Undo gives it back. */
export function Joins({ stove }: { readonly stove: AtStove }) {
  const { batch, record } = stove;
  const lots = useLotsForPots();
  const [open, setOpen] = useState(false);
  const form = useKeptForm(`joins/${batch.id}`, joinForm, { lotId: '', mass: '' });
  const { lotId, mass: text } = form.typed;
  const may = (lots.data?.lots ?? [])
    .filter((lot) => lot.freeMg > 0 && refusalOf(batch.recipe, offerOf(lot)) === undefined)
    .sort((a, b) => (a.useBy ?? '9999').localeCompare(b.useBy ?? '9999') || a.code.localeCompare(b.code));
  const lot = may.find((l) => l.id === lotId);
  const typed = text !== '' || lot === undefined ? text : massTyped(lot.freeMg);
  const massMg = weightIn(typed);
  const roleOf = (l: PotLot): string => {
    const role = roleIn(batch.recipe, offerOf(l));
    return role === undefined || role === 'base'
      ? batch.recipe.baseName
      : (batch.recipe.ingredients.find((i) => i.id === role)?.name ?? role);
  };
  const tooMuch = lot !== undefined && massMg !== undefined && massMg > lot.freeMg;
  if (!open)
    return (
      <Button className="mt-2" onClick={() => setOpen(true)}>
        <Plus size={18} aria-hidden="true" />
        Something joins it
      </Button>
    );
  return (
    <form
      aria-label="Something joins it"
      className="mt-2 grid gap-2 border-t border-line pt-2"
      onSubmit={(event) => {
        void form.handleSubmit(() => {
          if (lot === undefined || massMg === undefined || tooMuch) return;
          record(
            { kind: 'join', lotId: lot.id, name: lot.name.slice(0, 200), massMg },
            `${formatMass(massMg)} of ${lot.name} joins it`,
          );
          setOpen(false);
          form.clear();
        })(event);
      }}
    >
      {may.length === 0 && <p className="text-ink-soft">Nothing lies in the larder that this takes.</p>}
      <Select
        label="What joins it"
        value={lotId}
        none="choose a lot"
        error={form.formState.errors.lotId?.message}
        onValue={(id) => {
          form.setValue('lotId', id, { shouldValidate: true });
          form.setValue('mass', '');
        }}
        options={may.map((l) => ({
          value: l.id,
          name: `${l.code} ${l.name}, ${formatMass(l.freeMg)}, ${dueWords(l.useBy).text}, as ${roleOf(l)}`,
        }))}
      />
      <div className="flex flex-wrap items-end gap-2">
        <Field
          label={`How much, ${unitName('g')}`}
          inputMode="decimal"
          className="figure w-32"
          value={typed}
          error={form.formState.errors.mass?.message}
          onChange={(event) => form.setValue('mass', event.target.value, { shouldValidate: true })}
        />
        <Button type="submit" variant="strong" className="h-11">
          It joins
        </Button>
        <Button className="h-11" onClick={() => setOpen(false)}>
          Not now
        </Button>
      </div>
      {tooMuch && (
        <p role="alert" className="text-alarm">
          {formatMass(lot?.massMg ?? 0)} of it is there.
        </p>
      )}
      <p className="text-[14px] text-ink-soft">
        It comes on top of what was planned. What joins raw is cooked from now on: count its minutes from here.
      </p>
    </form>
  );
}
