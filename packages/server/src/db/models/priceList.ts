import { day, key, orNull, table, text, uuid, when, whole } from '../table.ts';

/** A list of prices as a supplier sent it. */
export const PriceListTable = table(
  'price_list',
  {
    id: key(uuid),
    houseId: uuid,
    supplierId: uuid,
    file: text(),
    validFrom: day,
    rows: whole,
    personId: uuid,
    at: when,
    finishedAt: orNull(when),
    undoneAt: orNull(when),
  },
  { inFile: { order: 'at, id' } },
);
