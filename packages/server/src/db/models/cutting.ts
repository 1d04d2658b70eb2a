import { big, filled, key, orNull, table, text, uuid, when } from '../table.ts';

/** Lots on the board, cut to weight. */
export const CuttingTable = table(
  'cutting',
  {
    id: key(uuid),
    houseId: uuid,
    kind: text<'portions' | 'roll' | 'slices' | 'mould'>(),
    state: filled(text<'open' | 'closed' | 'cancelled'>()),
    startMinor: filled(big),
    personId: uuid,
    startedAt: when,
    closedAt: orNull(when),
    movementId: orNull(uuid),
  },
  { inFile: { order: 'started_at, id' } },
);
