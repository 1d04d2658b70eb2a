import { key, table, uuid } from '../table.ts';

/** Which entry a command made: one over all months, and what others point at. The database writes it with the entry. */
export const MovementKeyTable = table(
  'movement_key',
  { houseId: key(uuid), id: key(uuid), commandId: uuid },
  { notInFile: 'it follows from the entries', follows: 'movement' },
);
