import { key, table, uuid } from '../table.ts';

/** Which lot went into which, movement by movement. Kept by the database with the postings. */
export const LotGenealogyTable = table(
  'lot_genealogy',
  {
    parentId: key(uuid),
    childId: key(uuid),
    movementId: key(uuid),
    houseId: uuid,
  },
  { notInFile: 'follows from the postings, and is written by the database with them' },
);
