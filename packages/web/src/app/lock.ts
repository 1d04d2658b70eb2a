/**
 * The session has ended under someone's hands: too long untouched, or ended by the server. The page stays as it is and is covered until the same
 * person says their PIN; what it asks of the server meanwhile waits, and goes on then as if nothing had been.
 */
import { useSyncExternalStore } from 'react';

/** On this device whose page is covered: a reload and another tab do not uncover it. */
const COVERED = 'zabrik-covered';

interface Cover {
  readonly personId: string;
  /** Done once it is clear whether the same person came back. */
  readonly over: Promise<boolean>;
  readonly lift: (same: boolean) => void;
}

let cover: Cover | undefined;
let answered = false;
const listeners = new Set<() => void>();

const shelf = (act: (of: Storage) => void): void => {
  try {
    act(localStorage);
  } catch {
    // no storage: covered as long as the page stands
  }
};

/** The server has done something for this page: someone was at work on it. */
export const noteAnswered = (): void => {
  answered = true;
};
/** Whether someone was at work on this page, so that there is something to come back to. */
export const wasAtWork = (): boolean => answered;

/** Covers the page for a person. */
export function coverFor(personId: string): void {
  if (cover?.personId === personId) return;
  cover?.lift(false);
  let lift: (same: boolean) => void = () => undefined;
  const over = new Promise<boolean>((done) => {
    lift = done;
  });
  cover = { personId, over, lift };
  shelf((s) => s.setItem(COVERED, personId));
  for (const heard of listeners) heard();
}

/** Uncovers it. `same`: the person is back, and what waited goes on; otherwise it is refused. */
export function uncover(same: boolean): void {
  const before = cover;
  cover = undefined;
  shelf((s) => s.removeItem(COVERED));
  before?.lift(same);
  for (const heard of listeners) heard();
}

/** Whose page was covered when it was last drawn, here or in another tab. */
export function coveredBefore(): string | undefined {
  let personId: string | null = null;
  shelf((s) => {
    personId = s.getItem(COVERED);
  });
  return personId ?? undefined;
}

/** Waits while the page is covered. Answers whose it is where it was and they are back, `gone` where someone else came, nothing where it was not. */
export async function uncovered(): Promise<string | 'gone' | undefined> {
  const now = cover;
  if (now === undefined) return undefined;
  return (await now.over) ? now.personId : 'gone';
}

const subscribe = (heard: () => void): (() => void) => {
  listeners.add(heard);
  return () => void listeners.delete(heard);
};

/** Whether the page is covered. */
export const useCovered = (): boolean => useSyncExternalStore(subscribe, () => cover !== undefined);

/** Hears that another tab of this device covered or uncovered. Gives the way to stop. */
export function watchCover(heard: (personId: string | undefined) => void): () => void {
  const on = (event: StorageEvent): void => {
    if (event.key === COVERED) heard(event.newValue ?? undefined);
  };
  addEventListener('storage', on);
  return () => removeEventListener('storage', on);
}
