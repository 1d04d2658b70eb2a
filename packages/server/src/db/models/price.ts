import { big, key, table, text, uuid, whole } from '../table.ts';

/** A line of a price list. */
export const PriceTable = table(
  'price',
  {
    listId: key(uuid),
    houseId: uuid,
    line: key(whole),
    item: text(),
    minorPerKg: big,
    unit: text(),
  },
  { inFile: { order: 'list_id, line' } },
);
