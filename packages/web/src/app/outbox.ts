import type { Ask, Endpoint, EndpointId, ProblemCode } from '@zabrik/contract';
import { createStore, del, entries, set, update } from 'idb-keyval';
import { useSyncExternalStore } from 'react';
import { v7 as uuidv7 } from 'uuid';
import { addressOf, isDefinite, Refused, send } from './api.ts';
import { asked, askNow, type Outcome, type Told, tellAllKept } from './asked.ts';
import { type Author, authorNow, setAuthor } from './author.ts';
import { type Done, noteDone } from './done.ts';
import { routeOf } from './endpoints.ts';
import { WORKED } from './hands.ts';
import { type CommandRecord, type KeptBefore, upgraded } from './record.ts';

/**
 * Commands that must not be lost: each is a record of its own in IndexedDB, kept until the server has it. One tab sends, in the
 * order they were made; the key makes a repeat harmless. What the server refuses stays here, in words, until someone has read it.
 */
export interface Waiting extends CommandRecord {
  /** Who did it. Left out by versions before: it goes out under whoever is signed in. */
  readonly by?: Author | undefined;
  readonly madeAt: number;
  readonly tries: number;
  /** How often the server broke over it. */
  readonly broke?: number;
  /** Why it will not be sent, in words for the cook. */
  readonly refused?: string;
  /** What the contract calls that. */
  readonly code?: ProblemCode;
  /** It was in the records once, and is not since they were brought back: the moment they stand as of. */
  readonly before?: string;
  /** In memory only, while the disk has not answered yet: it is on the screen, and not sent. */
  readonly onDisk?: false;
}

const store = createStore('zabrik-outbox', 'commands');
const bus = new BroadcastChannel('zabrik-outbox');
const FIRST_RETRY_MS = 500;
const LONGEST_RETRY_MS = 15_000;
/** A command the server broke over so often is put aside with the reason: what comes after it must not wait for ever. */
const MOST_BROKEN = 4;

let snapshot: readonly Waiting[] = [];
const listeners = new Set<() => void>();
let whenSent: (waiting: Waiting, answer: unknown) => void = () => undefined;
let timer: ReturnType<typeof setTimeout> | undefined;
let lastMadeAt = 0;
/** Whether what was kept before this page was opened has been read. */
let looked = false;

/** Who is at work here now: their work is sent from now on, and what is kept from now on is theirs. Nobody: everything waits. */
export function worksAs(now: Author | undefined): void {
  if (setAuthor(now) && now !== undefined) drain();
}

const show = (now: readonly Waiting[]): void => {
  snapshot = [...now].sort((a, b) => a.madeAt - b.madeAt);
  for (const listener of listeners) listener();
};

const sameAs = (a: readonly Waiting[], b: readonly Waiting[]): boolean =>
  a.length === b.length && a.every((w, i) => w.key === b[i]?.key && w.refused === b[i]?.refused);

/** Reads the disk again. Screens are told only of what is news to them: something came, went or was refused. */
const refresh = async (tell: boolean): Promise<void> => {
  const found = (await entries<string, KeptBefore<Waiting>>(store)).flatMap(([, waiting]) => upgraded(waiting));
  looked = true;
  const keys = new Set(found.map((w) => w.key));
  const now = [...found, ...snapshot.filter((w) => w.onDisk === false && !keys.has(w.key))].sort(
    (a, b) => a.madeAt - b.madeAt,
  );
  if (sameAs(now, snapshot)) snapshot = now;
  else show(now);
  if (tell) bus.postMessage(null);
};

type Attempt =
  | { readonly kind: 'sent'; readonly answer: unknown }
  | { readonly kind: 'later' }
  | { readonly kind: 'broken'; readonly why: string }
  | { readonly kind: 'refused'; readonly error: Refused };

/** Sent later than this after it was done, it says how much later. */
const AT_ONCE_MS = 2_000;

