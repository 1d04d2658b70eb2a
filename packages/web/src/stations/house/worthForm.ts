/** What by-products are worth and what the pantry costs, a kilogram or a pound as it is typed, a kilogram as it is saved. */
import { amountText, fromPerHouseMass, perHouseMass, worthKeyParts } from '@zabrik/core';
import { z } from 'zod';
import { aPriceOrNothing } from '../../kit/fieldReaders.ts';

export interface Row {
  readonly id: string;
  readonly name: string;
  readonly group: string;
}

/** Bones and trim by category, and under each the species of which it is worth another sum. */
export const creditRows = (
  categories: readonly Row[],
  keys: readonly string[],
  speciesName: (id: string) => string,
): Row[] =>
  categories.flatMap((row) => [
    row,
    ...keys
      .map((key) => ({ key, ...worthKeyParts(key) }))
      .flatMap(({ key, category, species }) =>
        category === row.id && species !== undefined
          ? [
              {
                id: key,
                name: `${row.name}, ${speciesName(species).toLowerCase()}`,
                group: `${row.group}, of this one alone`,
              },
            ]
          : [],
      ),
  ]);

/** Nothing typed is no price; nought is one. */
export const worthForm = (currency: string) => {
  const price = aPriceOrNothing(currency);
  return z.object({
    credit: z.record(z.string(), price),
    pantry: z.record(z.string(), price),
    from: z.record(z.string(), z.strictObject({ supplierId: z.string(), item: z.string() })),
  });
};

/** A field for each row, with its price where there is one. */
export const typedOf = (
  rows: readonly Row[],
  minorPerKg: Readonly<Record<string, number>>,
  currency: string,
): Record<string, string> =>
  Object.fromEntries(
    rows.map(({ id }) => {
      const minor = minorPerKg[id];
      return [id, minor === undefined ? '' : amountText(perHouseMass(minor), currency)];
    }),
  );

/** What is saved: a price that no row shows stays as it was. */
export const savedOf = (
  rows: readonly Row[],
  before: Readonly<Record<string, number>>,
  said: Readonly<Record<string, number | null>>,
): Record<string, number> => {
  const shown = new Set(rows.map((r) => r.id));
  const kept = Object.entries(before).filter(([id]) => !shown.has(id));
  const now = Object.entries(said).flatMap(([id, minor]): [string, number][] => {
    if (minor === null) return [];
    // what was not touched stays to the unit, though a pound is rounded on its way there and back
    const old = before[id];
    const same = old !== undefined && Math.round(perHouseMass(old)) === minor;
    return [[id, same ? old : fromPerHouseMass(minor)]];
  });
  return Object.fromEntries([...kept, ...now]);
};
