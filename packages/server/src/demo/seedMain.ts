/** Fills an empty database with the demo. Does nothing when there is a house already. */
import { readConfig } from '../config.ts';
import { connect } from '../db/connect.ts';
import { Disk } from '../db/disk.ts';
import { migrate } from '../db/migrations.ts';
import { HouseTable } from '../db/models/house.ts';
import { serverRows } from '../db/rows.ts';
import { noDevices } from '../devices/devices.ts';
import { openLog } from '../openServices.ts';
import { reversals } from '../stations/index.ts';
import { seedDemo } from './seed.ts';

const config = readConfig(process.env);
/** How long a past the demo gets. Tests ask for a short one. */
const breakdowns = Number(process.env['ZABRIK_DEMO_BREAKDOWNS'] ?? 150);
// made-up history may be lost in a power cut and made again: it need not wait for the disk
const db = connect(`${config.databaseUrl}?options=-c%20synchronous_commit%3Doff`, 4);
await migrate(db);
if ((await serverRows(db, HouseTable).count({})) === 0) {
  const services = {
    db,
    config,
    clock: () => new Date(),
    log: openLog('silent'),
    longReads: db,
    disk: new Disk(db, 0),
    devicesOf: () => noDevices,
    reversals,
    jobs: { nudge: () => undefined },
    placeDevices: () => Promise.resolve(),
    announce: () => undefined,
    tell: () => undefined,
  };
  await seedDemo(services, config.demoPin ?? '2468', breakdowns, (line) => process.stdout.write(`  ${line}\n`));
  process.stdout.write('  made\n');
} else process.stdout.write('  there already\n');
await db.close();
