import type { Ask } from '@zabrik/contract';
import { PRACTICE_SCALE, unitsNow } from '@zabrik/core';
import { useState } from 'react';
import { useCommand } from '../app/command.ts';
import { api } from '../app/endpoints.ts';
import { useChosenScale } from '../app/live.ts';
import { massIn } from '../kit/readers.ts';
import { useKeys } from './useKeys.ts';

type Body = Ask<typeof api.simulation.pan>['body'];
/** The same without its scale. */
type Next = Body extends infer B ? (B extends { what: 'piece' | 'cut' } ? Omit<B, 'scale'> : never) : never;

export interface Props {
  /** What the hidden animal, or the hidden knife, would give next. */
  readonly next?: Next | undefined;
  /** What comes next is being worked out. */
  readonly busy?: boolean;
}

const key =
  'min-h-11 rounded-md border border-dashed border-ink-soft bg-transparent px-3 text-[14px] hover:bg-sheet disabled:opacity-50';

/** The hand that loads the simulated scale. */
export default function SimulatedHand({ next, busy = false }: Props) {
  const [typed, setTyped] = useState('');
  const scale = useChosenScale();
  const pan = useCommand(api.simulation.pan);
  const put = (what: 'piece' | number): void =>
    pan.send({
      body:
        what === 'piece' && next !== undefined
          ? { ...next, scale }
          : { what: 'load', massMg: typeof what === 'number' ? what : 0, scale },
    });
  useKeys(!busy && next !== undefined ? { p: () => put('piece') } : {});
  const massMg = massIn(typed);
  const putTyped = (): void => {
    if (massMg !== undefined) put(massMg);
  };
  return (
    <fieldset className="flex flex-wrap items-center justify-center gap-2 border-0 p-0" aria-label="Simulated bench">
      <span className="text-[13px] text-ink-soft">
        {scale === PRACTICE_SCALE ? 'Practice scale:' : 'Simulated scale:'}
      </span>
      {next !== undefined && (
        <button type="button" className={key} disabled={busy} onClick={() => put('piece')}>
          Put the next piece on <kbd className="rounded border border-ink-soft px-1 text-[12px]">p</kbd>
        </button>
      )}
      <input
        aria-label={`Load in ${unitsNow().mass === 'metric' ? 'grams' : 'ounces'}`}
        className="h-11 w-24 rounded-md border border-dashed border-ink-soft bg-white px-2"
        inputMode="decimal"
        placeholder={unitsNow().mass === 'metric' ? 'grams' : 'ounces'}
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        onKeyDown={(event) => {
          if (event.key !== 'Enter') return;
          event.preventDefault(); // it may stand inside a form that is about something else
          putTyped();
        }}
      />
      <button type="button" className={key} disabled={massMg === undefined} onClick={putTyped}>
        Put it on
      </button>
      <button type="button" className={key} onClick={() => put(0)}>
        Clear
      </button>
      {pan.error !== null && <span className="text-[13px] text-alarm">{pan.error.message}</span>}
    </fieldset>
  );
}
