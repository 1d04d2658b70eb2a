/**
 * What ./zabrik calls for backups. DATABASE_URL; ZABRIK_BACKUPS the folder; ZABRIK_BACKUPS_SECOND the second place; ZABRIK_BACKUP_HOUR the quiet
 * hour, 3 when nothing is said.
 *   now | file FILE | nightly | check FILE | try [FILE] | restored INSTANT | base INSTANT
 */
import { basename, dirname, join } from 'node:path';
import pg from 'pg';
import { connect } from '../db/connect.ts';
import { migrate } from '../db/migrations.ts';
import { baseBefore, listBases } from './base.ts';
import { BackupRefused, checkBackup, listBackups, writeBackup } from './makeBackup.ts';
import { type Keeping, keepNightly, keepNow, rehearse } from './nightly.ts';
import { recordRestored } from './record.ts';
import { tryBackup } from './tryBackup.ts';

const [command = '', given = ''] = process.argv.slice(2);
const { env } = process;
const databaseUrl = env['DATABASE_URL'] ?? '';
const root = env['ZABRIK_ROOT'] ?? process.cwd();
const keeping: Keeping = {
  databaseUrl,
  folder: env['ZABRIK_BACKUPS'] ?? join(root, '.zabrik/backups'),
  second: env['ZABRIK_BACKUPS_SECOND'] === '' ? undefined : env['ZABRIK_BACKUPS_SECOND'],
  quietHour: Number(env['ZABRIK_BACKUP_HOUR'] ?? 3),
  root,
};
const say = (line: string): void => void process.stdout.write(`${line}\n`);

const instant = (text: string): Date => {
  const date = new Date(text);
  if (Number.isNaN(date.getTime()))
    throw new BackupRefused(`${text} is no time: 2026-11-29T17:05:00Z, or 2026-11-29 17:05 of this machine's clock`);
  return date;
};

const commands: Readonly<Record<string, () => Promise<void>>> = {
  now: async () => {
    const kept = await keepNow(keeping, new Date());
    say(join(keeping.folder, kept.name));
    if (kept.secondWhy !== null) throw new BackupRefused(`it is kept, but not in the second place: ${kept.secondWhy}`);
  },
  file: async () => {
    await writeBackup(databaseUrl, given, new Date());
  },
  nightly: () => keepNightly(keeping, (line) => say(`${new Date().toISOString()}  ${line}`)),
  check: async () => {
    const manifest = await checkBackup(given);
    say(manifest?.at ?? '');
  },
  try: async () => {
    const [last] = await listBackups(keeping.folder);
    if (given === '' && last === undefined) throw new BackupRefused(`there is no backup in ${keeping.folder}`);
    const mine = given === '' || dirname(given) === keeping.folder;
    if (!mine) {
      const { rows } = await tryBackup(root, given);
      say(`${basename(given)} was brought back for a rehearsal: all ${rows} rows are there and the ledger is whole`);
      return;
    }
    const name = given === '' ? (last?.name ?? '') : basename(given);
    const why = await rehearse(keeping, name, new Date());
    if (why !== null) throw new BackupRefused(`${name}: ${why}`);
    say(`${name} was brought back for a rehearsal: all of it is there and the ledger is whole`);
  },
  restored: async () => {
    const db = connect(databaseUrl, 2);
    await migrate(db);
    await db.close();
    const client = new pg.Client({ connectionString: databaseUrl });
    await client.connect();
    await recordRestored(client, new Date(), instant(given));
    await client.end();
  },
  base: async () => {
    const base = baseBefore(await listBases(keeping.folder), instant(given));
    if (base === undefined) throw new BackupRefused(`no base backup of before ${given} is kept in ${keeping.folder}`);
    say(`${join(keeping.folder, base.name)} ${instant(given).toISOString()}`);
  },
};

try {
  const work = commands[command];
  if (work === undefined) throw new BackupRefused(`backup knows ${Object.keys(commands).join(', ')}`);
  await work();
} catch (error) {
  process.stderr.write(
    `zabrik: ${error instanceof BackupRefused ? error.message : error instanceof Error ? error.stack : String(error)}\n`,
  );
  process.exitCode = 1;
}
