import { key, orNull, table, text, uuid, when } from '../table.ts';

/** A balanced entry of the mass ledger. Written by `massledger` alone, never changed. */
export const MovementTable = table(
  'movement',
  {
    id: key(uuid),
    houseId: key(uuid),
    commandId: uuid,
    kind: text<
      | 'receive'
      | 'close-stage'
      | 'cut'
      | 'batch'
      | 'take-out'
      | 'reverse'
      | 'split'
      | 'merge'
      | 'fill'
      | 'count'
      | 'trim'
    >(),
    station: text(),
    at: key(when),
    personId: uuid,
    note: orNull(text()),
    reverses: orNull(uuid),
  },
  { inFile: { order: 'at, id' } },
);
