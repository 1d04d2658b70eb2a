/** Cooking through, by what is in the pot: every limit that covers any of it has to be reached. */
import { type CookingProgress, cookingProgress } from './cookingLog.ts';
import { type CookedAs, cookedAs, cookedFoods, type Food } from './food.ts';
import type { CookPoints, Limit, Verdict } from './limit.ts';
import { limitsFor } from './limitsFor.ts';
import type { TemperatureLog } from './readings.ts';

const cooked: ReadonlySet<Food> = new Set(cookedFoods);

export interface CookingFor {
  /** The limits that cover it, each of which has to be reached. */
  readonly limits: readonly CookPoints[];
  /** Not everything could be told: judged as the strictest until it is said. */
  readonly asks: readonly ('what' | 'how')[];
}

/**
 * The cooking limits of a profile for what is in the pot.
 *
 * Shapes  inPot: what is raw in it. How: as the recipe says; undefined where it does not.
 * Keeps   where anything is unknown, all that could cover it are asked for: an answer can only take some away.
 */
export function cookingFor(limits: readonly Limit[], inPot: readonly Food[], how: CookedAs | undefined): CookingFor {
  const unknown = inPot.includes('unknown');
  const what = unknown ? cookedFoods : inPot.filter((f) => cooked.has(f));
  const ways = how === undefined ? cookedAs : [how];
  const found = new Map<string, CookPoints>();
  for (const food of what)
    for (const as of ways)
      for (const limit of limitsFor(limits, 'cook_time_temp', 'cook', food, as)) found.set(limit.id, limit);
  return {
    limits: [...found.values()],
    asks: [
      ...(unknown ? (['what'] as const) : []),
      ...(how === undefined && what.length > 0 ? (['how'] as const) : []),
    ],
  };
}

export interface CookedSoFar {
  readonly verdict: Verdict;
  /** The limit that is furthest from reached, or the last one that was: what to aim at. */
  readonly deciding: CookPoints;
  readonly progress: CookingProgress;
}

/** What readings of the core say of all limits that cover it; undefined where the profile has none. */
export function cookedSoFar(limits: readonly CookPoints[], log: TemperatureLog): CookedSoFar | undefined {
  const each = limits.map((limit) => ({ deciding: limit, progress: cookingProgress(limit, log) }));
  const hottest = (l: CookPoints): number => Math.max(...l.value.points.map((p) => p.T_C));
  const left = each.filter((e) => e.progress.verdict !== 'within');
  const [first] = (left.length > 0 ? left : each).sort((a, b) => hottest(b.deciding) - hottest(a.deciding));
  return first === undefined ? undefined : { verdict: left.length > 0 ? first.progress.verdict : 'within', ...first };
}
