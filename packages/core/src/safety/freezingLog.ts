/** A freezing treatment, by readings of the core. */
import type { FreezeTreatment, Verdict } from './limit.ts';
import { longestHeld } from './longestHeld.ts';
import { LONGEST_UNREAD_HOURS, orderedLog, type TemperatureLog } from './readings.ts';

export interface FreezingProgress {
  readonly verdict: Verdict;
  /** For each option of the limit, in its order: the longest time it is shown to have been held, hours, and what it asks. */
  readonly options: readonly { readonly heldHours: number; readonly holdHours: number; readonly holdC: number }[];
  /** The option that is nearest to done, or done first; undefined while no reading was cold enough to begin one. */
  readonly best: { readonly heldHours: number; readonly holdHours: number; readonly holdC: number } | undefined;
  /** An option would be held long enough if nothing had happened in a gap too long to say so; the widest such gap, hours. */
  readonly unreadHours: number;
}

/**
 * A freezing treatment against its options, from readings of the core. The one function for logs and for what a lot was read at.
 *
 * Shapes  readings in any order, measured ones only. Time counts between two readings that are both cold enough and no more than
 *         LONGEST_UNREAD_HOURS apart, once one was as cold as the option freezes to. A core that cold is frozen through.
 * Keeps   within, open, or not shown: when it would be held long enough only if a longer gap counted; when the limit is for pieces no
 *         thicker than so many centimetres and nobody said how thick it is. A warm reading begins the count again.
 * Errors  a reading that is no number: not shown. Thicker than the limit's table: outside, it is not judged by it.
 */
export function freezingProgress(
  limit: FreezeTreatment,
  readings: TemperatureLog,
  thicknessCm?: number,
): FreezingProgress {
  const log = readings.length === 0 ? [] : orderedLog(readings);
  const held = limit.value.options.map((o) => {
    const frozenAt = log?.findIndex((r) => r.C <= o.freeze_C) ?? -1;
    const since = frozenAt === -1 ? [] : (log ?? []).slice(frozenAt);
    const hours = (longestGap?: number): number => (longestHeld(since, (r) => r.C <= o.hold_C, longestGap) ?? 0) / 60;
    return {
      began: frozenAt !== -1,
      holdC: o.hold_C,
      holdHours: o.hold_h,
      heldHours: hours(LONGEST_UNREAD_HOURS * 60),
      bridged: hours(),
    };
  });
  const options = held.map(({ holdC, holdHours, heldHours }) => ({ holdC, holdHours, heldHours }));
  if (log === undefined) return { verdict: 'not-shown', options, best: undefined, unreadHours: 0 };
  const done = held.some((o) => o.heldHours >= o.holdHours);
  const bridged = !done && held.some((o) => o.bridged >= o.holdHours);
  const best = held
    .filter((o) => o.began)
    .sort((a, b) => b.heldHours / b.holdHours - a.heldHours / a.holdHours)
    .map(({ holdC, holdHours, heldHours }) => ({ holdC, holdHours, heldHours }))[0];
  const thickest = limit.value.thickness_max_cm;
  const unread = log.reduce((w, r, i) => Math.max(w, (log[i + 1]?.minute ?? r.minute) - r.minute), 0) / 60;
  const tooThick = thickest !== undefined && thicknessCm !== undefined && !(thicknessCm <= thickest);
  const thicknessSaid = thickest === undefined || thicknessCm !== undefined;
  return {
    verdict: tooThick ? 'outside' : done && thicknessSaid ? 'within' : done || bridged ? 'not-shown' : 'open',
    options,
    best,
    unreadHours: bridged ? unread : 0,
  };
}
