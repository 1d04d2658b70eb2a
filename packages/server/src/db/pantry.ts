/** What the ingredients of recipes cost a house: by the lists of its suppliers where one is matched, else as somebody typed it. */
import type { Sequelize } from 'sequelize';
import { dayIn } from './house.ts';
import type { HouseRow } from './models/house.ts';
import type { HouseScope } from './rows.ts';
import { select } from './select.ts';

export interface PantryPrice {
  readonly minorPerKg: number;
  /** The line of a price list it is read from; null: typed. */
  readonly list: {
    readonly supplierName: string;
    readonly item: string;
    readonly unit: string;
    readonly validFrom: string;
  } | null;
}

interface Row {
  readonly id: string;
  readonly minorPerKg: number;
  readonly supplierName: string;
  readonly item: string;
  readonly unit: string;
  readonly validFrom: string;
}

/**
 * Prices by ingredient, minor units a kilogram, as they count on the day of `at`. A list that is matched and has the item no more leaves the typed price;
 * what has neither is not there: it is unknown, not free.
 */
export async function readPantry(
  db: Sequelize,
  house: HouseRow,
  at: Date,
  { transaction }: Pick<HouseScope, 'transaction'>,
): Promise<ReadonlyMap<string, PantryPrice>> {
  const { pantryFrom = {}, pantryMinorPerKg } = house.settings;
  const matched = Object.entries(pantryFrom).map(([id, from]) => ({ id, ...from }));
  const rows =
    matched.length === 0
      ? []
      : await select<Row>(
          db,
          `select distinct on (w.id) w.id, p.minor_per_kg as "minorPerKg", s.name as "supplierName", p.item, p.unit, l.valid_from as "validFrom"
           from jsonb_to_recordset($2::jsonb) as w(id text, "supplierId" uuid, item text)
             join price_list l on l.house_id = $1 and l.supplier_id = w."supplierId" and l.finished_at is not null and l.undone_at is null and l.valid_from <= $3::date
             join price p on p.house_id = $1 and p.list_id = l.id and lower(p.item) = lower(w.item)
             join supplier s on s.house_id = $1 and s.id = l.supplier_id
           order by w.id, l.valid_from desc, l.finished_at desc`,
          [house.id, JSON.stringify(matched), dayIn(house.timezone, at)],
          transaction,
        );
  return new Map<string, PantryPrice>([
    ...Object.entries(pantryMinorPerKg).map(([id, minorPerKg]): [string, PantryPrice] => [
      id,
      { minorPerKg, list: null },
    ]),
    ...rows.map(({ id, minorPerKg, ...list }): [string, PantryPrice] => [id, { minorPerKg, list }]),
  ]);
}
