import { big, key, table, uuid, whole } from '../table.ts';

/** A lot that came to a cutting. */
export const CuttingInputTable = table(
  'cutting_input',
  {
    cuttingId: key(uuid),
    houseId: uuid,
    lotId: uuid,
    position: key(whole),
    massMg: big,
  },
  { inFile: { order: 'cutting_id, position' } },
);
