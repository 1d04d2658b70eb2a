import { formatMass, refusalOf, roleIn } from '@zabrik/core';
import { useState } from 'react';
import { dueWords } from '../../app/dates.ts';
import { Button } from '../../kit/Button.tsx';
import { Check } from '../../kit/Check.tsx';
import { offerOf, type PotLot } from './offers.ts';
import type { Scaling } from './useScaling.ts';

function LotRow({ lot, s, may }: { readonly lot: PotLot; readonly s: Scaling; readonly may: boolean }) {
  const offer = offerOf(lot);
  const refusal = refusalOf(s.recipe, offer);
  const role = roleIn(s.recipe, offer);
  const due = dueWords(lot.useBy);
  const taken = s.scaled?.taken.find((t) => t.lotId === lot.id)?.massMg ?? 0;
  const on = refusal === undefined && s.isIn(lot);
  const part = role === 'base' ? undefined : s.recipe.ingredients.find((i) => i.id === role)?.name;
  return (
    <li>
      <label
        htmlFor={`take-${lot.id}`}
        className={`grid min-h-13 cursor-pointer grid-cols-[22px_1fr_auto] items-center gap-3 rounded-md border-[1.5px] px-3 py-1.5 ${refusal !== undefined ? 'border-dashed border-line-strong bg-sheet-soft text-ink-soft' : on ? 'border-ink bg-white' : 'border-line bg-white'}`}
      >
        <Check
          id={`take-${lot.id}`}
          disabled={refusal !== undefined || !may}
          checked={on}
          onChange={() => s.turn(lot)}
        />
        <span className="min-w-0 leading-tight">
          <span className="block truncate font-semibold">{lot.name}</span>
          <span
            className={`block text-[13px] ${refusal === undefined ? 'truncate' : 'text-alarm'} ${due.tone === 'late' || due.tone === 'now' ? 'text-alarm' : 'text-ink-soft'}`}
          >
            {refusal !== undefined
              ? `Refused: ${refusal}`
              : `${lot.code} · ${due.text}${lot.state === 'frozen' ? ' · frozen' : ''}${part === undefined ? '' : ` · as ${part}`}${lot.destination === 'portion' ? ' · a portion' : ''}`}
          </span>
        </span>
        <span className="figure text-right">
          {formatMass(lot.freeMg)}
          {on && taken < lot.freeMg && (
            <span className="block text-[13px] font-normal text-ink-soft">takes {formatMass(taken)}</span>
          )}
        </span>
      </label>
    </li>
  );
}

/** So many rows at first; the rest when someone asks. */
const SOME = 30;

export function LotRows({
  lots,
  s,
  may,
  label,
}: {
  readonly lots: readonly PotLot[];
  readonly s: Scaling;
  readonly may: boolean;
  readonly label?: string;
}) {
  const [all, setAll] = useState(false);
  const shown = all ? lots : lots.slice(0, SOME);
  return (
    <>
      <ul className="grid gap-1.5" aria-label={label}>
        {shown.map((lot) => (
          <LotRow key={lot.id} lot={lot} s={s} may={may} />
        ))}
      </ul>
      {shown.length < lots.length && (
        <Button className="mt-2 h-11" onClick={() => setAll(true)}>
          {lots.length - shown.length} more
        </Button>
      )}
    </>
  );
}
