import type { ListedUse, Lot, Tub } from '@zabrik/contract';
import { formatMass, inKilograms, type OfferedLot, parseMass, refusalOf, roleIn, type Use } from '@zabrik/core';
import { dueWords } from '../../app/dates.ts';

/** A lot that could go in a pot; of a tub, what it holds. */
export type PotLot = Lot & { readonly contents?: Tub['contents'] };

/** A lot as the core's scaling wants it. */
export const offerOf = (lot: PotLot): OfferedLot => ({
  lotId: lot.id,
  name: lot.name,
  category: lot.potKind,
  ...(lot.useId === null ? {} : { useId: lot.useId }),
  massMg: lot.massMg,
  pastDate: dueWords(lot.useBy).tone === 'late',
  ready: lot.ready,
  ...(lot.contents === undefined ? {} : { kinds: lot.contents }),
});

/** A mass as typed, or undefined while it cannot be read. */
export const readMass = (text: string): number | undefined => {
  try {
    return parseMass(text);
  } catch {
    return undefined;
  }
};

/** Whether a lot goes in without being asked for: it may, it lies in a tray the use empties, and nobody means it for a guest. */
export const goesByItself = (use: Use, lot: PotLot): boolean =>
  refusalOf(use, offerOf(lot)) === undefined &&
  roleIn(use, offerOf(lot)) === 'base' &&
  (use.acceptsUses.length > 0 ||
    lot.kind === 'tub' ||
    (lot.destination !== null && use.trays.includes(lot.destination) && lot.destination !== 'portion'));

/** What lies ready for a use, milligrams. */
export const readyFor = (use: Use, lots: readonly PotLot[]): number =>
  lots.filter((lot) => goesByItself(use, lot)).reduce((sum, lot) => sum + lot.massMg, 0);

/** Whether a lot is shown when this use is chosen: it could go in, or a cook might think so and is told why not. */
export const isOffered = (use: Use, lot: PotLot): boolean =>
  roleIn(use, offerOf(lot)) !== undefined || use.refuses.some((r) => r.category === lot.potKind);

const kinds = {
  stock: 'Stocks',
  'pan-sauce': 'Pan sauces',
  reduction: 'Reductions',
  liquor: 'Liquors',
  filling: 'Fillings',
  rendering: 'Fat',
  preserve: 'Put by',
  garnish: 'Garnishes',
  'staff-dish': 'Staff dishes',
} as const;
export const kindWords = (kind: Use['kind']): string => kinds[kind];

/** Uses in groups of their kind, each group in the handbook's order. */
export const byKind = (uses: readonly ListedUse[]): readonly (readonly [Use['kind'], readonly ListedUse[]])[] =>
  (Object.keys(kinds) as Use['kind'][]).flatMap((kind) => {
    const mine = uses.filter((u) => u.use.kind === kind);
    return mine.length === 0 ? [] : [[kind, mine] as const];
  });

/** So much of what comes out, as it is measured: a litre is taken as a kilogram. */
export const amountIn = (measure: Use['output']['measure'], mg: number): string =>
  measure === 'litres' ? `${inKilograms(mg).toFixed(1)} l` : formatMass(mg);

export const amountOf = (use: Pick<Use, 'output'>, mg: number): string => amountIn(use.output.measure, mg);
