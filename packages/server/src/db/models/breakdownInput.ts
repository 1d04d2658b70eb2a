import { big, filled, key, table, uuid, whole, yes } from '../table.ts';

/** A lot that came to a breakdown. */
export const BreakdownInputTable = table(
  'breakdown_input',
  {
    breakdownId: key(uuid),
    houseId: uuid,
    lotId: key(uuid),
    position: whole,
    massMg: big,
    /** It is joined to a piece: no part of what is broken down. */
    brought: filled(yes),
  },
  { inFile: { order: 'breakdown_id, position' } },
);
