/** A filling taken back: a tub's date is that of the oldest still in it. */
import type { Reversal, Reversals } from '../../massledger/reverse.ts';

const dateOfTheRest: Reversal = async (db, { actor, transaction }, movementId) => {
  await db.query(
    `update lot t set use_by = coalesce((
       select min(l.use_by) from posting p join movement m on m.id = p.movement_id and m.kind = 'fill'
         and not exists (select 1 from corrected c where c.house_id = m.house_id and c.id = m.id)
       join posting o on o.movement_id = m.id and o.mass_mg < 0 join lot l on l.id = o.lot_id
       where p.lot_id = t.id and p.mass_mg > 0), t.use_by)
     where t.house_id = $2 and t.state = 'fresh' and t.id in (select lot_id from posting where movement_id = $1 and mass_mg > 0)`,
    { bind: [movementId, actor.houseId], transaction },
  );
};

export const larderReversals: Reversals = { fill: dateOfTheRest };
