/** What the larder's screens say: groups, states, and the kinds of entries. */
import type { House, Lot } from '@zabrik/contract';
import type { Species } from '@zabrik/core';
import { dayName, dueWords } from '../../app/dates.ts';
import { trays } from '../../parts/destinations.ts';

export const groupings = [
  { id: 'date', name: 'by date' },
  { id: 'place', name: 'by place' },
  { id: 'destination', name: 'by tray' },
  { id: 'species', name: 'by animal' },
  { id: 'supplier', name: 'by supplier' },
] as const;
export type Grouping = (typeof groupings)[number]['id'];

export const shows = [
  { id: 'all', name: 'everything' },
  { id: 'past', name: 'past its date' },
  { id: 'today', name: 'last day today' },
  { id: 'soon', name: 'within two days' },
  { id: 'frozen', name: 'frozen' },
  { id: 'thawed', name: 'thawed' },
  { id: 'held', name: 'on hold' },
] as const;
export type Show = (typeof shows)[number]['id'];

export const isGrouping = (text: string): text is Grouping => groupings.some((g) => g.id === text);
export const isShow = (text: string): text is Show => shows.some((s) => s.id === text);

/** What keys are put into words with. */
export interface Known {
  readonly house: House | undefined;
  readonly species: readonly Species[];
  readonly goods: readonly { readonly id: string; readonly name: string }[];
  readonly now?: Date;
}

/** A group's key in words. */
export function groupName(by: Grouping, key: string, { house, species, goods, now }: Known): string {
  switch (by) {
    case 'date': {
      if (key.startsWith('9999')) return 'No date';
      const due = dueWords(key, now);
      const text = `${due.text.charAt(0).toUpperCase()}${due.text.slice(1)}`;
      return due.text === dayName(key) ? text : `${text}, ${dayName(key)}`;
    }
    case 'place':
      return house?.places.find((p) => p.id === key)?.name ?? key;
    case 'destination':
      return key === 'whole'
        ? 'To be cut'
        : key === 'goods'
          ? 'Vegetables and dry goods'
          : (trays.find((t) => t.id === key)?.name ?? key);
    case 'species':
      return key === '~'
        ? 'Made of several'
        : (species.find((s) => s.id === key)?.name ?? goods.find((g) => g.id === key)?.name ?? key);
    case 'supplier':
      return key === '~' ? 'Made here of several' : key;
  }
}

/** The group a lot stands in: as the server puts them together. */
export function groupKey(by: Grouping, lot: Lot): string {
  switch (by) {
    case 'date':
      return lot.useBy ?? '9999-12-31';
    case 'place':
      return lot.placeId;
    case 'destination':
      return lot.kind === 'goods'
        ? 'goods'
        : lot.destination === null
          ? lot.kind === 'delivery'
            ? 'whole'
            : 'larder'
          : lot.destination;
    case 'species':
      return lot.species ?? lot.goods ?? '~';
    case 'supplier':
      return lot.supplierName ?? '~';
  }
}

export const entryNames: Readonly<Record<string, string>> = {
  receive: 'received',
  'close-stage': 'cut',
  cut: 'cut to weight',
  batch: 'pot',
  'take-out': 'taken out',
  split: 'parted',
  trim: 'trimmed',
  merge: 'put together',
  fill: 'into a tub',
  count: 'counted',
  reverse: 'taken back',
};

/** What there is to say about how a lot is kept, shortest first: frozen, thawed, opened, reserved, held. */
export const keptWords = (lot: Lot): readonly string[] => [
  ...(lot.held === null ? [] : [`on hold: ${lot.held}`]),
  ...(lot.state === 'frozen' && lot.frozenOn !== null ? [`frozen ${dayName(lot.frozenOn)}`] : []),
  ...(lot.state === 'thawed' && lot.thawedOn !== null ? [`thawed ${dayName(lot.thawedOn)}`] : []),
  ...(lot.openedOn === null ? [] : [`opened ${dayName(lot.openedOn)}`]),
  ...(lot.reservedFor === null ? [] : [`for ${lot.reservedFor}`]),
];
