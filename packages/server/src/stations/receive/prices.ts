import type { Answer, Asked, api } from '@zabrik/contract';
import type { Sequelize } from 'sequelize';
import { SupplierRow } from '../../db/models.ts';
import { select, selectOne } from '../../db/select.ts';
import { Problem } from '../../http/problem.ts';
import type { InCommand, Kitchen } from '../../kitchen.ts';

/** Takes rows of a price list. Nothing of a list counts before its last part is here. Errors: `list_undone`; `changed_since` when it is whole already. */
export async function takePrices(
  { db }: Kitchen,
  { actor, at, transaction }: InCommand,
  { body }: Asked<typeof api.receive.sendPrices>,
): Promise<Answer<typeof api.receive.sendPrices>> {
  const supplier = await SupplierRow.findOne({ where: { id: body.supplierId, houseId: actor.houseId }, transaction });
  if (supplier === null) throw new Problem('not_found', 'There is no such supplier in this house.');
  await db.query(
    `insert into price_list (id, house_id, supplier_id, file, valid_from, rows, person_id, at) values ($1, $2, $3, $4, $5, 0, $6, $7) on conflict (id) do nothing`,
    { bind: [body.listId, actor.houseId, body.supplierId, body.file, body.validFrom, actor.personId, at], transaction },
  );
  const list = await selectOne<{ finished: boolean; undone: boolean; supplierId: string }>(
    db,
    `select finished_at is not null as finished, undone_at is not null as undone, supplier_id as "supplierId" from price_list where id = $1 and house_id = $2 for update`,
    [body.listId, actor.houseId],
    transaction,
  );
  if (list === undefined) throw new Problem('not_found');
  if (list.undone) throw new Problem('list_undone');
  if (list.finished)
    throw new Problem('changed_since', 'This price list is whole already. Read the file in anew for another.');
  if (list.supplierId !== body.supplierId)
    throw new Problem('invalid', undefined, [{ path: 'supplierId', message: 'this list is another supplier’s' }]);
  await db.query(
    `insert into price (list_id, house_id, line, item, minor_per_kg, unit)
     select $1, $2, line, item, minor_per_kg, unit from jsonb_to_recordset($3::jsonb) as p(line int, item text, minor_per_kg bigint, unit text)
     on conflict (list_id, line) do nothing`,
    {
      bind: [
        body.listId,
        actor.houseId,
        JSON.stringify(
          body.rows.map((r) => ({ line: r.line, item: r.item, minor_per_kg: r.minorPerKg, unit: r.unit })),
        ),
      ],
      transaction,
    },
  );
  const counted = await selectOne<{ rows: number }>(
    db,
    `update price_list set rows = (select count(*) from price where list_id = $1), finished_at = case when $3 then $4::timestamptz end
     where id = $1 and house_id = $2 returning rows`,
    [body.listId, actor.houseId, body.last, at],
    transaction,
  );
  return { listId: body.listId, rows: counted?.rows ?? 0 };
}

export async function undoPrices(
  { db }: Kitchen,
  { actor, at, transaction }: InCommand,
  { params }: Asked<typeof api.receive.undoPrices>,
): Promise<Answer<typeof api.receive.undoPrices>> {
  const row = await selectOne<{ undone: boolean }>(
    db,
    'select undone_at is not null as undone from price_list where id = $1 and house_id = $2 for update',
    [params.listId, actor.houseId],
    transaction,
  );
  if (row === undefined) throw new Problem('not_found');
  if (row.undone) throw new Problem('list_undone');
  await db.query('update price_list set undone_at = $3 where id = $1 and house_id = $2', {
    bind: [params.listId, actor.houseId, at],
    transaction,
  });
  return { done: true };
}

type List = Answer<typeof api.receive.priceLists>['lists'][number];

export async function listPriceLists(db: Sequelize, houseId: string): Promise<List[]> {
  const rows = await select<Omit<List, 'at'> & { readonly at: Date }>(
    db,
    `select l.id, l.supplier_id as "supplierId", s.name as "supplierName", l.file, l.valid_from as "validFrom", l.rows, p.name as by, l.at,
            case when l.undone_at is not null then 'taken-back' when l.finished_at is null then 'coming' else 'stands' end as state
     from price_list l join supplier s on s.id = l.supplier_id join person p on p.id = l.person_id
     where l.house_id = $1 order by l.at desc, l.id limit 100`,
    [houseId],
  );
  return rows.map((r) => ({ ...r, at: r.at.toISOString() }));
}

const STANDS = 'l.finished_at is not null and l.undone_at is null';

/** The newest price of each item that counts today, and the one before it. */
export async function listPrices(
  db: Sequelize,
  houseId: string,
  today: string,
  { search, supplierId, limit }: Asked<typeof api.receive.prices>['query'],
): Promise<Answer<typeof api.receive.prices>> {
  const like = search?.trim().replace(/[\\%_]/g, (c) => `\\${c}`) ?? '';
  const rows = await select<Answer<typeof api.receive.prices>['prices'][number] & { readonly total: number }>(
    db,
    `with ranked as (
       select p.item, l.supplier_id, p.minor_per_kg, p.unit, l.valid_from, row_number() over w as newest, lead(p.minor_per_kg) over w as before
       from price p join price_list l on l.id = p.list_id and ${STANDS} and l.valid_from <= $2::date
       where p.house_id = $1 and ($3 = '' or p.item ilike '%' || $3 || '%') and ($4::uuid is null or l.supplier_id = $4)
       window w as (partition by l.supplier_id, p.item order by l.valid_from desc, l.finished_at desc))
     select r.item, r.supplier_id as "supplierId", s.name as "supplierName", r.minor_per_kg as "minorPerKg", r.unit, r.valid_from as "validFrom",
            r.before as "beforeMinor", (count(*) over ())::int as total
     from ranked r join supplier s on s.id = r.supplier_id where r.newest = 1 order by r.item, s.name limit $5`,
    [houseId, today, like, supplierId ?? null, limit],
  );
  return { prices: rows.map(({ total: _, ...r }) => r), total: rows[0]?.total ?? 0 };
}

export const readPriceHistory = (db: Sequelize, houseId: string, item: string, supplierId: string) =>
  select<{ day: string; minorPerKg: number }>(
    db,
    `select distinct on (l.valid_from) l.valid_from as day, p.minor_per_kg as "minorPerKg"
     from price p join price_list l on l.id = p.list_id and ${STANDS}
     where p.house_id = $1 and p.item = $2 and l.supplier_id = $3 order by l.valid_from, l.finished_at desc`,
    [houseId, item, supplierId],
  );
