import { monitorEventLoopDelay } from 'node:perf_hooks';
import type { Logger } from 'pino';

/** How long nothing else could be done before someone looks into it. */
const LONG_MS = 250;
const LOOK_MS = 5_000;

/** Watches whether one piece of work keeps all others waiting. Answers the longest wait since it began, milliseconds. */
export function watchStalls(log: Logger): { readonly longestMs: () => number; readonly stop: () => void } {
  const delay = monitorEventLoopDelay({ resolution: 10 });
  delay.enable();
  let longest = 0;
  const look = (): number => {
    const now = delay.max / 1e6;
    delay.reset();
    if (Number.isFinite(now)) longest = Math.max(longest, now);
    return now;
  };
  const timer = setInterval(() => {
    const ms = look();
    if (ms > LONG_MS) log.warn({ ms: Math.round(ms) }, 'one piece of work kept all others waiting');
  }, LOOK_MS);
  timer.unref();
  return {
    longestMs: () => {
      look();
      return Math.round(longest);
    },
    stop: () => {
      clearInterval(timer);
      delay.disable();
    },
  };
}
