import { key, table, uuid } from '../table.ts';

/** What was put right, and by what: an entry reversed, a weight replaced, an event undone, each once. The database writes it with what puts right. */
export const CorrectedTable = table(
  'corrected',
  { houseId: key(uuid), id: key(uuid), byId: uuid },
  { notInFile: 'it follows from the rows that put right' },
);
