const DAY = 86_400_000;
const DAYS = 7;
const WEEKS = 5;
const MONTHS = 12;

/**
 * Which backups stay: all of the last seven days, then the newest of each of five weeks (from Monday, UTC), then the newest of each of twelve
 * months. Whatever the clock says, the newest stays.
 *
 * Shapes  at: instants in any order. Result: those to keep, newest first.
 */
export function toKeep(at: readonly Date[], now: Date): Date[] {
  const newestFirst = [...at].sort((a, b) => b.getTime() - a.getTime());
  const seen = new Set<string>();
  const first = (key: string): boolean => !seen.has(key) && seen.add(key).size > 0;
  return newestFirst.filter((date, i) => {
    const age = now.getTime() - date.getTime();
    // the epoch was a Thursday
    const week = first(`week ${Math.floor((date.getTime() / DAY + 3) / 7)}`);
    const month = first(`month ${date.toISOString().slice(0, 7)}`);
    return (
      i === 0 || age <= DAYS * DAY || (week && age <= (DAYS + 7 * WEEKS) * DAY) || (month && age <= 31 * MONTHS * DAY)
    );
  });
}
