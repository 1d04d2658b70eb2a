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

/** Writes rows of the same columns in one statement, in their order. */
export async function insertRows(
  db: Sequelize,
  table: string,
  rows: readonly Readonly<Record<string, unknown>>[],
  transaction: Transaction,
): Promise<void> {
  if (rows.length === 0) return;
  const names = Object.keys(rows[0] ?? {}).join(', ');
  await db.query(
    `insert into ${table} (${names}) select ${names} from jsonb_populate_recordset(null::${table}, $1::jsonb)`,
    { bind: [JSON.stringify(rows)], transaction },
  );
}
