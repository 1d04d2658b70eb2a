import { big, filled, key, orNull, table, text, uuid, when, whole } from '../table.ts';

/** A weight at the bench. Never changed: a correction is a new row that replaces an old one. */
export const WeighingTable = table(
  'weighing',
  {
    id: key(uuid),
    /** The time in its id: makes the key one over all months. */
    keyedAt: key(when),
    seq: filled(big),
    houseId: key(uuid),
    breakdownId: uuid,
    pieceId: orNull(text()),
    destination: orNull(text()),
    massMg: orNull(big),
    source: orNull(text<'scale' | 'typed'>()),
    replaces: orNull(uuid),
    personId: uuid,
    at: when,
    recordedAt: filled(when),
    count: filled(whole),
    animal: orNull(whole),
    scale: orNull(text()),
  },
  { inFile: { order: 'seq', drop: ['seq'] } },
);
