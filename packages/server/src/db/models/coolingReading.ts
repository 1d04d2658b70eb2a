import { big, filled, key, table, text, uuid, when, whole } from '../table.ts';

/** A temperature of a log. */
export const CoolingReadingTable = table(
  'cooling_reading',
  {
    seq: filled(big),
    id: key(uuid),
    houseId: key(uuid),
    coolingId: uuid,
    centiC: whole,
    source: text<'probe' | 'typed'>(),
    personId: uuid,
    at: key(when),
  },
  { inFile: { order: 'seq', drop: ['seq'] } },
);
