import type { Answer, Asked, api } from '@zabrik/contract';
import type { Sequelize } from 'sequelize';
import { PriceTable } from '../../db/models/price.ts';
import { PriceListTable } from '../../db/models/priceList.ts';
import { SupplierTable } from '../../db/models/supplier.ts';
import { rowsOf } from '../../db/rows.ts';
import { select } from '../../db/select.ts';
import { Problem } from '../../http/problem.ts';
import type { InCommand, Services } from '../../services.ts';

/** Takes rows of a price list. Nothing of a list counts before its last part is here. Errors: `list_undone`; `changed_since` when it is whole already. */
export async function takePrices(
  { db }: Services,
  command: InCommand,
  { body }: Asked<typeof api.receive.sendPrices>,
): Promise<Answer<typeof api.receive.sendPrices>> {
  const { actor, at } = command;
  const supplier = await rowsOf(db, SupplierTable, command).one({ id: body.supplierId });
  if (supplier === undefined) throw new Problem('not_found', 'There is no such supplier in this house.');
  const { listId, supplierId, file, validFrom } = body;
  const lists = rowsOf(db, PriceListTable, command);
  await lists.addMissing([{ id: listId, supplierId, file, validFrom, rows: 0, personId: actor.personId, at }]);
  const list = await lists.one({ id: listId }, { lock: 'update' });
  if (list === undefined) throw new Problem('not_found');
  if (list.undoneAt !== null) throw new Problem('list_undone');
  if (list.finishedAt !== null)
    throw new Problem('changed_since', 'This price list is whole already. Read the file in anew for another.');
  if (list.supplierId !== body.supplierId)
    throw new Problem('invalid', undefined, [{ path: 'supplierId', message: 'this list is another supplier’s' }]);
  const prices = rowsOf(db, PriceTable, command);
  await prices.addMissing(body.rows.map((row) => ({ listId, ...row })));
  const rows = await prices.count({ listId });
  await lists.change({ id: listId }, { rows, finishedAt: body.last ? at : null });
  return { listId, rows };
}

export async function undoPrices(
  { db }: Services,
  command: InCommand,
  { params }: Asked<typeof api.receive.undoPrices>,
): Promise<Answer<typeof api.receive.undoPrices>> {
  const lists = rowsOf(db, PriceListTable, command);
  const list = await lists.one({ id: params.listId }, { lock: 'update' });
  if (list === undefined) throw new Problem('not_found');
  if (list.undoneAt !== null) throw new Problem('list_undone');
  await lists.change({ id: params.listId }, { undoneAt: command.at });
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
