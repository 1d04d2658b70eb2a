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
  if (kind === 'cut')
    await db.query(
      `update cutting set state = 'open', movement_id = null, closed_at = null where movement_id = $1 and house_id = $2`,
      { bind, transaction },
    );
  if (kind === 'run')
    await db.query(
      `update run set state = case when started_at is null then 'planned' else 'on' end, movement_id = null, output_mg = null, output_lot_id = null, done_at = null where movement_id = $1 and house_id = $2`,
      { bind, transaction },
    );
  // a tub's date is that of the oldest still in it
  if (kind === 'fill')
    await db.query(
      `update lot t set use_by = coalesce((
         select min(l.use_by) from posting p join movement m on m.id = p.movement_id and m.kind = 'fill'
           and not exists (select 1 from movement r where r.reverses = m.id)
         join posting o on o.movement_id = m.id and o.mass_mg < 0 join lot l on l.id = o.lot_id
         where p.lot_id = t.id and p.mass_mg > 0), t.use_by)
       where t.house_id = $2 and t.state = 'fresh' and t.id in (select lot_id from posting where movement_id = $1 and mass_mg > 0)`,
      { bind, transaction },
    );
  return { movementId: id, kind };
}
