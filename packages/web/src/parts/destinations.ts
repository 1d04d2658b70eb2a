import type { Destination } from '@zabrik/core';

/** The trays, in the order of their keys 1 to 8. */
export const trays: readonly {
  readonly id: Destination;
  readonly name: string;
  readonly short: string;
  readonly key: string;
}[] = [
  { id: 'portion', name: 'Portions', short: 'portions', key: '1' },
  { id: 'stock', name: 'Stock', short: 'stock', key: '2' },
  { id: 'filling', name: 'Filling', short: 'filling', key: '3' },
  { id: 'staff', name: 'Staff meal', short: 'staff meal', key: '4' },
  { id: 'fat', name: 'Fat', short: 'fat', key: '5' },
  { id: 'garnish', name: 'Garnish', short: 'garnish', key: '6' },
  { id: 'larder', name: 'Larder', short: 'larder', key: '7' },
  { id: 'waste', name: 'Waste', short: 'waste', key: '8' },
];

export const trayName = (id: Destination): string => trays.find((tray) => tray.id === id)?.name ?? id;
export const trayShort = (id: Destination): string => trays.find((tray) => tray.id === id)?.short ?? id;

/** Classes named in full: the stylesheet is made from what it finds in the source. */
export const clothOf: Readonly<Record<Destination | 'open' | 'whole', string>> = {
  portion: 'cloth-portion text-white',
  stock: 'cloth-stock text-white',
  filling: 'cloth-filling text-white',
  staff: 'cloth-staff text-white',
  fat: 'cloth-fat text-ink',
  garnish: 'cloth-garnish text-white',
  larder: 'cloth-larder text-white',
  waste: 'cloth-waste text-white',
  open: 'cloth-open text-ink',
  whole: 'cloth-whole text-ink',
};

export const edgeOf: Readonly<Record<Destination, string>> = {
  portion: 'border-portion',
  stock: 'border-stock',
  filling: 'border-filling',
  staff: 'border-staff',
  fat: 'border-fat',
  garnish: 'border-garnish',
  larder: 'border-larder',
  waste: 'border-waste',
};
