import type { Answer, Asked, api } from '@zabrik/contract';
import type { InCommand, Kitchen } from '../../kitchen.ts';
import { reverseMovement } from '../../massledger/reverseMovement.ts';

/** Takes an entry back, and puts the breakdown or the batch that wrote it back to where it stood before. */
export async function reverse(
  kitchen: Kitchen,
  command: InCommand,
  { params, body }: Asked<typeof api.ledger.reverse>,
): Promise<Answer<typeof api.ledger.reverse>> {
  const { db } = kitchen;
  const { who, transaction } = command;
  const { id, kind } = await reverseMovement(db, command, params.movementId, body.reason);
  const bind = [params.movementId, who.houseId];
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
