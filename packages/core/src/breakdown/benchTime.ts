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
