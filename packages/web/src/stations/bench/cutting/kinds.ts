import type { CuttingKind } from '@zabrik/core';

/** What can be made of a piece at the board. */
export const kinds: readonly {
  readonly id: CuttingKind;
  readonly name: string;
  readonly says: string;
  readonly key: string;
}[] = [
  { id: 'portions', name: 'Portions', says: 'to weight, off the ruler', key: 'p' },
  { id: 'roll', name: 'Roll', says: 'laid head to tail, tied, rested', key: 'r' },
  { id: 'slices', name: 'Slices', says: 'of a squared block', key: 's' },
  { id: 'mould', name: 'Mould', says: 'filled, for so many covers', key: 'm' },
];
export const kindNames = new Map(kinds.map((k) => [k.id, k.name.toLowerCase()]));
