import pg from 'pg';
import { Sequelize } from 'sequelize';

// bigint columns hold milligrams and pence well below 2^53; one beyond it is a broken row and must not be rounded quietly
pg.types.setTypeParser(pg.types.builtins.INT8, (text) => {
  const value = Number(text);
  if (!Number.isSafeInteger(value)) throw new RangeError(`bigint out of range: ${text}`);
  return value;
});

/**
 * A client that outlives the loss of its line. Between its construction and the moment the pool listens to it a crash of the database would
 * otherwise end the whole server: the query that needs the line reports it.
 */
class Client extends pg.Client {
  constructor(config?: string | pg.ClientConfig) {
    super(config);
    this.on('error', () => undefined);
  }
}

/**
 * Opens a pool of at most so many lines; a query waits `acquireMs` for one at most. Queries are not logged here: the request log has their
 * times.
 */
export const connect = (databaseUrl: string, pool = 20, acquireMs = 10_000): Sequelize =>
  new Sequelize(databaseUrl, {
    dialect: 'postgres',
    dialectModule: { ...pg, Client },
    logging: false,
    pool: { max: pool, min: 0, acquire: acquireMs, idle: 30_000 },
    define: { underscored: true, timestamps: false, freezeTableName: true },
  });