const attempt = async ({ endpoint, params, body, key, by, madeAt }: Waiting): Promise<Attempt> => {
  try {
    const { method, path } = routeOf(endpoint);
    const waited = Date.now() - madeAt;
    const marks = { key, personId: by?.personId, waitedMs: waited > AT_ONCE_MS ? waited : undefined };
    return { kind: 'sent', answer: await send(method, addressOf({ path }, { params }), body, marks) };
  } catch (error) {
    if (error instanceof Refused && error.code === 'broken') return { kind: 'broken', why: error.message };
    // signed out, too many, or broken on their side: the command is good, the moment is not
    return isDefinite(error) ? { kind: 'refused', error } : { kind: 'later' };
  }
};

/** Only one tab sends. Where the browser has no locks (plain http on a network), this tab does. */
const alone = async (work: () => Promise<void>): Promise<void> => {
  if (!('locks' in navigator)) return work();
  await navigator.locks.request('zabrik-outbox', { ifAvailable: true }, (lock) => {
    if (lock !== null) return work();
    timer = setTimeout(drain, 3_000); // another tab sends; look again in case it is closed
    return undefined;
  });
};

interface Names {
  readonly id?: unknown;
  readonly replaces?: unknown;
  readonly also?: Names | null;
}
const namesIn = (body: unknown): Names => (typeof body === 'object' && body !== null ? body : {});

/** The weights a correction is about: it cannot go before those have. */
const about = ({ body }: Waiting): readonly unknown[] => {
  const { replaces, also } = namesIn(body);
  return [replaces, also?.replaces].filter((name) => name != null);
};
/** The names of what a command writes: its key, and that of the second of two that go together. */
const writes = ({ key, body }: Waiting): readonly unknown[] => [key, namesIn(body).also?.id];

let stuck = false;
const setStuck = (now: boolean): void => {
  if (now === stuck) return;
  stuck = now;
  for (const listener of listeners) listener();
};

/** The next that can go: on the disk, not refused, of who is signed in, and not about one that waits itself. */
const nextToSend = (): Waiting | undefined =>
  snapshot.find(
    (w) =>
      w.refused === undefined &&
      w.onDisk !== false &&
      (w.by === undefined || w.by.personId === authorNow()?.personId) &&
      !about(w).some((name) => snapshot.some((other) => other !== w && writes(other).includes(name))),
  );

/** Another tab has sent, or looked: what it found out is told here too. */
async function hear(told: Told): Promise<void> {
  if (told !== null) asked.get(told.key)?.answered(told.answer);
  await refresh(false);
  for (const { key, refused, code, onDisk } of snapshot) {
    const asker = asked.get(key);
    if (refused === undefined || onDisk === false || asker?.isThere() !== true) continue;
    await dismiss(key);
    asker.refused(new Refused({ code: code ?? 'invalid', title: refused, status: 409 }));
  }
}

let draining = false;
/** Something was kept while the last round was ending. */
let oneMore = false;
export function drain(): void {
  clearTimeout(timer);
  if (draining) {
    oneMore = true;
    return;
  }
  draining = true;
  oneMore = false;
  void alone(async () => {
    for (;;) {
      await refresh(false);
      const next = nextToSend();
      if (next === undefined) {
        tellAllKept();
        return;
      }
      const outcome = await attempt(next);
      const broke = (next.broke ?? 0) + (outcome.kind === 'broken' ? 1 : 0);
      setStuck(outcome.kind === 'later' || outcome.kind === 'broken');
      if (outcome.kind === 'later' || (outcome.kind === 'broken' && broke < MOST_BROKEN)) {
        await update<Waiting>(next.key, (w) => ({ ...(w ?? next), tries: next.tries + 1, broke }), store);
        timer = setTimeout(drain, Math.min(FIRST_RETRY_MS * 2 ** next.tries, LONGEST_RETRY_MS));
        tellAllKept();
        return;
      }
      const asker = asked.get(next.key);
      if (outcome.kind === 'sent') {
        whenSent(next, outcome.answer);
        noteDone(next, next.by);
        await del(next.key, store);
        asker?.answered(outcome.answer);
        bus.postMessage({ key: next.key, answer: outcome.answer } satisfies Told);
      } else if (outcome.kind === 'refused' && asker?.isThere() === true) {
        await del(next.key, store);
        asker.refused(outcome.error);
      } else {
        const refused = outcome.kind === 'broken' ? outcome.why : outcome.error.message;
        const code = outcome.kind === 'broken' ? ('broken' as const) : outcome.error.code;
        await update<Waiting>(next.key, (w) => ({ ...(w ?? next), broke, refused, code }), store);
      }
      await refresh(true);
    }
  }).finally(() => {
    draining = false;
    if (oneMore) drain();
  });
}

