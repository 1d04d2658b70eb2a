import { big, filled, key, orNull, table, text, uuid, when, whole } from '../table.ts';

/** A line of a movement: mass and cost into a lot or a sink; negative is out of it. Never changed. */
export const PostingTable = table(
  'posting',
  {
    id: key(filled(big)),
    movementId: uuid,
    houseId: key(uuid),
    /** Its movement's. */
    at: key(when),
    lotId: orNull(uuid),
    sink: orNull(text<'supplier' | 'pantry' | 'waste' | 'loss' | 'served' | 'staff' | 'count' | 'work'>()),
    reason: orNull(text()),
    massMg: big,
    costMinor: big,
    pieces: orNull(whole),
  },
  { inFile: { order: 'id', drop: ['id'] } },
);
