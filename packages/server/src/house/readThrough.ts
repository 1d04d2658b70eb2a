import type { Sequelize, Transaction } from 'sequelize';
import { select } from '../db/select.ts';

/**
 * What a query gives, read once from beginning to end, so many rows at a time, by a cursor of its transaction. The last page may be empty; there is one
 * at least.
 */
export async function* readThrough<T extends object>(
  db: Sequelize,
  transaction: Transaction,
  query: string,
  bind: readonly unknown[],
  page: number,
): AsyncGenerator<T[]> {
  await db.query(`declare read_through no scroll cursor for ${query}`, { bind: [...bind], transaction });
  for (;;) {
    const rows = await select<T>(db, `fetch ${page} from read_through`, [], transaction);
    yield rows;
    if (rows.length < page) break;
  }
  await db.query('close read_through', { transaction });
}
