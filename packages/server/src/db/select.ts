import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';

/** Runs a select with $1..$n and gives its rows. The caller states their shape beside the SQL. */
export function select<Row extends object>(
  db: Sequelize,
  sql: string,
  bind: readonly unknown[],
  transaction?: Transaction,
): Promise<Row[]> {
  return db.query<Row>(sql, {
    bind: [...bind],
    type: QueryTypes.SELECT,
    ...(transaction === undefined ? {} : { transaction }),
  });
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
