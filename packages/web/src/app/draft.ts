/**
 * What is typed into a form and not sent. It is kept on this device under the form and whoever types, so that it is there again after a reload,
 * after a look at another screen, and after someone has had to sign in again. Sent or let go, it is gone.
 */
import { unitsNow } from '@zabrik/core';
import { useCallback, useRef, useState } from 'react';
import { useMe } from './queries.ts';

const SHELF = 'zabrik-draft/';
/** A bare figure is in the units it was typed in: what was typed in others is another draft. */
const keyOf = (owner: string, form: string): string => {
  const { mass, temperature, volume, decimal } = unitsNow();
  const units = [mass, temperature, volume, decimal].join('-');
  return `${SHELF}${owner}/${form}${units === 'metric-C-litres-point' ? '' : `@${units}`}`;
};
/** What was left lying for so long was not meant to be sent. */
const KEPT_MS = 3 * 86_400_000;

interface Kept {
  readonly at: number;
  readonly value: unknown;
}

const shelf = (): Storage | undefined => {
  try {
    return localStorage;
  } catch {
    return undefined; // a browser that keeps nothing: the form works as long as it stands
  }
};

/** Whether what was kept can be this form's: a version before may have had other fields. */
function fits(kept: unknown, initial: unknown): boolean {
  if (Array.isArray(initial)) return Array.isArray(kept);
  if (initial === null || typeof initial !== 'object') return initial === null || typeof kept === typeof initial;
  return (
    typeof kept === 'object' &&
    kept !== null &&
    !Array.isArray(kept) &&
    Object.entries(initial).every(
      ([name, value]) => name in kept && fits((kept as Record<string, unknown>)[name], value),
    )
  );
}

function read<T>(key: string, initial: T): { readonly value: T; readonly at: number | undefined } {
  try {
    const kept = JSON.parse(shelf()?.getItem(key) ?? 'null') as Kept | null;
    if (kept !== null && Date.now() - kept.at < KEPT_MS && fits(kept.value, initial))
      return { value: kept.value as T, at: kept.at };
  } catch {
    // not readable: nothing was kept
  }
  return { value: initial, at: undefined };
}

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

function write(key: string, value: unknown, initial: unknown): void {
  try {
    if (same(value, initial)) shelf()?.removeItem(key);
    else shelf()?.setItem(key, JSON.stringify({ at: Date.now(), value } satisfies Kept));
  } catch {
    // no room: it stands as long as the page does
  }
}

/** Whether there is a draft of a form on this device. */
export const hasDraft = (personId: string | undefined, form: string): boolean =>
  (shelf()?.getItem(keyOf(personId ?? '', form)) ?? null) !== null;

/** Lets go of drafts that are too old. Done once, when the app begins. */
export function dropOldDrafts(now = Date.now()): void {
  const all = shelf();
  for (const key of Object.keys(all ?? {}).filter((k) => k.startsWith(SHELF))) {
    try {
      if (now - (JSON.parse(all?.getItem(key) ?? '') as Kept).at < KEPT_MS) continue;
    } catch {
      // not readable
    }
    all?.removeItem(key);
  }
}

export interface Draft<T> {
  readonly value: T;
  readonly set: (next: T | ((before: T) => T)) => void;
  /** Some fields of it. */
  readonly put: (change: Partial<T>) => void;
  /** Sent, or begun anew. */
  readonly clear: () => void;
  /** When it was typed, milliseconds, where it was here before this screen was opened and is not let go. */
  readonly typedAt: number | undefined;
}

/**
 * The state of a form that is kept.
 *
 * Shapes  form: names the form and what it is about, as `finish/<batch>`. initial: what stands there when nobody has typed; plain data, with every
 *         field there.
 */
export function useDraft<T>(form: string, initial: T): Draft<T> {
  const owner = useMe().data?.person.id ?? '';
  const key = keyOf(owner, form);
  const [state, setState] = useState(() => ({ key, ...read(key, initial) }));
  let now = state;
  if (state.key !== key) {
    now = { key, ...read(key, initial) };
    setState(now);
  }
  // what it stands at, to be written down at once: the screen may be gone before it is drawn again
  const latest = useRef({ ...now, initial });
  latest.current = { ...now, initial };
  const set = useCallback<Draft<T>['set']>((next) => {
    const { value, initial: blank, ...rest } = latest.current;
    const changed = typeof next === 'function' ? (next as (before: T) => T)(value) : next;
    // a form that is opened and says what already stands there has not been typed in: the draft stays as old as it is
    if (same(changed, value)) return;
    latest.current = { ...rest, value: changed, initial: blank };
    write(rest.key, changed, blank);
    setState({ ...rest, value: changed });
  }, []);
  const put = useCallback<Draft<T>['put']>((change) => set((before) => ({ ...before, ...change })), [set]);
  const { value, at } = now;
  return {
    value,
    set,
    put,
    clear: () => {
      latest.current = { key, at: undefined, value: initial, initial };
      write(key, initial, initial);
      setState({ key, value: initial, at: undefined });
    },
    typedAt: same(value, initial) ? undefined : at,
  };
}
