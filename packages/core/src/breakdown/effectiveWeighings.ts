export interface WeighingLike {
  readonly id: string;
  /** The earlier weighing this one puts right or takes back. */
  readonly replaces: string | null;
  /** null: the earlier one is taken back and nothing stands in its place. */
  readonly massMg: number | null;
}

/**
 * The weighings that count: those with a mass that no later one replaces. Weighings are never edited; a correction is a new one.
 *
 * Keeps   the given order.
 */
export function effectiveWeighings<W extends WeighingLike>(all: readonly W[]): (W & { readonly massMg: number })[] {
  const replaced = new Set(all.flatMap((w) => (w.replaces === null ? [] : [w.replaces])));
  return all.filter((w): w is W & { readonly massMg: number } => w.massMg !== null && !replaced.has(w.id));
}
