import { formatMass, parseMass, refusalOf, roleIn } from '@zabrik/core';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import { dueWords } from '../../app/dates.ts';
import { Button } from '../../kit/Button.tsx';
import { Field } from '../../kit/Field.tsx';
import { Select } from '../../kit/Select.tsx';
import { offerOf, type PotLot } from './offers.ts';
import { useLotsForPots } from './potQueries.ts';
import type { AtStove } from './useStove.ts';

const read = (text: string): number | undefined => {
  try {
    const mg = parseMass(/^\s*[\d.,]+\s*$/.test(text) ? `${text} g` : text);
    return mg > 0 ? mg : undefined;
  } catch {
    return undefined;
  }
};

/** A lot joins the pot that is on: which, how much of it. It is promised to the batch at once; Undo gives it back. */
export function Joins({ stove }: { readonly stove: AtStove }) {
  const { batch, say } = stove;
  const lots = useLotsForPots();
  const [open, setOpen] = useState(false);
  const [lotId, setLotId] = useState('');
  const [text, setText] = useState<string>();
  const may = (lots.data?.lots ?? [])
    .filter((lot) => lot.massMg > 0 && refusalOf(batch.recipe, offerOf(lot)) === undefined)
    .sort((a, b) => (a.useBy ?? '9999').localeCompare(b.useBy ?? '9999') || a.code.localeCompare(b.code));
  const lot = may.find((l) => l.id === lotId);
  const typed = text ?? (lot === undefined ? '' : String(Math.round(lot.massMg / 1_000)));
  const massMg = read(typed);
  const roleOf = (l: PotLot): string => {
    const role = roleIn(batch.recipe, offerOf(l));
    return role === undefined || role === 'base'
      ? batch.recipe.baseName
      : (batch.recipe.ingredients.find((i) => i.id === role)?.name ?? role);
  };
  const tooMuch = lot !== undefined && massMg !== undefined && massMg > lot.massMg;
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
        event.preventDefault();
        if (lot === undefined || massMg === undefined || tooMuch) return;
        say(
          { kind: 'join', lotId: lot.id, name: lot.name.slice(0, 200), massMg },
          `${formatMass(massMg)} of ${lot.name} joins it`,
        );
        setOpen(false);
        setLotId('');
        setText(undefined);
      }}
    >
      {may.length === 0 && <p className="text-ink-soft">Nothing lies in the larder that this takes.</p>}
      <Select
        label="What joins it"
        value={lotId}
        none="choose a lot"
        onValue={(id) => {
          setLotId(id);
          setText(undefined);
        }}
        options={may.map((l) => ({
          value: l.id,
          name: `${l.code} ${l.name}, ${formatMass(l.massMg)}, ${dueWords(l.useBy).text}, as ${roleOf(l)}`,
        }))}
      />
      <div className="flex flex-wrap items-end gap-2">
        <Field
          label="How much, g"
          inputMode="decimal"
          className="figure w-32"
          value={typed}
          onChange={(event) => setText(event.target.value)}
        />
        <Button
          type="submit"
          look="strong"
          className="h-11"
          disabled={lot === undefined || massMg === undefined || tooMuch}
        >
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
