import type { CookPoints, Verdict } from './limit.ts';
import { longestHeld } from './longestHeld.ts';
import { atLeast, leastOf, orderedLog, type TemperatureLog } from './readings.ts';

/** Minutes between two readings of a core beyond which the time between them does not count. A choice: see docs/decisions.md. */
export const LONGEST_UNREAD_COOKING_MINUTES = 15;

export interface CookingProgress {
  readonly verdict: Verdict;
  /** For each point of the limit, in its order: the longest time the core was held so hot so far, and what it asks; seconds. */
  readonly points: readonly { readonly C: number; readonly heldSeconds: number; readonly asksSeconds: number }[];
}

/**
 * Cooking against its time and temperature points, from readings of the core.
 *
 * Shapes  measured readings only, in any order. Time counts between two readings that are both hot enough and no more than
 *         LONGEST_UNREAD_COOKING_MINUTES apart.
 * Keeps   any one point is enough; nothing is read between points; open until one is reached.
 * Errors  a reading that is no number: not shown.
 */
export function cookingProgress(limit: CookPoints, readings: TemperatureLog): CookingProgress {
  const log = readings.length === 0 ? [] : orderedLog(readings);
  const held = limit.value.points.map((p) =>
    longestHeld(log ?? [], (r) => atLeast(r.C, leastOf(p.T_C, p.T_F)), LONGEST_UNREAD_COOKING_MINUTES),
  );
  const points = limit.value.points.map((p, i) => ({
    C: p.T_C,
    heldSeconds: (held[i] ?? 0) * 60,
    asksSeconds: p.t_s,
  }));
  if (log === undefined) return { verdict: 'not-shown', points };
  const reached = points.some((p, i) => held[i] !== undefined && p.heldSeconds >= p.asksSeconds);
  return { verdict: reached ? 'within' : 'open', points };
}
