export interface TimeMark {
  readonly kind: 'pause' | 'resume';
  readonly at: Date;
}

/**
 * Minutes worked between two instants, pauses left out.
 *
 * A pause without an end lasts until `to`; a second pause within a pause, or a resume without one, changes nothing.
 *
 * Shapes  marks: any order.
 * Units   minutes, not rounded. Never below 0.
 */
export function workedMinutes(from: Date, to: Date, marks: readonly TimeMark[]): number {
  const start = from.getTime();
  const end = Math.max(start, to.getTime());
  let paused = 0;
  let since: number | undefined;
  for (const { kind, at } of [...marks].sort((a, b) => a.at.getTime() - b.at.getTime())) {
    const t = Math.min(end, Math.max(start, at.getTime()));
    if (kind === 'pause') since ??= t;
    else if (since !== undefined) {
      paused += t - since;
      since = undefined;
    }
  }
  if (since !== undefined) paused += end - since;
  return (end - start - paused) / 60_000;
}

/** Whether the work stands paused after these marks. */
export const isPaused = (marks: readonly TimeMark[]): boolean =>
  [...marks].sort((a, b) => a.at.getTime() - b.at.getTime()).at(-1)?.kind === 'pause';

/** Who has something in hand, from when on. */
export interface InHand {
  readonly personId: string;
  readonly from: Date;
}

/**
 * Minutes worked by each who had it in hand, pauses left out.
 *
 * Shapes  hands: any order; the first has it from the beginning, whatever its `from`. Somebody who had it twice has both together.
 * Keeps   the minutes of all add up to `workedMinutes` from the first hand to `to`.
 */
export function workedByPerson(
  to: Date,
  marks: readonly TimeMark[],
  hands: readonly InHand[],
): ReadonlyMap<string, number> {
  const inOrder = [...hands].sort((a, b) => a.from.getTime() - b.from.getTime());
  const minutes = new Map<string, number>();
  for (const [i, { personId, from }] of inOrder.entries()) {
    const until = inOrder[i + 1]?.from ?? to;
    minutes.set(personId, (minutes.get(personId) ?? 0) + workedMinutes(from, until < to ? until : to, marks));
  }
  return minutes;
}

/**
 * What work cost, in minor units; undefined as long as nobody says what an hour of somebody costs who worked on it: part of a sum is no sum.
 *
 * Shapes  perHour: minor units an hour of one person, undefined where neither the person nor the house has said.
 */
export function workCost(
  minutes: ReadonlyMap<string, number>,
  perHour: (personId: string) => number | undefined,
): number | undefined {
  let cost = 0;
  for (const [personId, worked] of minutes) {
    if (worked === 0) continue;
    const rate = perHour(personId);
    if (rate === undefined) return undefined;
    cost += (worked / 60) * rate;
  }
  return cost;
}
