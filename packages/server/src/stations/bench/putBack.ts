/** A stage or a cutting whose entry is taken back is open again, and holds what it held. */
import { select, selectOne } from '../../db/select.ts';
import { type Holder, reserve } from '../../massledger/reserve.ts';
import type { PutBack, PutsBack } from '../../massledger/takeBack.ts';

interface Input {
  readonly lotId: string;
  readonly massMg: number;
}

const openStage: PutBack = async (db, command, movementId) => {
  const { actor, transaction } = command;
  const stage = await selectOne<{ id: string }>(
    db,
    `update breakdown set state = 'open', movement_id = null, closed_at = null, taken_back = taken_back + 1
     where movement_id = $1 and house_id = $2 returning id`,
    [movementId, actor.houseId],
    transaction,
  );
  if (stage === undefined) return;
  await db.query('delete from breakdown_piece where breakdown_id = $1', { bind: [stage.id], transaction });
  await holdAgain(db, command, { kind: 'breakdown', id: stage.id });
};

const openCutting: PutBack = async (db, command, movementId) => {
  const { actor, transaction } = command;
  const cutting = await selectOne<{ id: string }>(
    db,
    `update cutting set state = 'open', movement_id = null, closed_at = null where movement_id = $1 and house_id = $2 returning id`,
    [movementId, actor.houseId],
    transaction,
  );
  if (cutting !== undefined) await holdAgain(db, command, { kind: 'cutting', id: cutting.id });
};

const holdAgain = async (
  db: Parameters<PutBack>[0],
  command: Parameters<PutBack>[1],
  holder: Holder & { readonly kind: 'breakdown' | 'cutting' },
): Promise<void> => {
  const inputs = await select<Input>(
    db,
    `select lot_id as "lotId", mass_mg as "massMg" from ${holder.kind}_input where ${holder.kind}_id = $1`,
    [holder.id],
    command.transaction,
  );
  await reserve(db, command, holder, inputs);
};

export const benchPutsBack: PutsBack = { 'close-stage': openStage, cut: openCutting };
