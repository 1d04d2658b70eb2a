import type { Duplex } from 'node:stream';
import pg from 'pg';
import { Sequelize } from 'sequelize';
import { houseNow } from './houseScope.ts';
import { HOUSE_ROLE } from './keepApart.ts';
import { allTables } from './models/index.ts';
import { defineTable } from './table.ts';

// bigint columns hold milligrams and pence well below 2^53; one beyond it is a broken row and must not be rounded quietly
pg.types.setTypeParser(pg.types.builtins.INT8, (text) => {
  const value = Number(text);
  if (!Number.isSafeInteger(value)) throw new RangeError(`bigint out of range: ${text}`);
  return value;
});

/**
 * A client that outlives the loss of its line. Between its construction and the moment the pool listens to it a crash of the database would
 * otherwise end the whole server: the query that needs the line reports it.
 *
 * And one that is bound to the house that is worked for: before a query of another house's work than the last one's, it changes its role and says
 * which house. A house that works by itself pays for that once a line.
 */
class Client extends pg.Client {
  #boundTo: string | undefined;

  constructor(config?: string | pg.ClientConfig) {
    super(config);
    this.on('error', () => undefined);
    const ask = this.query.bind(this) as (...args: unknown[]) => unknown;
    const bound = (...args: unknown[]): unknown => {
      const house = houseNow();
      if (house !== this.#boundTo) {
        this.#boundTo = house;
        const text =
          house === undefined
            ? `reset role; select set_config('zabrik.house', '', false)`
            : `set role ${HOUSE_ROLE}; select set_config('zabrik.house', '${house}', false)`;
        // a line that could not be bound is used for nothing
        ask(text, (error: Error | null) => {
          if (error !== null) (this as unknown as { connection: { stream: Duplex } }).connection.stream.destroy(error);
        });
      }
      return ask(...args);
    };
    this.query = bound as typeof this.query;
  }
}

/**
 * Opens a pool of at most so many lines; a query waits `acquireMs` for one at most. Queries are not logged here: the request log has their
 * times.
 */
export function connect(databaseUrl: string, pool = 20, acquireMs = 10_000): Sequelize {
  const db = new Sequelize(databaseUrl, {
    dialect: 'postgres',
    dialectModule: { ...pg, Client },
    logging: false,
    pool: { max: pool, min: 0, acquire: acquireMs, idle: 30_000 },
    define: { underscored: true, timestamps: false, freezeTableName: true },
  });
  for (const table of allTables) defineTable(db, table);
  return db;
}
