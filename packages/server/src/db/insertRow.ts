import type { Sequelize, Transaction } from 'sequelize';

/** Writes one row whose columns are named in the code, never by a client. */
export async function insertRow(
  db: Sequelize,
  table: string,
  columns: Readonly<Record<string, unknown>>,
  transaction: Transaction,
): Promise<void> {
  const names = Object.keys(columns);
  await db.query(`insert into ${table} (${names.join(', ')}) values (${names.map((_, i) => `$${i + 1}`).join(', ')})`, {
    bind: Object.values(columns),
    transaction,
  });
}
