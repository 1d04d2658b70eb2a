import { big, key, orNull, table, text, uuid, when, whole } from '../table.ts';

/** A walk through the larder that was finished. */
export const StockTakeTable = table(
  'stock_take',
  {
    id: key(uuid),
    houseId: uuid,
    placeId: orNull(text()),
    movementId: orNull(uuid),
    lots: whole,
    differing: whole,
    differenceMg: big,
    differenceMinor: big,
    note: orNull(text()),
    personId: uuid,
    at: when,
  },
  { inFile: { order: 'at, id' } },
);
