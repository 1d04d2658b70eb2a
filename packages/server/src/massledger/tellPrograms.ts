import type { Sequelize } from 'sequelize';
import type { InCommand } from '../services.ts';

/**
 * Writes down the calls that a movement makes due, in its own transaction: one for whoever is told of movements, and one for each lot it has used up.
 * Where nobody is to be called it writes nothing. Call it once the postings stand.
 */
export async function tellPrograms(db: Sequelize, command: InCommand, movementId: string): Promise<void> {
  await db.query(
    `insert into webhook_call (id, house_id, webhook_id, topic, movement_id, lot_id, at, due_at)
     select gen_random_uuid(), h.house_id, h.id, t.topic, $2, t.lot_id, $3, $3
     from webhook h
     join (
       select 'movement' as topic, null::uuid as lot_id
       union all
       select 'used-up', p.lot_id from posting p join lot_balance b on b.lot_id = p.lot_id and b.house_id = p.house_id
       where p.movement_id = $2 and p.house_id = $1 and p.lot_id is not null and p.mass_mg < 0 and b.mass_mg = 0
     ) t on t.topic = any(h.topics)
     where h.house_id = $1 and h.ended_at is null`,
    { bind: [command.houseId, movementId, command.at], transaction: command.transaction },
  );
}
