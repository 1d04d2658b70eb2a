/** SQL of a lot's family, for whoever follows movements: what stands, and what is reached through it. */

/** A movement m that stands: neither a counter-entry nor taken back by one. */
export const STANDS = `m.kind <> 'reverse' and not exists (select 1 from movement r where r.reverses = m.id)`;

/**
 * All lots reached from one by going through standing movements: in at this sign, out at the other. The planner thinks these tables
 * branch far less than they do; `offset 0` keeps it to index look-ups in this order (2,000 lots: 30 ms, left to itself 42 and more).
 */
const reached = (name: string, mine: '<' | '>', theirs: '<' | '>'): string => `
${name}(lot_id) as (
  select id from lot where id = $1 and house_id = $2
  union
  select o.lot_id from ${name} d
  cross join lateral (
    select i.movement_id from posting i join movement m on m.id = i.movement_id and ${STANDS}
    where i.lot_id = d.lot_id and i.house_id = $2 and i.mass_mg ${mine} 0 offset 0
  ) through
  join posting o on o.movement_id = through.movement_id and o.lot_id is not null and o.mass_mg ${theirs} 0
)`;

/**
 * Opens a query with `family(lot_id)`: a lot ($1) of a house ($2), all it was made from and all it went into. Not what its relatives
 * were made from beside it: that would be most of the house.
 */
export const FAMILY = `with recursive ${reached('down', '<', '>')}, ${reached('up', '>', '<')},
family as (select lot_id from down union select lot_id from up)`;
