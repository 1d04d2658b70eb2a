import { slugOf } from '@zabrik/core';

/** A new thing gets an id of its name, that nothing else of the list has and that is not `kept` for something else. */
export function named<T extends { readonly id: string; readonly name: string }>(
  things: readonly T[],
  kept: readonly string[] = [],
): T[] {
  const taken = new Set([...kept, ...things.map((t) => t.id).filter((i) => i !== '')]);
  return things.map((thing) => {
    if (thing.id !== '') return thing;
    const base = slugOf(thing.name) || 'thing';
    let next = base;
    for (let n = 2; taken.has(next); n += 1) next = `${base}-${n}`;
    taken.add(next);
    return { ...thing, id: next };
  });
}
