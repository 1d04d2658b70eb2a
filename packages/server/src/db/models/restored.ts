import { key, type RowOf, table, uuid, when } from '../table.ts';

/** That records were brought back, and to when. */
export const RestoredTable = table('restored', {
  id: key(uuid),
  at: when,
  stateAt: when,
});

export type RestoredRow = RowOf<typeof RestoredTable>;
