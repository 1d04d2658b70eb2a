import type { Answer, api } from '@zabrik/contract';
import type { Sequelize } from 'sequelize';
import { select } from '../../db/select.ts';
import { Problem } from '../../http/problem.ts';
import { FAMILY, STANDS } from '../../massledger/family.ts';

type Trace = Answer<typeof api.larder.trace>;

/** A moment as text: to make a Date of every row, and text of it again, cost more than the query. */
const asText = (at: string): string => `to_char(${at} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`;

/** Reads a lot's whole family, up to the deliveries and down to what left the house. */
export async function readTrace(db: Sequelize, houseId: string, lotId: string, now: Date): Promise<Trace> {
  // both find the family for themselves: side by side that is sooner than handing two thousand ids to and fro
  const [lots, movements] = await Promise.all([
    select<Omit<Trace['lots'][number], 'by'>>(
      db,
      `${FAMILY}
      select l.id, l.code, l.kind, l.name, l.destination, l.made_mg as "madeMg", b.mass_mg as "massMg", l.use_by as "useBy",
             ${asText('l.made_at')} as "madeAt", s.name as "supplierName", d.origin, d.landed_on as "landedOn", l.allergens,
             l.place_id as "placeId", l.state, l.held
      from family f join lot l on l.id = f.lot_id join lot_balance b on b.lot_id = l.id
      left join supplier s on s.id = l.supplier_id left join delivery_line d on d.lot_id = l.id
      order by l.made_at, l.id`,
      [lotId, houseId],
    ),
    select<Trace['movements'][number]>(
      db,
      `${FAMILY},
      touched as (
        select distinct m.id from family f join posting p on p.lot_id = f.lot_id join movement m on m.id = p.movement_id and ${STANDS}
      )
      select m.id, m.kind, ${asText('m.at')} as at, w.name as by,
             jsonb_agg(jsonb_build_object('lotId', p.lot_id, 'sink', p.sink, 'reason', p.reason, 'massMg', p.mass_mg) order by p.id) as postings
      from touched t join movement m on m.id = t.id join person w on w.id = m.person_id join posting p on p.movement_id = m.id
      group by m.id, w.name order by m.at, m.id`,
      [lotId, houseId],
    ),
  ]);
  if (lots.length === 0) throw new Problem('not_found');
  /** Who received, cut or cooked a lot: whoever first put mass into it. */
  const makers = new Map<string, string>();
  for (const { by, postings } of movements)
    for (const { lotId: made, massMg } of postings)
      if (made !== null && massMg > 0 && !makers.has(made)) makers.set(made, by);
  return {
    lotId,
    lots: lots.map((l) => ({ ...l, by: makers.get(l.id) ?? null })),
    movements,
    at: now.toISOString(),
  };
}
