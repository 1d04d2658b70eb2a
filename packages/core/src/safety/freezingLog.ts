import type { TemperatureLog } from './judge.ts';
import type { FreezeTreatment, Verdict } from './limit.ts';
import { longestHeld } from './longestHeld.ts';

export interface FreezingProgress {
  readonly verdict: Verdict;
  /** For each option of the limit, in its order: the longest time it was held so far, hours, and what it asks. */
  readonly options: readonly { readonly heldHours: number; readonly holdHours: number; readonly holdC: number }[];
}

/**
 * A freezing treatment against its options, from readings of the core.
 *
 * Shapes  log in order of time, measured readings only. Time counts between two readings that are both cold enough, once one was as cold
 *         as the option freezes to.
 * Keeps   open until an option is held long enough; a warm reading begins the count again.
 */
export function freezingProgress(limit: FreezeTreatment, log: TemperatureLog): FreezingProgress {
  const options = limit.value.options.map((o) => {
    const frozenAt = log.findIndex((r) => r.C <= o.freeze_C);
    const longest = frozenAt === -1 ? undefined : longestHeld(log.slice(frozenAt), (r) => r.C <= o.hold_C);
    return { heldHours: (longest ?? 0) / 60, holdHours: o.hold_h, holdC: o.hold_C };
  });
  return { verdict: options.some((o) => o.heldHours >= o.holdHours) ? 'within' : 'open', options };
}
