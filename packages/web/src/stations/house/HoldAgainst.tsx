import type { Limit } from '@zabrik/core';
import { useState } from 'react';
import { dayName } from '../../app/dates.ts';
import { Button } from '../../kit/Button.tsx';
import { Field } from '../../kit/Field.tsx';
import { verdictTone, verdictWords } from '../../parts/verdictWords.ts';
import { askedOf, heldAgainst } from './heldAgainst.ts';

/** A figure from a clipboard or a letter of the laboratory, held against the limit in front of you. Nothing is written down. */
export function HoldAgainst({ limit }: { readonly limit: Limit }) {
  const [open, setOpen] = useState(false);
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>({});
  const asked = askedOf(limit);
  if (asked.length === 0) return null;
  if (!open)
    return (
      <button type="button" className="min-h-11 text-[14px] underline" onClick={() => setOpen(true)}>
        Hold a figure against it
      </button>
    );
  const said = heldAgainst(limit, typed);
  return (
    <fieldset
      className="mt-1 flex flex-wrap items-end gap-2 border-0 p-0"
      aria-label={`A figure held against ${limit.product}`}
    >
      {asked.map((a) => (
        <Field
          key={a.id}
          label={`${a.name}, ${a.unit}`}
          dense
          className={a.id === 'results' ? 'w-56' : 'w-32'}
          inputMode={a.id === 'day' ? 'text' : 'decimal'}
          value={typed[a.id] ?? ''}
          onChange={(event) => setTyped((before) => ({ ...before, [a.id]: event.target.value }))}
        />
      ))}
      <Button className="h-11" onClick={() => setOpen(false)}>
        Close
      </Button>
      <span role="status" className="w-full text-[15px] font-semibold">
        {said === undefined ? null : typeof said === 'string' ? (
          <span className={verdictTone(said)}>{verdictWords[said]}.</span>
        ) : (
          <>Last day: {dayName(said.lastDay)}.</>
        )}
      </span>
    </fieldset>
  );
}
