/** Allergens that must be declared, and how they are carried: what is made of things has all of theirs. */

export interface Allergen {
  readonly id: string;
  /** As Regulation (EU) 1169/2011, Annex II, names it; recalled from memory. */
  readonly eu: string;
  /** As the US list of nine major food allergens names it (FALCPA and the FASTER Act; recalled); null where it is not on it. */
  readonly us: string | null;
  /**
   * The kinds of it that a label must name: which cereal and which nut under EU law, which fish, crustacean and nut under US law. A kind
   * stands behind a stroke: "gluten/wheat". Of fish and shellfish the kinds are species.
   */
  readonly kinds?: readonly string[] | 'species';
}

const cereals = ['wheat', 'rye', 'barley', 'oats', 'spelt', 'kamut'];
const nuts = ['almond', 'hazelnut', 'walnut', 'cashew', 'pecan', 'brazil-nut', 'pistachio', 'macadamia'];

export const allergens: readonly Allergen[] = [
  { id: 'gluten', eu: 'cereals containing gluten', us: 'wheat', kinds: cereals },
  { id: 'crustaceans', eu: 'crustaceans', us: 'crustacean shellfish', kinds: 'species' },
  { id: 'eggs', eu: 'eggs', us: 'eggs' },
  { id: 'fish', eu: 'fish', us: 'fish', kinds: 'species' },
  { id: 'peanuts', eu: 'peanuts', us: 'peanuts' },
  { id: 'soybeans', eu: 'soybeans', us: 'soybeans' },
  { id: 'milk', eu: 'milk', us: 'milk' },
  { id: 'nuts', eu: 'nuts', us: 'tree nuts', kinds: nuts },
  { id: 'celery', eu: 'celery', us: null },
  { id: 'mustard', eu: 'mustard', us: null },
  { id: 'sesame', eu: 'sesame seeds', us: 'sesame' },
  { id: 'sulphites', eu: 'sulphur dioxide and sulphites', us: null },
  { id: 'lupin', eu: 'lupin', us: null },
  { id: 'molluscs', eu: 'molluscs', us: null, kinds: 'species' },
];

/** What one may say an ingredient has: the list, and after each the kinds of it that have names of their own. */
export const sayableAllergens: readonly string[] = allergens.flatMap(({ id, kinds }) => [
  id,
  ...(kinds === undefined || kinds === 'species' ? [] : kinds.map((k) => `${id}/${k}`)),
]);

const partsOf = (id: string): { readonly group: string; readonly kind: string | undefined } => {
  const [group = id, kind] = id.split('/', 2);
  return { group, kind };
};

/** Whether it is on the list: as a group, or as a kind of one. */
export const isKnownAllergen = (id: string): boolean => {
  const { group, kind } = partsOf(id);
  const known = allergens.find((a) => a.id === group);
  if (known === undefined) return false;
  return kind === undefined || known.kinds === 'species' || known.kinds?.includes(kind) === true;
};

const placeOf = (id: string): number => {
  const at = allergens.findIndex((a) => a.id === partsOf(id).group);
  return at === -1 ? allergens.length : at;
};

/**
 * The allergens of what is made out of several things: all of theirs, each once, in the order of the list, the kinds of one after it. One
 * that is not on the list is kept as well, at the end: nothing is ever dropped because nobody knows its name.
 */
export function carryAllergens(...sources: readonly (readonly string[])[]): string[] {
  return [...new Set(sources.flat())].sort((a, b) => placeOf(a) - placeOf(b) || (a < b ? -1 : a > b ? 1 : 0));
}

/** Whether something has it, in whatever kind. @example hasAllergen(["fish/hake"], "fish") -> true */
export const hasAllergen = (ids: readonly string[], group: string): boolean =>
  ids.some((id) => partsOf(id).group === group);

const shown = (kind: string): string => kind.replaceAll('-', ' ');

/**
 * Allergens as a label names them: each group once, with the kinds that are known.
 *
 * @example ["fish/cod", "fish/hake", "gluten/wheat"], EU -> ["fish (cod, hake)", "cereals containing gluten (wheat)"] in the list's order
 * @example ["gluten/wheat"], US -> ["wheat"]; ["gluten/barley"] -> ["cereals containing gluten (barley)"]
 */
export function allergenWords(ids: readonly string[], us = false): string[] {
  const groups = new Map<string, string[]>();
  for (const id of carryAllergens(ids)) {
    const { group, kind } = partsOf(id);
    groups.set(group, [...(groups.get(group) ?? []), ...(kind === undefined ? [] : [kind])]);
  }
  // where one kind is known and another is not, both are said
  for (const [group, kinds] of groups) if (kinds.length > 0 && ids.includes(group)) kinds.push('and another');
  return [...groups].flatMap(([group, kinds]) => {
    const known = allergens.find((a) => a.id === group);
    const eu = known?.eu ?? group;
    if (us && group === 'gluten') {
      // the US list has wheat only; other cereals keep the name by which they are known. Of what nobody knows it may be wheat
      const wheat =
        kinds.length === 0 || ids.includes(group) || kinds.some((k) => k === 'wheat' || k === 'spelt' || k === 'kamut');
      const others = kinds.filter((k) => k !== 'wheat' && k !== 'spelt' && k !== 'kamut');
      return [...(wheat ? ['wheat'] : []), ...(others.length > 0 ? [`${eu} (${others.map(shown).join(', ')})`] : [])];
    }
    const name = (us ? known?.us : undefined) ?? eu;
    return [kinds.length === 0 ? name : `${name} (${kinds.map(shown).join(', ')})`];
  });
}
