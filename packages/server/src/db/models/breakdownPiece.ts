import { big, filled, key, orNull, table, text, uuid, whole } from '../table.ts';

/** What a closed breakdown made, by piece and tray. */
export const BreakdownPieceTable = table(
  'breakdown_piece',
  {
    breakdownId: key(uuid),
    houseId: uuid,
    pieceId: key(text()),
    destination: key(text()),
    massMg: big,
    /** What was joined to it, beside its own mass. */
    broughtMg: filled(big),
    units: whole,
    lotId: orNull(uuid),
  },
  { inFile: { order: 'breakdown_id, piece_id, destination' } },
);
