import { bytes, key, table, text, uuid, when, whole } from '../table.ts';

/** A picture of a line of a delivery, drawn anew when it came. */
export const PhotographTable = table(
  'photograph',
  {
    id: key(uuid),
    houseId: uuid,
    lineId: uuid,
    type: text<'image/jpeg' | 'image/png' | 'image/webp'>(),
    width: whole,
    height: whole,
    bytes: bytes,
    personId: uuid,
    at: when,
  },
  { inFile: { order: 'at, id' } },
);
