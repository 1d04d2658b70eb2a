/** What the parts of the recipe editor share. */
import { type Recipe, slugOf } from '@zabrik/core';

export interface Edit {
  readonly recipe: Recipe;
  readonly put: (change: Partial<Recipe>) => void;
  /** Takes a field away that need not be there. */
  readonly drop: (field: keyof Recipe) => void;
}

/** The list with one of it changed. */
export const changed = <T>(list: readonly T[], i: number, next: T): T[] => list.map((x, n) => (n === i ? next : x));
/** The list without one of it. */
export const without = <T>(list: readonly T[], i: number): T[] => list.filter((_, n) => n !== i);
/** The list with one of it moved. */
export function moved<T>(list: readonly T[], i: number, by: number): T[] {
  const next = [...list];
  next.splice(i + by, 0, ...next.splice(i, 1));
  return next;
}

/** An id out of a name that none of the others has. */
export function freeId(name: string, taken: readonly string[]): string {
  const id = slugOf(name) || 'new';
  if (!taken.includes(id)) return id;
  let n = 2;
  while (taken.includes(`${id}-${n}`)) n += 1;
  return `${id}-${n}`;
}
