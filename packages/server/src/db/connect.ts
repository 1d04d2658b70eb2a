import pg from 'pg';
import { Sequelize } from 'sequelize';

// bigint columns hold milligrams and pence well below 2^53; one beyond it is a broken row and must not be rounded quietly
pg.types.setTypeParser(pg.types.builtins.INT8, (text) => {
  const value = Number(text);
  if (!Number.isSafeInteger(value)) throw new RangeError(`bigint out of range: ${text}`);
  return value;
});

/** Opens the pool. Queries are not logged here: the request log has their times. */
export const connect = (databaseUrl: string, pool = 20): Sequelize =>
  new Sequelize(databaseUrl, {
    dialect: 'postgres',
    dialectModule: pg,
    logging: false,
    pool: { max: pool, min: 0, acquire: 10_000, idle: 30_000 },
    define: { underscored: true, timestamps: false, freezeTableName: true },
  });
