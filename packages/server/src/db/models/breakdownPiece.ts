import { big, key, orNull, type RowOf, table, text, uuid, whole } from '../table.ts';

/** What a closed breakdown made, by piece and tray. */
export const BreakdownPieceTable = table('breakdown_piece', {
  breakdownId: key(uuid),
  houseId: uuid,
  pieceId: key(text()),
  destination: key(text()),
  massMg: big,
  units: whole,
  lotId: orNull(uuid),
});

export type BreakdownPieceRow = RowOf<typeof BreakdownPieceTable>;
