import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';

/**
 * Runs a select with $1..$n and gives its rows as the driver made them. The caller states their shape beside the SQL. As a query of type
 * "select" every row would be copied key by key once more, into an object that is slow to read: two thousand lots took twice as long.
 */
export async function select<Row extends object>(
  db: Sequelize,
  sql: string,
  bind: readonly unknown[],
  transaction?: Transaction,
): Promise<Row[]> {
  const [rows] = await db.query(sql, {
    bind: [...bind],
    type: QueryTypes.RAW,
    ...(transaction === undefined ? {} : { transaction }),
  });
  return rows as Row[];
}

/** The first row, or undefined. */
export async function selectOne<Row extends object>(
  db: Sequelize,
  sql: string,
  bind: readonly unknown[],
  transaction?: Transaction,
): Promise<Row | undefined> {
  return (await select<Row>(db, sql, bind, transaction))[0];
}
