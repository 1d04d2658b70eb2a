/** A stage or a cutting whose entry is taken back is open again, and holds what it held. */
import { BreakdownTable } from '../../db/models/breakdown.ts';
import { BreakdownInputTable } from '../../db/models/breakdownInput.ts';
import { BreakdownPieceTable } from '../../db/models/breakdownPiece.ts';
import { CuttingTable } from '../../db/models/cutting.ts';
import { CuttingInputTable } from '../../db/models/cuttingInput.ts';
import { rowsOf } from '../../db/rows.ts';
import { reserve } from '../../massledger/reserve.ts';
import type { Reversal, Reversals } from '../../massledger/reverse.ts';

const openStage: Reversal = async (db, command, movementId) => {
  const breakdowns = rowsOf(db, BreakdownTable, command);
  const stage = await breakdowns.one({ movementId }, { lock: 'update' });
  if (stage === undefined) return;
  const { id } = stage;
  await breakdowns.change({ id }, { state: 'open', movementId: null, closedAt: null, takenBack: stage.takenBack + 1 });
  await rowsOf(db, BreakdownPieceTable, command).remove({ breakdownId: id });
  await reserve(
    db,
    command,
    { kind: 'breakdown', id },
    await rowsOf(db, BreakdownInputTable, command).all({ breakdownId: id }),
  );
};

const openCutting: Reversal = async (db, command, movementId) => {
  const cuttings = rowsOf(db, CuttingTable, command);
  const cutting = await cuttings.one({ movementId }, { lock: 'update' });
  if (cutting === undefined) return;
  const { id } = cutting;
  await cuttings.change({ id }, { state: 'open', movementId: null, closedAt: null });
  await reserve(
    db,
    command,
    { kind: 'cutting', id },
    await rowsOf(db, CuttingInputTable, command).all({ cuttingId: id }),
  );
};

export const benchReversals: Reversals = { 'close-stage': openStage, cut: openCutting };
