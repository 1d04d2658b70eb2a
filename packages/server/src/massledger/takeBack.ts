import type { Sequelize } from 'sequelize';
import type { InCommand } from '../kitchen.ts';
import { reverseMovement } from './reverseMovement.ts';
import type { MovementKind } from './writeMovement.ts';

/** Takes an entry back, and puts the breakdown or the batch that wrote it back to where it stood before. */
export async function takeBack(
  db: Sequelize,
  command: InCommand,
  movementId: string,
  reason: string,
): Promise<{ readonly movementId: string; readonly kind: MovementKind }> {
  const { who, transaction } = command;
  const { id, kind } = await reverseMovement(db, command, movementId, reason);
  const bind = [movementId, who.houseId];
  if (kind === 'close-stage') {
    await db.query(
      'delete from breakdown_piece where breakdown_id = (select id from breakdown where movement_id = $1 and house_id = $2)',
      { bind, transaction },
    );
    await db.query(
      `update breakdown set state = 'open', movement_id = null, closed_at = null, taken_back = taken_back + 1 where movement_id = $1 and house_id = $2`,
      { bind, transaction },
    );
  }
  if (kind === 'run')
    await db.query(
      `update run set state = 'planned', movement_id = null, output_mg = null, output_lot_id = null, done_at = null where movement_id = $1 and house_id = $2`,
      { bind, transaction },
    );
  return { movementId: id, kind };
}
