/** What by-products are worth to a house, minor units per kilogram: by category, or by category and species where one species is worth another sum. */
export type Worth = Readonly<Record<string, number>>;

/** The name a worth has: of a category, or of one species in it. */
export const worthKey = (category: string, species?: string): string =>
  species === undefined ? category : `${category}/${species}`;

/** The parts of such a name. */
export function worthKeyParts(key: string): { readonly category: string; readonly species: string | undefined } {
  const [category = '', species] = key.split('/');
  return { category, species };
}

/**
 * What a kilogram of a by-product is worth: what is said of its species goes before what is said of its category; undefined where nothing is said.
 *
 * @example { 'flatfish-frame': 80, 'flatfish-frame/turbot': 240 } -> turbot 240, plaice 80
 */
export const worthOf = (worth: Worth, category: string, species: string | null | undefined): number | undefined =>
  (species == null ? undefined : worth[worthKey(category, species)]) ?? worth[category];

/** The days on which each worth was last said: those that changed are said today, those that are gone are forgotten. */
export function worthSaidOn(
  before: Worth,
  after: Worth,
  said: Readonly<Record<string, string>>,
  today: string,
): Record<string, string> {
  return Object.fromEntries(
    Object.entries(after).flatMap(([key, minor]): [string, string][] => {
      const day = before[key] === minor ? said[key] : today;
      return day === undefined ? [] : [[key, day]];
    }),
  );
}
