import { key, orNull, table, text, uuid, when } from '../table.ts';

/** That somebody read a caution, about what. */
export const CautionSeenTable = table(
  'caution_seen',
  {
    id: key(uuid),
    houseId: uuid,
    cautionId: text(),
    about: orNull(text()),
    personId: uuid,
    at: when,
  },
  { inFile: { order: 'at, id' } },
);
