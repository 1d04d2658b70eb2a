import { key, table, text, uuid } from '../table.ts';

/** Whom it buys from. */
export const SupplierTable = table(
  'supplier',
  {
    id: key(uuid),
    houseId: uuid,
    name: text(),
  },
  { inFile: { order: 'name' } },
);
