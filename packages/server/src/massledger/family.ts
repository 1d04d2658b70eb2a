/** SQL of a lot's family, for whoever follows movements: what stands, and what is reached through it. */

/** A movement m that stands: neither a counter-entry nor taken back by one. */
export const STANDS = `m.kind <> 'reverse' and not exists (select 1 from movement r where r.reverses = m.id)`;

/** All lots reached from one through kin, which holds only by movements that stand. */
const reached = (name: string, from: 'parent_id' | 'child_id', to: 'parent_id' | 'child_id'): string => `
${name}(lot_id) as (
  select id from lot where id = $1 and house_id = $2
  union
  select k.${to} from ${name} d join lot_genealogy k on k.${from} = d.lot_id
)`;

/** Opens a query with `down(lot_id)`: a lot ($1) of a house ($2) and all it went into. */
export const DOWN = `with recursive ${reached('down', 'parent_id', 'child_id')}`;

/**
 * Opens a query with `family(lot_id)`: a lot ($1) of a house ($2), all it was made from and all it went into. Not what its relatives
 * were made from beside it: that would be most of the house.
 */
export const FAMILY = `with recursive ${reached('down', 'parent_id', 'child_id')}, ${reached('up', 'child_id', 'parent_id')},
family as (select lot_id from down union select lot_id from up)`;
