import { big, key, orNull, table, text, uuid, whole } from '../table.ts';

/** Mass of a lot that belongs to a breakdown, a cutting or a batch before it moves. */
export const ReservationTable = table(
  'reservation',
  {
    houseId: uuid,
    lotId: key(uuid),
    holderKind: text(),
    holderId: key(uuid),
    massMg: big,
    /** How many pieces of the lot that is, where somebody counted them. */
    pieces: orNull(whole),
  },
  { inFile: { order: 'holder_id, lot_id', after: 'posting' } },
);
