import type { TemperatureLog } from './judge.ts';
import type { CookPoints, Verdict } from './limit.ts';
import { longestHeld } from './longestHeld.ts';

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
  const held = limit.value.points.map((p) => longestHeld(log, (r) => r.C >= p.T_C));
  const points = limit.value.points.map((p, i) => ({
    C: p.T_C,
    heldSeconds: (held[i] ?? 0) * 60,
    asksSeconds: p.t_s,
  }));
  const reached = points.some((p, i) => held[i] !== undefined && p.heldSeconds >= p.asksSeconds);
  return { verdict: reached ? 'within' : 'open', points };
}
