/**
 * Keys of commands that have not been answered for certain. The key belongs to what was meant, not to the press of a button: as long as
 * nobody knows whether the server did it, the same thing meant again goes out under the same key, also after a reload.
 */
import { v7 as uuidv7 } from 'uuid';

interface Kept {
  readonly key: string;
  readonly at: number;
}

const SHELF = 'zabrik-intents';
/** Who presses the same an hour later means it anew. The server keeps answers for longer. */
const LONGEST_MS = 3_600_000;

let actor = '';
/** Whose commands these are: another person's the same words are another intent. */
export const actsFor = (personId: string | undefined): void => {
  actor = personId ?? '';
};

/** A short name for long content. Source: cyrb53, a public-domain mixing of two 32-bit multiplications. */
function nameOf(text: string): string {
  let a = 0xdeadbeef;
  let b = 0x41c6ce57;
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    a = Math.imul(a ^ c, 2_654_435_761);
    b = Math.imul(b ^ c, 1_597_334_677);
  }
  a = Math.imul(a ^ (a >>> 16), 2_246_822_507) ^ Math.imul(b ^ (b >>> 13), 3_266_489_909);
  b = Math.imul(b ^ (b >>> 16), 2_246_822_507) ^ Math.imul(a ^ (a >>> 13), 3_266_489_909);
  return `${text.length}.${(b >>> 0).toString(36)}${(a >>> 0).toString(36)}`;
}

let memory: Record<string, Kept> = {};
const read = (): Record<string, Kept> => {
  try {
    return { ...memory, ...(JSON.parse(localStorage.getItem(SHELF) ?? '{}') as Record<string, Kept>) };
  } catch {
    return memory; // no storage: the key lives as long as the page
  }
};
const write = (now: Record<string, Kept>): void => {
  memory = now;
  try {
    localStorage.setItem(SHELF, JSON.stringify(now));
  } catch {
    // kept in memory
  }
};

/** What was meant: who, which command, on what, with what. */
export const intentOf = (endpointId: string, parts: unknown): string =>
  `${actor} ${endpointId} ${nameOf(JSON.stringify(parts ?? null))}`;

/** The key of an intent: the one it went out under before, while that was not answered for certain; else a new one. */
export function keyOf(intent: string): string {
  const now = Date.now();
  const kept = Object.fromEntries(Object.entries(read()).filter(([, k]) => now - k.at < LONGEST_MS));
  const key = kept[intent]?.key ?? uuidv7();
  write({ ...kept, [intent]: { key, at: now } });
  return key;
}

/** The key an intent went out under and was not answered for certain, if there is one. */
export const openKeyOf = (intent: string): string | undefined => read()[intent]?.key;

/** It was answered for certain: done, or refused. Meant once more, it is another command. */
export function settled(intent: string): void {
  const { [intent]: _, ...others } = read();
  memory = others;
  write(others);
}
