import { big, filled, key, table, text, uuid, whole } from '../table.ts';

/** A lot that a batch takes from. */
export const BatchInputTable = table(
  'batch_input',
  {
    batchId: key(uuid),
    houseId: uuid,
    lotId: key(uuid),
    position: whole,
    massMg: big,
    asPart: filled(text()),
  },
  { inFile: { order: 'batch_id, position' } },
);
