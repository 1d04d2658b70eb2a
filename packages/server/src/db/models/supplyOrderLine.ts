import { big, key, orNull, table, text, uuid, whole } from '../table.ts';

/** A line of an order. */
export const SupplyOrderLineTable = table(
  'supply_order_line',
  {
    orderId: key(uuid),
    houseId: uuid,
    position: key(whole),
    species: orNull(text()),
    form: orNull(text()),
    goods: orNull(text()),
    count: orNull(whole),
    massMg: big,
    minorPerKg: orNull(big),
  },
  { inFile: { order: 'order_id, position' } },
);
