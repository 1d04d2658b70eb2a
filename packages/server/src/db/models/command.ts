import { json, key, orNull, table, text, uuid, when } from '../table.ts';

/** A command that was done, by the key its tablet made, and what was answered. The answer is forgotten after thirty days, the key never. */
export const CommandTable = table(
  'command',
  {
    id: key(uuid),
    /** The time in its id: makes the key one over all months. */
    keyedAt: key(when),
    houseId: key(uuid),
    endpoint: text(),
    fingerprint: text(),
    answer: orNull(json<unknown>()),
    personId: uuid,
    at: when,
  },
  { inFile: { order: 'at, id' } },
);
