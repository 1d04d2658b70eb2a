/** A batch whose entry is taken back stands at the stove again, and holds what it held. */
import { select, selectOne } from '../../db/select.ts';
import { reserve } from '../../massledger/reserve.ts';
import type { PutBack, PutsBack } from '../../massledger/takeBack.ts';

const backToTheStove: PutBack = async (db, command, movementId) => {
  const { actor, transaction } = command;
  const batch = await selectOne<{ id: string }>(
    db,
    `update batch set state = case when started_at is null then 'planned' else 'on' end, movement_id = null, output_mg = null, output_lot_id = null, done_at = null
     where movement_id = $1 and house_id = $2 returning id`,
    [movementId, actor.houseId],
    transaction,
  );
  if (batch === undefined) return;
  const inputs = await select<{ lotId: string; massMg: number }>(
    db,
    'select lot_id as "lotId", mass_mg as "massMg" from batch_input where batch_id = $1',
    [batch.id],
    transaction,
  );
  await reserve(db, command, { kind: 'batch', id: batch.id }, inputs);
};

export const potsPutBack: PutsBack = { batch: backToTheStove };
