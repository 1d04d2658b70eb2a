/** Reads asked for before the app itself is here; the first call for the same address takes the answer over. */
import { earlyReads } from '@zabrik/contract/early';

const asked = new Map<string, Promise<Response>>();
const LATE_MS = 15_000;

export function askEarly(address: string): void {
  for (const path of earlyReads(address)) {
    const answer = fetch(path, { signal: AbortSignal.timeout(LATE_MS) });
    answer.catch(() => undefined); // whoever takes it over hears of it
    asked.set(path, answer);
  }
}

/** The answer to a read that was asked for early: once. */
export function takeEarly(url: string): Promise<Response> | undefined {
  const answer = asked.get(url);
  asked.delete(url);
  return answer;
}
