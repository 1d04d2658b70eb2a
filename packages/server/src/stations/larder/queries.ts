import type { Lot } from '@zabrik/contract';
import type { Destination } from '@zabrik/core';
import type { Sequelize } from 'sequelize';
import { select, selectOne } from '../../db/select.ts';
import type { Place } from '../../http/page.ts';
import { Problem } from '../../http/problem.ts';

interface Row extends Omit<Lot, 'madeAt'> {
  readonly madeAt: Date;
}

const LOT = `
select l.id, l.code, l.kind, l.name, l.species, l.form, l.category, l.destination, l.pieces, b.mass_mg as "massMg", l.made_mg as "madeMg",
       b.cost_minor as "costMinor", l.use_by as "useBy", l.made_at as "madeAt", s.name as "supplierName", l.breakdown_id as "breakdownId", l.allergens, l.note, l.next_stage as "nextStage",
       array(select distinct pl.code from posting o join posting i on i.movement_id = o.movement_id and i.mass_mg < 0
             join lot pl on pl.id = i.lot_id join movement m on m.id = o.movement_id
             where o.lot_id = l.id and o.mass_mg > 0 and m.kind in ('close-stage', 'run') order by pl.code) as "parentCodes"
from lot l join lot_balance b on b.lot_id = l.id left join supplier s on s.id = l.supplier_id
where l.house_id = $1`;

const lotOf = (row: Row): Lot => ({ ...row, madeAt: row.madeAt.toISOString() });

export interface LotFilter {
  readonly search: string | undefined;
  readonly destination: Destination | undefined;
  readonly kind: Lot['kind'] | undefined;
  readonly cuttable: boolean;
}

const FILTER = `and b.mass_mg > 0
  and ($2::text is null or l.name ilike '%' || $2 || '%' or l.code ilike $2 || '%' or s.name ilike '%' || $2 || '%')
  and ($3::text is null or l.destination = $3) and ($4::text is null or l.kind = $4) and (not $5::boolean or l.form is not null)`;

const FAR = '9999-12-31';

/** What is on hand, first expired first; the place in the list is the use-by date and the id. */
export async function listOnHand(
  db: Sequelize,
  houseId: string,
  filter: LotFilter,
  limit: number,
  after: Place | undefined,
): Promise<{ readonly lots: Lot[]; readonly total: number }> {
  const search = filter.search?.trim().replace(/[\\%_]/g, (c) => `\\${c}`);
  const bind = [
    houseId,
    search === undefined || search === '' ? null : search,
    filter.destination ?? null,
    filter.kind ?? null,
    filter.cuttable,
  ];
  const [rows, counted] = await Promise.all([
    select<Row>(
      db,
      `${LOT} ${FILTER} and ($6::date is null or (coalesce(l.use_by, '${FAR}'), l.id) > ($6::date, $7::uuid))
       order by coalesce(l.use_by, '${FAR}'), l.id limit $8`,
      [...bind, after?.at ?? null, after?.id ?? null, limit + 1],
    ),
    selectOne<{ total: number }>(
      db,
      `select count(*)::int as total from lot l join lot_balance b on b.lot_id = l.id left join supplier s on s.id = l.supplier_id
       where l.house_id = $1 ${FILTER}`,
      bind,
    ),
  ]);
  return { lots: rows.map(lotOf), total: counted?.total ?? 0 };
}

export const placeOf = (lot: Lot): Place => ({ at: lot.useBy ?? FAR, id: lot.id });

interface LinkRow {
  readonly id: string;
  readonly code: string;
  readonly name: string;
  readonly massMg: number;
}

interface EntryRow {
  readonly movementId: string;
  readonly kind: string;
  readonly at: Date;
  readonly by: string;
  readonly note: string | null;
  readonly massMg: number;
  readonly costMinor: number;
  readonly reverses: string | null;
  readonly reversed: boolean;
}

const related = (mine: '>' | '<', theirs: '>' | '<'): string => `
select x.id, x.code, x.name, sum(o.mass_mg)::bigint as "massMg"
from posting p join movement m on m.id = p.movement_id and m.kind in ('close-stage', 'run')
  and not exists (select 1 from movement r where r.reverses = m.id)
join posting o on o.movement_id = p.movement_id and o.mass_mg ${theirs} 0 join lot x on x.id = o.lot_id
where p.lot_id = $1 and p.house_id = $2 and p.mass_mg ${mine} 0 group by x.id, x.code, x.name order by x.code`;

export async function readLot(db: Sequelize, houseId: string, lotId: string) {
  const row = await selectOne<Row>(db, `${LOT} and l.id = $2`, [houseId, lotId]);
  if (row === undefined) throw new Problem('not_found');
  const [parents, children, entries] = await Promise.all([
    select<LinkRow>(db, related('>', '<'), [lotId, houseId]),
    select<LinkRow>(db, related('<', '>'), [lotId, houseId]),
    select<EntryRow>(
      db,
      `select m.id as "movementId", m.kind, m.at, w.name as by, m.note, sum(p.mass_mg)::bigint as "massMg", sum(p.cost_minor)::bigint as "costMinor",
              m.reverses, exists (select 1 from movement r where r.reverses = m.id) as reversed
       from posting p join movement m on m.id = p.movement_id join person w on w.id = m.person_id
       where p.lot_id = $1 and p.house_id = $2 group by m.id, w.name order by m.at, m.id`,
      [lotId, houseId],
    ),
  ]);
  return { ...lotOf(row), parents, children, entries: entries.map((e) => ({ ...e, at: e.at.toISOString() })) };
}
