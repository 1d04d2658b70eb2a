import { key, orNull, table, text, uuid, when } from '../table.ts';

/** What a supplier brought at one time. */
export const DeliveryTable = table(
  'delivery',
  {
    id: key(uuid),
    houseId: uuid,
    supplierId: uuid,
    orderId: orNull(uuid),
    invoice: orNull(text()),
    personId: uuid,
    at: when,
    closedAt: orNull(when),
    note: orNull(text()),
  },
  { inFile: { order: 'at, id' } },
);
