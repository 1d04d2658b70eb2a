import { filled, key, table, text, uuid, when } from '../table.ts';

/** A tablet somebody of the house has signed in on. What it holds is its token; here stands what tells it again. */
export const DeviceTable = table(
  'device',
  {
    id: key(text()),
    houseId: uuid,
    since: filled(when),
  },
  { notInFile: 'the tablets of this server' },
);
