/** A batch whose entry is taken back stands at the stove again, and holds what it held. */
import { BatchTable } from '../../db/models/batch.ts';
import { BatchInputTable } from '../../db/models/batchInput.ts';
import { rowsOf } from '../../db/rows.ts';
import { reserve } from '../../massledger/reserve.ts';
import type { Reversal, Reversals } from '../../massledger/reverse.ts';

const backToTheStove: Reversal = async (db, command, movementId) => {
  const batches = rowsOf(db, BatchTable, command);
  const batch = await batches.one({ movementId }, { lock: 'update' });
  if (batch === undefined) return;
  const { id, startedAt } = batch;
  await batches.change(
    { id },
    {
      state: startedAt === null ? 'planned' : 'on',
      movementId: null,
      outputMg: null,
      outputLotId: null,
      doneAt: null,
    },
  );
  await reserve(db, command, { kind: 'batch', id }, await rowsOf(db, BatchInputTable, command).all({ batchId: id }));
};

export const potsReversals: Reversals = { batch: backToTheStove };
