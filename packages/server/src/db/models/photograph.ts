import { bytes, key, orNull, table, text, uuid, when, whole } from '../table.ts';

/** A picture, drawn anew when it came: of a line of a delivery, or of how a step of a plan or a recipe should look. */
export const PhotographTable = table(
  'photograph',
  {
    id: key(uuid),
    houseId: uuid,
    lineId: orNull(uuid),
    type: text<'image/jpeg' | 'image/png' | 'image/webp'>(),
    width: whole,
    height: whole,
    bytes: bytes,
    personId: uuid,
    at: when,
  },
  { inFile: { order: 'at, id' } },
);
