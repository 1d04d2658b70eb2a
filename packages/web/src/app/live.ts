import type { QueryClient } from '@tanstack/react-query';
import type { Changed, ScaleReading } from '@zabrik/contract';
import { useSyncExternalStore } from 'react';
import { drain } from './outbox.ts';

const AWAY: ScaleReading = { state: 'away', grossMg: 0, tareMg: 0, netMg: 0, settled: 0, at: 0 };

let reading = AWAY;
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

export const useScale = (): ScaleReading => useSyncExternalStore(subscribe, () => reading);
export const useConnected = (): boolean => useSyncExternalStore(subscribe, () => connected);

/** Listens to what changes in the house while someone is signed in. Returns the way to stop. */
export function listen(client: QueryClient): () => void {
  const source = new EventSource('/api/v1/live');
  const again = (): void => void client.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== 'catalogue' });
  source.addEventListener('open', () => {
    connected = true;
    tell();
    drain();
  });
  source.addEventListener('error', () => {
    connected = false;
    reading = AWAY;
    tell();
  });
  source.addEventListener('resync', again);
  source.addEventListener('changed', ({ data }: MessageEvent<string>) => {
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
  source.addEventListener('scale', ({ data }: MessageEvent<string>) => {
    reading = JSON.parse(data) as ScaleReading;
    tell();
  });
  return () => {
    source.close();
    connected = false;
    reading = AWAY;
    tell();
  };
}
