import { big, filled, key, table, uuid, whole } from '../table.ts';

/** What a lot holds now. Kept by the database with the postings. */
export const LotBalanceTable = table(
  'lot_balance',
  {
    lotId: key(uuid),
    houseId: uuid,
    massMg: big,
    costMinor: big,
    pieces: filled(whole),
    reservedMg: filled(big),
    reservedPieces: filled(whole),
  },
  { notInFile: 'follows from the postings, and is held against them when a file is read' },
);
