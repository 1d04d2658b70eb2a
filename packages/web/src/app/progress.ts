/** How far commands are that take a while: told by the live line, by the command's key. */
import type { Progress } from '@zabrik/contract';
import { useSyncExternalStore } from 'react';

/** Commands this page waits for, and what was heard of each: what others of the house send is not kept. */
const waited = new Map<string, Progress | undefined>();
const listeners = new Set<() => void>();

export function noteProgress(progress: Progress): void {
  if (!waited.has(progress.command)) return;
  waited.set(progress.command, progress);
  for (const listener of listeners) listener();
}

const subscribe = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => {
    listeners.delete(listener);
  };
};

/** How far the command is whose key `keyNow` gives; nothing where nothing was heard. */
export const useProgress = (keyNow: () => string | undefined): Progress | undefined =>
  useSyncExternalStore(subscribe, () => {
    const key = waited.size === 0 ? undefined : keyNow();
    return key === undefined ? undefined : waited.get(key);
  });

/** The signal that a request is given up: after so long without an answer, and for a command without a word of how far it is. */
export function patience(
  lateMs: number,
  key: string | undefined,
): { readonly signal: AbortSignal; readonly end: () => void } {
  const stop = new AbortController();
  const giveUp = (): void => stop.abort();
  let late = setTimeout(giveUp, lateMs);
  let last: Progress | undefined;
  if (key !== undefined) waited.set(key, undefined);
  const forget = subscribe(() => {
    const now = key === undefined ? undefined : waited.get(key);
    if (now === last) return;
    last = now;
    clearTimeout(late);
    late = setTimeout(giveUp, lateMs);
  });
  return {
    signal: stop.signal,
    end: () => {
      clearTimeout(late);
      forget();
      if (key !== undefined) waited.delete(key);
    },
  };
}
