import type { Sequelize } from 'sequelize';
import { Umzug } from 'umzug';
import { keepApart } from './keepApart.ts';
import { housesAndPeople } from './migrations/0001-houses-and-people.ts';
import { massLedger } from './migrations/0002-mass-ledger.ts';
import { stations } from './migrations/0003-stations.ts';
import { stagesBatchesEvents } from './migrations/0004-stages-batches-events.ts';
import { keeping } from './migrations/0005-keeping.ts';
import { receiving } from './migrations/0006-receiving.ts';
import { cutting } from './migrations/0007-cutting.ts';
import { pots } from './migrations/0008-pots.ts';
import { kin } from './migrations/0009-kin.ts';
import { judgedByWhatItIs } from './migrations/0010-judged-by-what-it-is.ts';
import { countedPieces } from './migrations/0011-pieces.ts';
import { secondGo } from './migrations/0012-second-go.ts';
import { holdsTravel } from './migrations/0013-holds-travel.ts';
import { whoseWeight } from './migrations/0014-whose-weight.ts';
import { doors } from './migrations/0015-doors.ts';
import { backups } from './migrations/0016-backups.ts';
import { pairs } from './migrations/0017-pairs.ts';
import { lotSerials } from './migrations/0018-lot-serials.ts';
import { reservations } from './migrations/0019-reservations.ts';
import { answersThinned } from './migrations/0020-answers-thinned.ts';
import { versionsKept } from './migrations/0021-versions-kept.ts';
import { jobs } from './migrations/0022-jobs.ts';
import { recipesAndBatches } from './migrations/0023-recipes-and-batches.ts';
import { byHouseAndTime } from './migrations/0024-by-house-and-time.ts';
import { triesCounted } from './migrations/0025-tries-counted.ts';
import { asFound } from './migrations/0026-as-found.ts';
import { whileItIsOn } from './migrations/0027-while-it-is-on.ts';
import { keysWithTheirTime } from './migrations/0028-keys-with-their-time.ts';
import { lotGenealogy } from './migrations/0029-lot-genealogy.ts';
import { timeInAtOnce } from './migrations/0030-time-in-at-once.ts';
import { aHouseMovesIn } from './migrations/0031-a-house-moves-in.ts';
import { devicesOfTheHouse } from './migrations/0032-devices-of-the-house.ts';
import { piecesReserved } from './migrations/0033-pieces-reserved.ts';
import { whatSuppliersSay } from './migrations/0034-what-suppliers-say.ts';
import { programsTabletsPeople } from './migrations/0035-programs-tablets-people.ts';

/** Every change of the database, oldest first. One that has landed is never edited: a mistake is put right by the next. */
const migrations: readonly { readonly name: string; readonly up: string }[] = [
  housesAndPeople,
  massLedger,
  stations,
  stagesBatchesEvents,
  keeping,
  receiving,
  cutting,
  pots,
  kin,
  judgedByWhatItIs,
  countedPieces,
  secondGo,
  holdsTravel,
  whoseWeight,
  doors,
  backups,
  pairs,
  lotSerials,
  reservations,
  answersThinned,
  versionsKept,
  jobs,
  recipesAndBatches,
  byHouseAndTime,
  triesCounted,
  asFound,
  whileItIsOn,
  keysWithTheirTime,
  lotGenealogy,
  timeInAtOnce,
  aHouseMovesIn,
  devicesOfTheHouse,
  piecesReserved,
  whatSuppliersSay,
  programsTabletsPeople,
];

/** What the records have had when they are of this version, in order. */
export const migrationNames: readonly string[] = migrations.map((m) => m.name);

const ONE_MIGRATOR = 7_261_180_942;

/**
 * Brings the database to the newest shape, or to that of the migration named. Safe to call from several processes at once: one works,
 * the others wait and find it done.
 */
export async function migrate(db: Sequelize, upTo?: string): Promise<string[]> {
  return db.transaction(async (transaction) => {
    await db.query('select pg_advisory_xact_lock($1)', { bind: [ONE_MIGRATOR], transaction });
    await db.query(
      'create table if not exists migration (name text primary key, at timestamptz not null default now())',
      {
        transaction,
      },
    );
    const umzug = new Umzug({
      migrations: migrations.map(({ name, up }) => ({
        name,
        up: async (): Promise<void> => {
          await db.query(up, { transaction });
        },
      })),
      storage: {
        logMigration: async ({ name }): Promise<void> => {
          await db.query('insert into migration (name) values ($1)', { bind: [name], transaction });
        },
        unlogMigration: async ({ name }): Promise<void> => {
          await db.query('delete from migration where name = $1', { bind: [name], transaction });
        },
        executed: async (): Promise<string[]> => {
          const [rows] = await db.query('select name from migration order by name', { transaction });
          return (rows as { name: string }[]).map((row) => row.name);
        },
      },
      logger: undefined,
    });
    const applied = (await umzug.up(upTo === undefined ? {} : { to: upTo })).map((done) => done.name);
    await keepApart(db, transaction);
    return applied;
  });
}
