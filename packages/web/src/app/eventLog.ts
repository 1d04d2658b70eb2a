/** What was written about one thing, as it stands on this device: what the server has, and behind it what still waits here to be sent. */
import type { EndpointId } from '@zabrik/contract';
import { useMemo } from 'react';
import { useWaitingAbout, type Waiting } from './outbox.ts';
import { useMe } from './queries.ts';

export interface EventLog<T> {
  readonly entries: readonly T[];
  /** Commands of these entries that are not with the server yet. */
  readonly unsent: readonly Waiting[];
  /** Everything about it that was refused, of whatever kind. */
  readonly refused: readonly Waiting[];
  /** How many commands about it wait, of whatever kind. */
  readonly waiting: number;
  /** A command of this kind waits here. */
  readonly waits: (id: EndpointId) => boolean;
}

const NONE: readonly never[] = [];

/**
 * Shapes  about: the id of the thing. id: the endpoint the entries are said to. known: what the server has of them. read: the entries a
 *         command that waits stands for, by the name of who is signed in; one function, not a new one at each drawing of the screen.
 * Keeps   the order: the server's first, then what waits, as it was said. A command the server has already is not counted twice.
 */
export function useEventLog<T extends { readonly id: string }>(
  about: string,
  id: EndpointId,
  known: readonly T[] | undefined,
  read: (waiting: Waiting, by: string) => readonly T[],
): EventLog<T> {
  const mine = useWaitingAbout(about);
  const by = useMe().data?.person.name ?? '';
  return useMemo(() => {
    const stored = known ?? NONE;
    const has = new Set(stored.map((e) => e.id));
    const waiting = mine.filter((w) => w.refused === undefined && !has.has(w.key));
    const unsent = waiting.filter((w) => w.endpoint === id);
    return {
      entries: unsent.length === 0 ? stored : [...stored, ...unsent.flatMap((w) => read(w, by))],
      unsent,
      refused: mine.filter((w) => w.refused !== undefined),
      waiting: waiting.length,
      waits: (kind) => waiting.some((w) => w.endpoint === kind),
    };
  }, [id, known, mine, read, by]);
}
