import type { Answer, api } from '@zabrik/contract';
import type { Sequelize } from 'sequelize';
import { select } from '../../db/select.ts';
import { Problem } from '../../http/problem.ts';

type Trace = Answer<typeof api.larder.trace>;

/** A movement that stands: neither a counter-entry nor taken back by one. */
const STANDS = `m.kind <> 'reverse' and not exists (select 1 from movement r where r.reverses = m.id)`;

/** All lots reached from one by going through standing movements: in at this sign, out at the other. */
const reached = (name: string, mine: '<' | '>', theirs: '<' | '>'): string => `
${name}(lot_id) as (
  select id from lot where id = $1 and house_id = $2
  union
  select o.lot_id from ${name} d
  join posting i on i.lot_id = d.lot_id and i.house_id = $2 and i.mass_mg ${mine} 0
  join movement m on m.id = i.movement_id and ${STANDS}
  join posting o on o.movement_id = m.id and o.lot_id is not null and o.mass_mg ${theirs} 0
)`;

interface LotRow extends Omit<Trace['lots'][number], 'madeAt'> {
  readonly madeAt: Date;
}
interface PostingRow {
  readonly movementId: string;
  readonly kind: string;
  readonly at: Date;
  readonly by: string;
  readonly lotId: string | null;
  readonly sink: string | null;
  readonly reason: string | null;
  readonly massMg: number;
}

/** Reads a lot's whole family, up to the deliveries and down to what left the house. */
export async function readTrace(db: Sequelize, houseId: string, lotId: string, now: Date): Promise<Trace> {
  const family = `with recursive ${reached('down', '<', '>')}, ${reached('up', '>', '<')},
    family as (select lot_id from down union select lot_id from up)`;
  const [lots, postings] = await Promise.all([
    select<LotRow>(
      db,
      `${family}
      select l.id, l.code, l.kind, l.name, l.destination, l.made_mg as "madeMg", b.mass_mg as "massMg", l.use_by as "useBy",
             l.made_at as "madeAt", maker.name as by, s.name as "supplierName", d.origin, d.landed_on as "landedOn", l.allergens,
             l.place_id as "placeId", l.state, l.held
      from family f join lot l on l.id = f.lot_id join lot_balance b on b.lot_id = l.id
      left join supplier s on s.id = l.supplier_id left join delivery_line d on d.lot_id = l.id
      left join lateral (
        select w.name from posting p join movement m on m.id = p.movement_id and ${STANDS} join person w on w.id = m.person_id
        where p.lot_id = l.id and p.mass_mg > 0 order by m.at limit 1
      ) maker on true
      order by l.made_at, l.id`,
      [lotId, houseId],
    ),
    select<PostingRow>(
      db,
      `${family},
      touched as (
        select distinct m.id from family f join posting p on p.lot_id = f.lot_id join movement m on m.id = p.movement_id and ${STANDS}
      )
      select m.id as "movementId", m.kind, m.at, w.name as by, p.lot_id as "lotId", p.sink, p.reason, p.mass_mg as "massMg"
      from touched t join movement m on m.id = t.id join person w on w.id = m.person_id join posting p on p.movement_id = m.id
      order by m.at, m.id, p.id`,
      [lotId, houseId],
    ),
  ]);
  if (lots.length === 0) throw new Problem('not_found');
  const movements = new Map<string, Trace['movements'][number]>();
  for (const { movementId, kind, at, by, ...posting } of postings) {
    const movement = movements.get(movementId) ?? { id: movementId, kind, at: at.toISOString(), by, postings: [] };
    movement.postings.push(posting);
    movements.set(movementId, movement);
  }
  return {
    lotId,
    lots: lots.map((l) => ({ ...l, madeAt: l.madeAt.toISOString() })),
    movements: [...movements.values()],
    at: now.toISOString(),
  };
}
