/** What the parts of the recipe editor share. */
import { type Recipe, slugOf } from '@zabrik/core';

export interface Edit {
  readonly recipe: Recipe;
  readonly put: (change: Partial<Recipe>) => void;
  /** Takes a field away that need not be there. */
  readonly drop: (field: keyof Recipe) => void;
}

/** An id out of a name that none of the others has. */
export function freeId(name: string, taken: readonly string[]): string {
  const id = slugOf(name) || 'new';
  if (!taken.includes(id)) return id;
  let n = 2;
  while (taken.includes(`${id}-${n}`)) n += 1;
  return `${id}-${n}`;
}
