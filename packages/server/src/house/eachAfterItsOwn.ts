/** How a table goes into a house's file. */
export interface Filed {
  readonly name: string;
  readonly order: string;
  readonly drop: readonly string[];
  /** What it comes after though none of its columns points there. */
  readonly after: string | undefined;
}

/**
 * Tables in an order in which their rows can be written: each after what it points at and what it is said to come after, else as they were given.
 *
 * Shapes  points: which table points at which; what points at itself or out of the list is no matter.
 * Errors  a sentence, for tables that wait for each other in a ring.
 */
export function eachAfterItsOwn(
  tables: readonly Filed[],
  points: readonly { readonly table: string; readonly at: string }[],
): Filed[] {
  const placed: Filed[] = [];
  const waiting = [...tables];
  const waits = ({ name, after }: Filed): boolean =>
    waiting.some(
      (other) =>
        other.name !== name && (other.name === after || points.some((p) => p.table === name && p.at === other.name)),
    );
  while (waiting.length > 0) {
    const next = waiting.findIndex((table) => !waits(table));
    if (next === -1)
      throw new Error(`tables that point at each other in a ring: ${waiting.map((w) => w.name).join(', ')}`);
    placed.push(...waiting.splice(next, 1));
  }
  return placed;
}
