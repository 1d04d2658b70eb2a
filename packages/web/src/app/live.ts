import type { QueryClient } from '@tanstack/react-query';
import type { Changed, Progress, ScaleReading } from '@zabrik/contract';
import { PRACTICE_SCALE } from '@zabrik/core';
import { useSyncExternalStore } from 'react';
import { drain } from './outbox.ts';
import { noteProgress } from './progress.ts';

const FIRST_RESYNC_MS = 2_000;
const BENCH = 'bench';
const AWAY: ScaleReading = { scale: BENCH, state: 'away', grossMg: 0, tareMg: 0, netMg: 0, settled: 0, at: 0 };

const kept = (): string => {
  try {
    return localStorage.getItem('zabrik-scale') ?? BENCH;
  } catch {
    return BENCH;
  }
};
/** Which scale this device looks at; kept on the device, but for one to practise on. */
let chosen = kept();
const latest = new Map<string, ScaleReading>();
let reading = AWAY;
let atRest = AWAY;
/** How often something was lifted off the chosen scale: what lies there since the last time is one load, however often it comes to rest. */
let lifts = 0;
let stoodMg = 0;
export const liftsNow = (): number => lifts;

function read(next: ScaleReading): void {
  latest.set(next.scale, next);
  if (next.scale !== chosen) return;
  const same =
    next.state === atRest.state &&
    (next.state === 'moving' ||
      (next.netMg === atRest.netMg && next.tareMg === atRest.tareMg && next.settled === atRest.settled));
  if (next.netMg < stoodMg / 2) {
    lifts += 1;
    stoodMg = 0;
  }
  if (next.state === 'steady') stoodMg = Math.max(stoodMg, next.netMg);
  reading = next;
  if (!same) atRest = next;
}
let connected = false;
const listeners = new Set<() => void>();
const tell = (): void => {
  for (const listener of listeners) listener();
};
const subscribe = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => {
    listeners.delete(listener);
  };
};

/** Looks at another of the house's scales from now on. */
export function chooseScale(id: string): void {
  chosen = id;
  if (id !== PRACTICE_SCALE)
    try {
      localStorage.setItem('zabrik-scale', id);
    } catch {
      // a browser that keeps nothing asks again next time
    }
  const now = latest.get(id) ?? { ...AWAY, scale: id };
  atRest = { ...now, state: 'moving' };
  read(now);
  tell();
}

/** Practice ends: what is weighed from now on lies on a real scale. */
export function leavePractice(): void {
  if (chosen === PRACTICE_SCALE) chooseScale(kept());
}

/** A scale that the house does not have any more is looked at no more: its first one is. */
export function keepToScales(scales: readonly { readonly id: string }[], practice: boolean): void {
  const [first] = scales;
  if (practice && chosen === PRACTICE_SCALE) return;
  if (first !== undefined && !scales.some((s) => s.id === chosen)) chooseScale(first.id);
}

/** A scale that this device reads over its own cable. */
export interface OwnScale {
  readonly id: string;
  /** Tells it to tare or to set its zero; in words why it did not. */
  readonly tell: (command: 'tare' | 'untare' | 'zero') => string | undefined;
}
let own: OwnScale | undefined;

/** From now on this device reads that scale itself, whatever the server says of it; undefined: none any more. */
export function holdOwn(scale: OwnScale | undefined): void {
  if (own !== undefined && own.id !== scale?.id) hearOwn({ ...AWAY, scale: own.id });
  own = scale;
}
export function hearOwn(said: ScaleReading): void {
  read(said);
  tell();
}
export const ownScale = (id: string): OwnScale | undefined => (own?.id === id ? own : undefined);

export const useChosenScale = (): string => useSyncExternalStore(subscribe, () => chosen);

/** Every reading, twenty-five a second while the pan moves: for what shows the figure itself. */
export const useScale = (): ScaleReading => useSyncExternalStore(subscribe, () => reading);

/** What another scale of the house shows. */
export const useReadingOf = (scale: string): ScaleReading | undefined =>
  useSyncExternalStore(subscribe, () => latest.get(scale));

/** The reading when it last came to rest, or that it moves: for what need not be drawn again at every tremble. */
export const useScaleAtRest = (): ScaleReading => useSyncExternalStore(subscribe, () => atRest);

/** Whether the live line to the server stands. */
export const isConnected = (): boolean => connected;
export const useConnected = (): boolean => useSyncExternalStore(subscribe, isConnected);

/** The server beats every three seconds: after this long without a word the line is dead, whatever the browser thinks of it. */
const SILENT_MS = 8_000;

/** Listens to what changes in the house while someone is signed in. Returns the way to stop. */
export function listen(client: QueryClient): () => void {
  let source: EventSource | undefined;
  let heardAt = Date.now();
  // the first one comes with the connection, when the screen has only just been read: it waits until the screen stands
  let first: ReturnType<typeof setTimeout> | undefined;
  const again = (): void => void client.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== 'catalogue' });
  const lost = (): void => {
    connected = false;
    for (const id of [...latest.keys(), chosen]) if (id !== own?.id) read({ ...AWAY, scale: id });
    tell();
  };
  const open = (): void => {
    source?.close();
    heardAt = Date.now();
    const line = new EventSource('/api/v1/live');
    source = line;
    const on = (event: string, act: (data: string) => void): void =>
      line.addEventListener(event, (said) => {
        heardAt = Date.now();
        act((said as MessageEvent<string>).data);
      });
    on('open', () => {
      connected = true;
      tell();
      drain();
    });
    line.addEventListener('error', lost);
    on('beat', () => undefined);
    on('resync', () => {
      if (first === undefined) first = setTimeout(again, FIRST_RESYNC_MS);
      else again();
    });
    on('changed', (data) => {
      const changed = JSON.parse(data) as Changed;
      for (const topic of changed.topics) {
        // a weighing names its breakdown: other breakdowns need not be read again
        const [only] = changed.ids;
        if (topic === 'breakdowns' && changed.ids.length === 1 && only !== undefined) {
          void client.invalidateQueries({ queryKey: ['breakdowns', 'one', only] });
          void client.invalidateQueries({ queryKey: ['breakdowns', 'list'] });
        } else void client.invalidateQueries({ queryKey: [topic] });
      }
      void client.invalidateQueries({ queryKey: ['flow'] });
    });
    on('progress', (data) => noteProgress(JSON.parse(data) as Progress));
    on('scale', (data) => {
      const said = JSON.parse(data) as ScaleReading;
      if (said.scale === own?.id) return;
      read(said);
      tell();
    });
  };
  open();
  // a line can be dead without an error: then what the pan shows is old, and must not be taken for a weight
  const watch = setInterval(() => {
    if (Date.now() - heardAt < SILENT_MS) return;
    lost();
    open();
  }, 1_000);
  addEventListener('offline', lost);
  addEventListener('online', open);
  return () => {
    clearTimeout(first);
    clearInterval(watch);
    removeEventListener('offline', lost);
    removeEventListener('online', open);
    source?.close();
    lost();
  };
}
