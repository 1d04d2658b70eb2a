import { big, key, table, uuid, whole } from '../table.ts';

/** A lot that came to a breakdown. */
export const BreakdownInputTable = table(
  'breakdown_input',
  {
    breakdownId: key(uuid),
    houseId: uuid,
    lotId: key(uuid),
    position: whole,
    massMg: big,
  },
  { inFile: { order: 'breakdown_id, position' } },
);
