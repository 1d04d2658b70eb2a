import { setTimeout as wait } from 'node:timers/promises';

/** Asks the server every second for its longest stall, until it is stopped. A server that was killed begins anew, so the longest of all counts. */
export function watchStalls(base: () => string): { readonly stop: () => Promise<number> } {
  let going = true;
  let longest = 0;
  const watching = (async () => {
    while (going) {
      try {
        const said = (await (await fetch(`${base()}/healthz`, { signal: AbortSignal.timeout(3_000) })).json()) as {
          longestStallMs: number;
        };
        longest = Math.max(longest, said.longestStallMs);
      } catch {
        // being killed just now
      }
      await wait(1_000);
    }
  })();
  return {
    stop: async () => {
      going = false;
      await watching;
      return longest;
    },
  };
}
