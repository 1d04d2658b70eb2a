import type { CreateOptions, FindOptions, Model, ModelStatic, Sequelize, Transaction, WhereOptions } from 'sequelize';
import type { NewRowOf, RowOf, Table } from './table.ts';

/** Which rows: each column named is that value, one of those values, or null. Whatever asks for more is a named report, in SQL. */
export type Where<T extends Table> = {
  readonly [K in keyof Omit<RowOf<T>, 'houseId'>]?: RowOf<T>[K] | readonly RowOf<T>[K][];
};

export interface Reading<T extends Table> {
  /** Columns by which they follow each other, `-` before one for the other way round. */
  readonly order?: readonly ((keyof RowOf<T> & string) | `-${keyof RowOf<T> & string}`)[];
  /** Held until the transaction ends: `update` by whoever changes them, `share` by whoever leans on them. Locked in the order asked. */
  readonly lock?: 'update' | 'share';
  readonly limit?: number;
}

/** Whose rows, and in which transaction: a command is one. */
export interface HouseScope {
  readonly houseId: string;
  readonly transaction?: Transaction | undefined;
}

type Changes<T extends Table> = Partial<Omit<RowOf<T>, 'houseId'>>;

/** The rows of one table. Without a house of theirs they cannot be asked for: see `rowsOf`. */
export interface Rows<T extends Table, New = NewRowOf<T>> {
  all(where: Where<T>, reading?: Reading<T>): Promise<RowOf<T>[]>;
  /** The first of them, or undefined. */
  one(where: Where<T>, reading?: Reading<T>): Promise<RowOf<T> | undefined>;
  add(row: New): Promise<void>;
  /** In one statement, in their order. */
  addAll(rows: readonly New[]): Promise<void>;
  /** What is there already, by any of its keys, is left as it is. */
  addMissing(rows: readonly New[]): Promise<void>;
  count(where: Where<T>): Promise<number>;
  /** Answers how many they were. */
  change(where: Where<T>, to: Changes<T>): Promise<number>;
  /** Adds to whole numbers; answers nothing. */
  increase(where: Where<T>, by: { readonly [K in keyof RowOf<T>]?: number }): Promise<void>;
  remove(where: Where<T>): Promise<number>;
}

function rowsWhere<T extends Table, New extends object>(
  db: Sequelize,
  table: T,
  owner: Readonly<Record<string, string>>,
  transaction: Transaction | undefined,
): Rows<T, New> {
  const model = db.model(table.name) as ModelStatic<Model<Record<string, unknown>, Record<string, unknown>>>;
  const bound = transaction === undefined ? {} : { transaction };
  const mine = (where: Where<T>): WhereOptions => ({ ...where, ...owner }) as WhereOptions;
  const owned = (row: New): Record<string, unknown> => ({ ...row, ...owner });
  // the contract and the database judge what is written, not a third one between them
  const writing: CreateOptions = { ...bound, validate: false, hooks: false, returning: false };
  const all = async (where: Where<T>, { order, lock, limit }: Reading<T> = {}): Promise<RowOf<T>[]> => {
    const options: FindOptions = {
      where: mine(where),
      raw: true,
      ...bound,
      ...(order === undefined
        ? {}
        : { order: order.map((o): [string, string] => (o.startsWith('-') ? [o.slice(1), 'desc'] : [o, 'asc'])) }),
      ...(limit === undefined ? {} : { limit }),
      ...(lock === undefined || transaction === undefined
        ? {}
        : { lock: lock === 'update' ? transaction.LOCK.UPDATE : transaction.LOCK.SHARE }),
    };
    return (await model.findAll(options)) as unknown as RowOf<T>[];
  };
  const addAll = async (rows: readonly New[], ignoreDuplicates: boolean): Promise<void> => {
    if (rows.length === 0) return;
    const given = rows.map(owned);
    // what nobody gives is the database's to fill
    const fields = [...new Set(given.flatMap((row) => Object.keys(row)))];
    await model.bulkCreate(given, { ...bound, validate: false, hooks: false, fields, ignoreDuplicates });
  };
  return {
    all,
    one: async (where, reading = {}) => (await all(where, { ...reading, limit: 1 }))[0],
    add: async (row) => {
      await model.create(owned(row), writing);
    },
    addAll: (rows) => addAll(rows, false),
    addMissing: (rows) => addAll(rows, true),
    count: (where) => model.count({ ...bound, where: mine(where) }),
    change: async (where, to) =>
      (await model.update(to, { ...bound, where: mine(where), validate: false, hooks: false }))[0],
    increase: async (where, by) => {
      await model.increment(by as Record<string, number>, { ...bound, where: mine(where) });
    },
    remove: (where) => model.destroy({ ...bound, where: mine(where) }),
  };
}

/** The rows of a table that are this house's: the only way a station reads or writes a table row by row. */
export function rowsOf<T extends Table>(db: Sequelize, table: T, { houseId, transaction }: HouseScope): Rows<T> {
  const column = table.houseColumn;
  if (column === undefined) throw new Error(`${table.name} belongs to no house: it is the server’s own`);
  return rowsWhere(db, table, { [column]: houseId }, transaction);
}

/** Rows of whatever house: the server’s own work before it is known whose work it is, signing in, making a house, a tablet’s token. */
export const serverRows = <T extends Table>(
  db: Sequelize,
  table: T,
  transaction?: Transaction,
): Rows<T, NewRowOf<T> & Pick<RowOf<T>, 'houseId' & keyof RowOf<T>>> => rowsWhere(db, table, {}, transaction);
