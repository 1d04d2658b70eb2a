import { filled, key, orNull, table, text, texts, uuid, when } from '../table.ts';

/** A tablet somebody of the house has signed in on. What it holds is its token; here stands what tells it again. */
export const DeviceTable = table(
  'device',
  {
    id: key(text()),
    houseId: uuid,
    since: filled(when),
    /** What the house calls it, where it was lent to a bench. */
    name: orNull(text()),
    /** Who is offered first at its door: ids of people. */
    people: filled(texts),
    /** When somebody last signed in on it. */
    seenAt: orNull(when),
  },
  { notInFile: 'the tablets of this server' },
);
