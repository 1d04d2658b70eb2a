import type { Answer, api } from '@zabrik/contract';
import type { Sequelize } from 'sequelize';
import { select } from '../../db/select.ts';
import { Problem } from '../../http/problem.ts';
import { FAMILY, STANDS } from '../../massledger/family.ts';

type Trace = Answer<typeof api.larder.trace>;

/** A moment as text: to make a Date of every row, and text of it again, cost more than the query. */
const asText = (at: string): string => `to_char(${at} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`;

/** One posting with the head of its movement beside it. */
interface PostedRow {
  readonly id: string;
  readonly kind: string;
  readonly at: string;
  readonly by: string;
  readonly lotId: string | null;
  readonly sink: string | null;
  readonly reason: string | null;
  readonly massMg: number;
}

/** Postings in order of their movements, put together movement by movement: flat rows leave the database sooner than nested ones. */
function movementsOf(rows: readonly PostedRow[]): Trace['movements'] {
  const movements: Trace['movements'] = [];
  for (const { id, kind, at, by, lotId, sink, reason, massMg } of rows) {
    const last = movements.at(-1);
    const posting = { lotId, sink, reason, massMg };
    if (last?.id === id) last.postings.push(posting);
    else movements.push({ id, kind, at, by, postings: [posting] });
  }
  return movements;
}

/** Reads a lot's whole family, up to the deliveries and down to what left the house. */
export async function readTrace(db: Sequelize, houseId: string, lotId: string, now: Date): Promise<Trace> {
  // both find the family for themselves: side by side that is sooner than handing two thousand ids to and fro. As an array the ids are
  // looked up together; joined, the planner reads every lot of the house
  const [lots, rows] = await Promise.all([
    select<Omit<Trace['lots'][number], 'by' | 'massMg'>>(
      db,
      `${FAMILY}
      select l.id, l.code, l.kind, l.name, l.destination, l.made_mg as "madeMg", l.use_by as "useBy",
             ${asText('l.made_at')} as "madeAt", s.name as "supplierName", d.origin, d.landed_on as "landedOn", l.allergens,
             l.place_id as "placeId", l.state, l.held
      from lot l left join supplier s on s.id = l.supplier_id left join delivery_line d on d.lot_id = l.id
      where l.id = any(array(select lot_id from family))
      order by l.made_at, l.id`,
      [lotId, houseId],
    ),
    select<PostedRow>(
      db,
      `${FAMILY},
      touched as materialized (
        select distinct movement_id as id from posting where lot_id = any(array(select lot_id from family))
      ),
      standing as materialized (
        select m.id, m.kind, ${asText('m.at')} as at, w.name as by
        from movement m join person w on w.id = m.person_id where m.id = any(array(select id from touched)) and ${STANDS}
      )
      select m.id, m.kind, m.at, m.by, p.lot_id as "lotId", p.sink, p.reason, p.mass_mg as "massMg"
      from posting p join standing m on m.id = p.movement_id where p.movement_id = any(array(select id from touched))
      order by m.at, m.id, p.id`,
      [lotId, houseId],
    ),
  ]);
  if (lots.length === 0) throw new Problem('not_found');
  const movements = movementsOf(rows);
  /** Who received, cut or cooked a lot: whoever first put mass into it. */
  const makers = new Map<string, string>();
  // every movement that touches the family is here, so what is on hand is what they add up to
  const onHand = new Map<string, number>();
  for (const { by, postings } of movements)
    for (const { lotId: touched, massMg } of postings) {
      if (touched === null) continue;
      onHand.set(touched, (onHand.get(touched) ?? 0) + massMg);
      if (massMg > 0 && !makers.has(touched)) makers.set(touched, by);
    }
  return {
    lotId,
    // written out: objects of one shape are checked and sent in half the time of two thousand spread ones
    lots: lots.map((l) => ({
      id: l.id,
      code: l.code,
      kind: l.kind,
      name: l.name,
      destination: l.destination,
      madeMg: l.madeMg,
      massMg: onHand.get(l.id) ?? 0,
      useBy: l.useBy,
      madeAt: l.madeAt,
      by: makers.get(l.id) ?? null,
      supplierName: l.supplierName,
      origin: l.origin,
      landedOn: l.landedOn,
      allergens: l.allergens,
      placeId: l.placeId,
      state: l.state,
      held: l.held,
    })),
    movements,
    at: now.toISOString(),
  };
}