const whyNotKept = (error: unknown): string =>
  (error as { readonly name?: unknown } | null)?.name === 'QuotaExceededError'
    ? 'This tablet’s storage is full: it was not kept. Make room on it, then say it again.'
    : `This device could not keep it (${error instanceof Error ? error.message : String(error)}). Say it again.`;

/** How a command is spoken of. */
export interface Spoken {
  readonly says: string;
  /** What belongs together on a screen: the id of what it is about. The first parameter when nothing is said. */
  readonly about?: string | undefined;
  /** A new one when nothing is said. */
  readonly key?: string | undefined;
}

const commandOf = <E extends Endpoint>(
  endpoint: E,
  ask: Ask<E>,
  { says, about, key = uuidv7() }: Spoken,
): CommandRecord => {
  const { params = {}, body } = ask as { readonly params?: Readonly<Record<string, string>>; readonly body?: unknown };
  return {
    key,
    endpoint: endpoint.id as EndpointId,
    params,
    body,
    about: about ?? Object.values(params)[0] ?? key,
    says,
  };
};

/**
 * Keeps a command. It is in useOutbox at once, and marked until it is on disk; only what is on disk is sent.
 * Answers whether the disk took it. What it did not take stays in the outbox as refused, with the reason.
 */
export const keep = <E extends Endpoint>(endpoint: E, ask: Ask<E>, spoken: Spoken): Promise<boolean> =>
  keepCommand(commandOf(endpoint, ask, spoken));

/**
 * Keeps a command and waits for what comes of it: the answer; a refusal, which is thrown and gone from here, since whoever asked shows it; or
 * that it is kept until the server is back. `isThere` says whether somebody still looks: a refusal nobody would see stays here to be read.
 *
 * Errors  what the server refuses; `NotKept` where this device's disk took nothing: then nothing was sent.
 */
export function keepAndAsk<E extends Endpoint>(
  endpoint: E,
  ask: Ask<E>,
  spoken: Spoken,
  isThere: () => boolean,
): Promise<Outcome<E>> {
  const command = commandOf(endpoint, ask, spoken);
  const { key } = command;
  const onItsWay = (): boolean => snapshot.some((w) => w.key === key && w.onDisk === false);
  return askNow<E>(key, isThere, onItsWay, async () => {
    if (await keepCommand(command)) return true;
    await dismiss(key);
    return false;
  });
}

async function keepCommand(command: CommandRecord): Promise<boolean> {
  // two touches in one millisecond keep their order, also when the page was opened anew between them
  if (!looked) await refresh(false);
  lastMadeAt = Math.max(lastMadeAt + 1, Date.now(), (snapshot.at(-1)?.madeAt ?? 0) + 1);
  dispatchEvent(new Event(WORKED));
  const waiting: Waiting = { ...command, by: authorNow(), madeAt: lastMadeAt, tries: 0 };
  const replace = (now: Waiting): void => show([...snapshot.filter((w) => w.key !== waiting.key), now]);
  replace({ ...waiting, onDisk: false });
  try {
    await set(waiting.key, waiting, store);
  } catch (error) {
    replace({ ...waiting, onDisk: false, refused: whyNotKept(error) });
    return false;
  }
  replace(waiting);
  bus.postMessage(null);
  drain();
  return true;
}

/** Someone has read why it was refused: it may go. */
export async function dismiss(key: string): Promise<void> {
  snapshot = snapshot.filter((w) => w.key !== key);
  await del(key, store);
  await refresh(true);
  for (const listener of listeners) listener();
}

