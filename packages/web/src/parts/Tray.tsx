import { type Destination, formatMass } from '@zabrik/core';
import { clothOf, edgeOf } from './destinations.ts';

interface Props {
  readonly id: Destination;
  readonly name: string;
  readonly hotkey: string;
  readonly massMg: number;
  /** How full it looks, 0..1. */
  readonly fill: number;
  readonly state: 'suggested' | 'chosen' | 'possible' | 'refused';
  /** Why it must not be used, or what it holds. */
  readonly note: string;
  readonly disabled: boolean;
  readonly onChoose: () => void;
}

/** A destination that fills. The one this piece goes to is outlined; one that must not be used says why. */
export function Tray({ id, name, hotkey, massMg, fill, state, note, disabled, onChoose }: Props) {
  const refused = state === 'refused';
  const active = state === 'chosen' || state === 'suggested';
  return (
    <button
      type="button"
      disabled={disabled || refused}
      aria-pressed={active}
      aria-label={`${name}, ${formatMass(massMg)}${refused ? `. Not this piece: ${note}` : active ? '. This piece goes here' : ''}`}
      aria-keyshortcuts={hotkey}
      onClick={onChoose}
      className={`relative flex min-h-24 flex-col justify-between overflow-hidden rounded-t-[6px] rounded-b-[16px] border-2 p-2.5 text-left ${edgeOf[id]} ${
        refused ? 'border-dashed bg-sheet-soft text-ink-soft' : 'bg-white'
      } ${active ? 'outline-4 outline-ink' : ''}`}
    >
      <span
        className={`absolute inset-x-0 bottom-0 opacity-20 ${clothOf[id]}`}
        style={{ height: `${Math.min(1, fill) * 100}%` }}
        aria-hidden="true"
      />
      <span className="relative flex w-full items-start justify-between">
        <span className="flex items-center gap-2 font-head font-semibold">
          <span className={`size-3.5 shrink-0 rounded-[3px] ${clothOf[id]}`} aria-hidden="true" />
          {name}
        </span>
        <kbd className="rounded border border-line-strong px-1.5 font-text text-[13px] leading-5">{hotkey}</kbd>
      </span>
      <span className="relative block">
        {!(refused && massMg === 0) && <span className="figure block text-xl leading-tight">{formatMass(massMg)}</span>}
        <span className="line-clamp-2 block text-[13px] leading-tight text-ink-soft">{note}</span>
      </span>
    </button>
  );
}
