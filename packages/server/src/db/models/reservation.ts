import { big, key, table, text, uuid } from '../table.ts';

/** Mass of a lot that belongs to a breakdown, a cutting or a batch before it moves. */
export const ReservationTable = table(
  'reservation',
  {
    houseId: uuid,
    lotId: key(uuid),
    holderKind: text(),
    holderId: key(uuid),
    massMg: big,
  },
  { inFile: { order: 'holder_id, lot_id', after: 'posting' } },
);
