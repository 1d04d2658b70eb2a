import type { TemperatureLog } from './judge.ts';
import type { CookPoints, Verdict } from './limit.ts';

export interface CookingProgress {
  readonly verdict: Verdict;
  /** For each point of the limit, in its order: the longest time the core was held so hot so far, and what it asks; seconds. */
  readonly points: readonly { readonly C: number; readonly heldSeconds: number; readonly asksSeconds: number }[];
}

/**
 * Cooking against its time and temperature points, from readings of the core.
 *
 * Shapes  log in order of time, measured readings only. Time counts between two readings that are both hot enough.
 * Keeps   any one point is enough; nothing is read between points; open until one is reached.
 */
export function cookingProgress(limit: CookPoints, log: TemperatureLog): CookingProgress {
  const points = limit.value.points.map((p) => {
    let longest = 0;
    let since: number | undefined;
    let reached = false;
    for (const r of log) {
      if (r.C >= p.T_C) {
        reached = true;
        since ??= r.minute;
        longest = Math.max(longest, r.minute - since);
      } else since = undefined;
    }
    return { C: p.T_C, heldSeconds: longest * 60, asksSeconds: p.t_s, reached };
  });
  return {
    verdict: points.some((p) => p.reached && p.heldSeconds >= p.asksSeconds) ? 'within' : 'open',
    points: points.map(({ C, heldSeconds, asksSeconds }) => ({ C, heldSeconds, asksSeconds })),
  };
}
