/** How this device works at the bench: kept on the device, because the tablet by the sink is not the one by the window. */
import { useSyncExternalStore } from 'react';

export interface BenchDevice {
  /** Takes a weight by itself when a new load has stood still for a second. */
  readonly whenSteady: boolean;
  /** Says the piece and the grams aloud. */
  readonly aloud: boolean;
  /** Larger pan, no steps beside it. */
  readonly large: boolean;
}

const NAME = 'zabrik-bench';
const usual: BenchDevice = { whenSteady: false, aloud: false, large: false };

const read = (): BenchDevice => {
  try {
    return { ...usual, ...(JSON.parse(localStorage.getItem(NAME) ?? '{}') as Partial<BenchDevice>) };
  } catch {
    return usual;
  }
};

let device = read();
const listeners = new Set<() => void>();

export function setBenchDevice(change: Partial<BenchDevice>): void {
  device = { ...device, ...change };
  try {
    localStorage.setItem(NAME, JSON.stringify(device));
  } catch {
    // a browser that keeps nothing still works until it is closed
  }
  for (const listener of listeners) listener();
}

export const useBenchDevice = (): BenchDevice =>
  useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => device,
  );

/** Says it with the browser's own voice, where it has one. A newer sentence cuts the older off. */
export function sayAloud(sentence: string): void {
  if (!('speechSynthesis' in window)) return;
  speechSynthesis.cancel();
  const said = new SpeechSynthesisUtterance(sentence);
  said.lang = document.documentElement.lang;
  speechSynthesis.speak(said);
}