/** Takes back what only this tablet knows of yet: it was never sent. */
export async function takeBack(of: readonly Waiting[], id: EndpointId): Promise<void> {
  for (const w of of) if (w.endpoint === id && w.refused === undefined) await dismiss(w.key);
}

const onceMore = async (key: string, by: Author | undefined, body?: unknown): Promise<void> => {
  const kept = snapshot.find((w) => w.key === key);
  if (kept === undefined) return;
  const { refused: _, code: __, ...again } = kept;
  await set(key, { ...again, body: body ?? kept.body, by, tries: 0, broke: 0 }, store);
  await refresh(true);
  drain();
};

/** Sends once more what was only asked to be read, said to be read. */
export async function sendConfirmed(key: string): Promise<void> {
  const kept = snapshot.find((w) => w.key === key);
  if (kept !== undefined) await onceMore(key, kept.by, { ...(kept.body as object), confirmed: true });
}

/** Sends what was refused or put aside once more, as it is. */
export const sendAgain = (key: string): Promise<void> => onceMore(key, snapshot.find((w) => w.key === key)?.by);

/**
 * Takes another's work over: it goes out as that of who is signed in now. Under the same key: if it had arrived and only the answer was
 * lost, it is not written twice.
 */
export const writeAsMine = (key: string): Promise<void> => {
  const me = authorNow();
  return me === undefined ? Promise.resolve() : onceMore(key, me);
};

/** What was done and is no longer in the records comes back here, to be sent again or let go by whoever it belongs to. */
export async function offerBack(lost: readonly Done[], stateAt: string): Promise<void> {
  for (const { doneAt, ...command } of lost)
    await set(
      command.key,
      {
        ...command,
        madeAt: doneAt,
        tries: 0,
        before: stateAt,
        refused: 'It was in the records, and is not since they were brought back from a backup.',
      } satisfies Waiting,
      store,
    );
  await refresh(true);
}

/** Sends all of one's own that a restore has lost, in the order it was done. */
export async function sendLostAgain(): Promise<void> {
  const mine = snapshot.filter((w) => w.before !== undefined && w.by?.personId === authorNow()?.personId);
  for (const { refused: _, ...again } of mine) await set(again.key, { ...again, tries: 0, broke: 0 }, store);
  await refresh(true);
  drain();
}

/** Whether the browser has promised to keep what is here when its disk is short; undefined where it does not say. */
export const promisedToKeep = async (): Promise<boolean | undefined> =>
  'storage' in navigator && 'persisted' in navigator.storage ? navigator.storage.persisted() : undefined;

export function onSent(handler: typeof whenSent): void {
  whenSent = handler;
}

const subscribe = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => {
    listeners.delete(listener);
  };
};

/** Whether the last thing sent did not arrive: what is kept now waits for the server. */
export const useStuck = (): boolean => useSyncExternalStore(subscribe, () => stuck);

/** Everything not yet with the server, in the order it was made. */
export const waitingNow = (): readonly Waiting[] => snapshot;
export const useOutbox = (): readonly Waiting[] => useSyncExternalStore(subscribe, waitingNow);

const NONE: readonly Waiting[] = [];
const byAbout = new Map<string, readonly Waiting[]>();
/** What waits about one thing. The same list as before while nothing came, went or was refused. */
export function waitingAbout(about: string): readonly Waiting[] {
  const before = byAbout.get(about) ?? NONE;
  const now = snapshot.filter((w) => w.about === about);
  if (sameAs(before, now)) return before;
  byAbout.set(about, now);
  return now;
}
export const useWaitingAbout = (about: string): readonly Waiting[] =>
  useSyncExternalStore(subscribe, () => waitingAbout(about));

/** Begins to send what waits. Done when what was kept before has been read. */
export async function startOutbox(): Promise<void> {
  bus.onmessage = ({ data }: MessageEvent<Told>) => void hear(data);
  addEventListener('online', drain);
  document.addEventListener('visibilitychange', () => {
    if (document.visibilityState === 'visible') drain();
  });
  if ('storage' in navigator && 'persist' in navigator.storage) void navigator.storage.persist().catch(() => false);
  await refresh(false);
  drain();
}
