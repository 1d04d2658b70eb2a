import { speciesById } from '@zabrik/catalogue';
import type { Delivery } from '@zabrik/contract';
import { minor } from '@zabrik/core';
import type { Sequelize, Transaction } from 'sequelize';
import { select, selectOne } from '../../db/select.ts';
import type { Place } from '../../http/page.ts';

interface Row {
  readonly lotId: string;
  readonly code: string;
  readonly species: string;
  readonly form: string;
  readonly animals: number;
  readonly supplierName: string;
  readonly origin: string | null;
  readonly grossMg: number;
  readonly tareMg: number;
  readonly invoiceMg: number;
  readonly paidMinor: number;
  readonly temperatureCentiC: number | null;
  readonly landedOn: string | null;
  readonly useBy: string;
  readonly note: string | null;
  readonly by: string;
  readonly at: Date;
  readonly movementId: string;
  readonly reversed: boolean;
}

const DELIVERY = `
select d.lot_id as "lotId", l.code, l.species, l.form, l.pieces as animals, s.name as "supplierName", d.origin, d.gross_mg as "grossMg",
       d.tare_mg as "tareMg", d.invoice_mg as "invoiceMg", d.paid_minor as "paidMinor", d.temperature_centi_c as "temperatureCentiC",
       d.landed_on as "landedOn", l.use_by as "useBy", d.note, p.name as by, d.at, d.movement_id as "movementId",
       exists (select 1 from movement r where r.reverses = d.movement_id) as reversed
from delivery d join lot l on l.id = d.lot_id join supplier s on s.id = l.supplier_id join person p on p.id = d.person_id
where d.house_id = $1`;

const deliveryOf = (row: Row): Delivery => {
  const species = speciesById.get(row.species);
  const netMg = row.grossMg - row.tareMg;
  const differenceMg = netMg - row.invoiceMg;
  return {
    ...row,
    at: row.at.toISOString(),
    speciesName: species?.name ?? row.species,
    formName: species?.forms.find((f) => f.id === row.form)?.name ?? row.form,
    netMg,
    differenceMg,
    differenceMinor: minor((row.paidMinor * differenceMg) / row.invoiceMg),
  };
};

export async function readDelivery(
  db: Sequelize,
  houseId: string,
  lotId: string,
  transaction?: Transaction,
): Promise<Delivery | undefined> {
  const row = await selectOne<Row>(db, `${DELIVERY} and d.lot_id = $2`, [houseId, lotId], transaction);
  return row === undefined ? undefined : deliveryOf(row);
}

export async function listDeliveries(
  db: Sequelize,
  houseId: string,
  limit: number,
  after: Place | undefined,
): Promise<Delivery[]> {
  const rows = await select<Row>(
    db,
    `${DELIVERY} and ($2::timestamptz is null or (d.at, d.lot_id) < ($2::timestamptz, $3::uuid)) order by d.at desc, d.lot_id desc limit $4`,
    [houseId, after?.at ?? null, after?.id ?? null, limit + 1],
  );
  return rows.map(deliveryOf);
}
