import { key, table, uuid, when } from '../table.ts';

/** That records were brought back, and to when. */
export const RestoredTable = table(
  'restored',
  {
    id: key(uuid),
    at: when,
    stateAt: when,
  },
  { notInFile: 'when this machine’s records were brought back' },
);
