/** Lists while somebody edits them: each change gives a new list, none touches the old. */

/** The list with one of it changed. */
export const changed = <T>(list: readonly T[], i: number, next: T): T[] => list.map((x, n) => (n === i ? next : x));

/** The list without one of it. */
export const without = <T>(list: readonly T[], i: number): T[] => list.filter((_, n) => n !== i);

/** The list with one of it moved; past the ends nothing moves. */
export function moved<T>(list: readonly T[], i: number, by: number): T[] {
  const next = [...list];
  if (list[i] === undefined || list[i + by] === undefined) return next;
  next.splice(i + by, 0, ...next.splice(i, 1));
  return next;
}

/** The thing with a field that need not be there set, or taken away. */
export function withField<T extends object, K extends keyof T>(item: T, field: K, value: T[K] | undefined): T {
  const { [field]: _, ...rest } = item;
  return (value === undefined ? rest : { ...rest, [field]: value }) as T;
}
