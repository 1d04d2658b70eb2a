import { day, filled, key, orNull, table, text, uuid, when } from '../table.ts';

/** What was ordered of a supplier. */
export const SupplyOrderTable = table(
  'supply_order',
  {
    id: key(uuid),
    houseId: uuid,
    supplierId: uuid,
    dueOn: day,
    note: orNull(text()),
    state: filled(text<'open' | 'done' | 'called-off'>()),
    personId: uuid,
    at: when,
  },
  { inFile: { order: 'at, id' } },
);
