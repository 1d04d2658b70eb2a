/**
 * What the database's tables look like to the code: a file a table in `models/`, held against the database by `models.test.ts`. The migrations make the
 * tables; this says what stands in their rows.
 */
import { type DataType, DataTypes, type ModelAttributeColumnOptions, type Sequelize } from 'sequelize';

/** A column whose values read as `T`. */
export interface Column<T, Given extends boolean = true> {
  readonly type: DataType;
  readonly key: boolean;
  readonly nullable: boolean;
  /** It must be given with a new row; else it may be left out, and the database fills it. */
  readonly given: Given;
  /** Stands for the type alone; never there. */
  readonly reads?: T;
}

export interface Table<C extends Columns = Columns> {
  readonly name: string;
  /** How it goes into a house's file, or why it does not. */
  readonly file: InHouseFile | NotInHouseFile;
  /** The column that says whose row it is; undefined where a table is the server's own. */
  readonly houseColumn: string | undefined;
  readonly columns: C;
}

/** `order`: how its rows follow each other there. `drop`: what is only true in one database (places in a sequence) or must not leave it (secrets). */
export interface InHouseFile {
  readonly inFile: {
    readonly order: string;
    readonly drop?: readonly string[];
    /** Read in after that table's rows as well, though none of its columns points there: what the database keeps up leans on them. */
    readonly after?: string;
  };
}

export interface NotInHouseFile {
  readonly notInFile: string;
  /** The table whose rows the database writes it with: who points here comes after that one. */
  readonly follows?: string;
}

export type Columns = Readonly<Record<string, Column<unknown, boolean>>>;
type Reads<C> = C extends Column<infer T, boolean> ? T : never;

/** A row as it is read. */
export type RowOf<T extends Table> = { readonly [K in keyof T['columns']]: Reads<T['columns'][K]> };
type GivenKeys<C extends Columns> = { [K in keyof C]: C[K]['given'] extends true ? K : never }[keyof C];
/** A row as it is added: the house comes by itself, and so does what the database fills. */
export type NewRowOf<T extends Table> = Omit<Pick<RowOf<T>, GivenKeys<T['columns']>>, 'houseId'> &
  Partial<Omit<RowOf<T>, 'houseId'>>;

const column = <T>(type: DataType): Column<T> => ({ type, key: false, nullable: false, given: true });

export const uuid = column<string>(DataTypes.UUID);
export const whole = column<number>(DataTypes.INTEGER);
/** Milligrams, or minor units of money: whole, and below 2^53. */
export const big = column<number>(DataTypes.BIGINT);
export const real = column<number>(DataTypes.DOUBLE);
export const yes = column<boolean>(DataTypes.BOOLEAN);
export const when = column<Date>(DataTypes.DATE);
/** YYYY-MM-DD. */
export const day = column<string>(DataTypes.DATEONLY);
export const bytes = column<Uint8Array>(DataTypes.BLOB);
export const texts = column<readonly string[]>(DataTypes.ARRAY(DataTypes.TEXT));
export const text = <T extends string = string>(): Column<T> => column<T>(DataTypes.TEXT);
export const json = <T>(): Column<T> => column<T>(DataTypes.JSONB);

export const orNull = <T, G extends boolean>(of: Column<T, G>): Column<T | null, false> =>
  ({ ...of, nullable: true, given: false }) as Column<T | null, false>;
export const key = <T, G extends boolean>(of: Column<T, G>): Column<T, G> => ({ ...of, key: true });
/** The database fills it where nobody does. */
export const filled = <T>(of: Column<T, boolean>): Column<T, false> => ({ ...of, given: false }) as Column<T, false>;

/** A table of a house: whose row it is stands in `houseId`, or for the house itself in `id`. */
export const table = <C extends Columns>(name: string, columns: C, file: InHouseFile | NotInHouseFile): Table<C> => ({
  name,
  file,
  houseColumn: 'houseId' in columns ? 'houseId' : name === 'house' ? 'id' : undefined,
  columns,
});

/** Makes a table known to one connection. */
export function defineTable(db: Sequelize, { name, columns }: Table): void {
  const attributes = Object.fromEntries(
    Object.entries(columns).map(
      ([attribute, { type, key: primaryKey, nullable }]): [string, ModelAttributeColumnOptions] => [
        attribute,
        { type, primaryKey, allowNull: nullable },
      ],
    ),
  );
  const model = db.define(name, attributes, { tableName: name });
  // where no column is a key Sequelize would invent one
  if (!Object.values(columns).some((c) => c.key)) model.removeAttribute('id');
}
