/** Allergens that must be declared, and how they are carried: what is made of things has all of theirs. */

export interface Allergen {
  readonly id: string;
  /** As Regulation (EU) 1169/2011, Annex II, names it; recalled from memory. */
  readonly eu: string;
  /** As the US list of nine major food allergens names it (FALCPA and the FASTER Act; recalled); null where it is not on it. */
  readonly us: string | null;
}

export const allergens: readonly Allergen[] = [
  { id: 'gluten', eu: 'cereals containing gluten', us: 'wheat' },
  { id: 'crustaceans', eu: 'crustaceans', us: 'crustacean shellfish' },
  { id: 'eggs', eu: 'eggs', us: 'eggs' },
  { id: 'fish', eu: 'fish', us: 'fish' },
  { id: 'peanuts', eu: 'peanuts', us: 'peanuts' },
  { id: 'soybeans', eu: 'soybeans', us: 'soybeans' },
  { id: 'milk', eu: 'milk', us: 'milk' },
  { id: 'nuts', eu: 'nuts', us: 'tree nuts' },
  { id: 'celery', eu: 'celery', us: null },
  { id: 'mustard', eu: 'mustard', us: null },
  { id: 'sesame', eu: 'sesame seeds', us: 'sesame' },
  { id: 'sulphites', eu: 'sulphur dioxide and sulphites', us: null },
  { id: 'lupin', eu: 'lupin', us: null },
  { id: 'molluscs', eu: 'molluscs', us: null },
];

/**
 * The allergens of what is made out of several things: all of theirs, each once, in the order of the list. One that is not on the
 * list is kept as well, at the end: nothing is ever dropped because nobody knows its name.
 */
export function carryAllergens(...sources: readonly (readonly string[])[]): string[] {
  const all = new Set(sources.flat());
  const known = allergens.flatMap(({ id }) => (all.delete(id) ? [id] : []));
  return [...known, ...[...all].sort()];
}
