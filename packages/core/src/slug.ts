/**
 * An id out of a name; empty for a name of nothing that could stand in one.
 *
 * @example 'Crème fraîche, thick' -> 'creme-fraiche-thick'
 */
export const slugOf = (name: string): string =>
  name
    .toLowerCase()
    .normalize('NFKD')
    .replaceAll(/\p{M}+/gu, '')
    .replaceAll(/[^a-z0-9]+/g, '-')
    .slice(0, 60)
    .replaceAll(/^-+|-+$/g, '');
