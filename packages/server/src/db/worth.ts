import type { Worth } from '@zabrik/core';
import type { Sequelize, Transaction } from 'sequelize';
import type { HouseRow } from './models/house.ts';
import { selectOne } from './select.ts';

/** What by-products were worth to the house at a moment: a sheet keeps what held when its stage was closed. */
export async function readWorthAt(
  db: Sequelize,
  house: HouseRow,
  at: Date | null,
  transaction?: Transaction,
): Promise<Worth> {
  if (at === null) return house.settings.creditMinorPerKg;
  const next = await selectOne<{ before: Worth | null }>(
    db,
    `select before from setting_change where house_id = $1 and what = 'creditMinorPerKg' and at > $2 order by at, id limit 1`,
    [house.id, at],
    transaction,
  );
  return next === undefined ? house.settings.creditMinorPerKg : (next.before ?? {});
}
