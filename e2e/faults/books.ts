import type { KitchenProcess } from '../kitchenProcess.ts';
import type { Counts } from './table.ts';

const KIN = `select distinct i.lot_id as parent_id, o.lot_id as child_id, m.id as movement_id from movement m
  join posting i on i.movement_id = m.id and i.lot_id is not null and i.mass_mg < 0
  join posting o on o.movement_id = m.id and o.lot_id is not null and o.mass_mg > 0 and o.lot_id <> i.lot_id
  where m.kind not in ('reverse', 'count') and not exists (select 1 from movement r where r.reverses = m.id)`;

/** The books, counted anew from the postings. */
export function books(kitchen: KitchenProcess): Counts {
  const count = (sql: string): number => Number(kitchen.db('psql', '-Atc', sql).trim());
  return {
    recounts: 1,
    postings: count('select count(*) from posting'),
    uneven: count(
      'select count(*) from (select movement_id from posting group by 1 having sum(mass_mg) <> 0 or sum(cost_minor) <> 0) x',
    ),
    balances: count(
      `select count(*) from lot_balance b full join (select lot_id, sum(mass_mg) as mass, sum(cost_minor) as cost from posting where lot_id is not null group by 1) p using (lot_id)
       where coalesce(b.mass_mg, 0) <> coalesce(p.mass, 0) or coalesce(b.cost_minor, 0) <> coalesce(p.cost, 0)`,
    ),
    reserved: count(
      `with held as (
       select i.lot_id, i.breakdown_id as holder_id, i.mass_mg from breakdown_input i join breakdown o on o.id = i.breakdown_id and o.state = 'open'
       union all select i.lot_id, i.cutting_id, i.mass_mg from cutting_input i join cutting o on o.id = i.cutting_id and o.state = 'open'
       union all select i.lot_id, i.batch_id, i.mass_mg from batch_input i join batch r on r.id = i.batch_id and r.state in ('planned', 'on'))
       select (select count(*) from held full join reservation r using (lot_id, holder_id) where held.mass_mg is distinct from r.mass_mg)
         + (select count(*) from lot_balance b left join (select lot_id, sum(mass_mg) as mass from reservation group by 1) r using (lot_id)
            where b.reserved_mg <> coalesce(r.mass, 0) or b.reserved_mg > b.mass_mg)`,
    ),
    parents: count(
      `with kept as (select parent_id, child_id, movement_id from lot_genealogy), counted as (${KIN})
       select (select count(*) from (select * from kept except select * from counted) x) + (select count(*) from (select * from counted except select * from kept) y)`,
    ),
  };
}
