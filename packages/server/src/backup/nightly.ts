import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import pg from 'pg';
import { listBases, makeBase } from './base.ts';
import { listBackups, makeBackup } from './makeBackup.ts';
import { recordBase, recordDump, recordTry } from './record.ts';
import { tryBackup } from './tryBackup.ts';

const HOUR = 3_600_000;
const WEEK = 7 * 24 * HOUR;

/**
 * Whether the next backup is due: in the quiet hour (0 to 23, of this machine's clock) once a night, and at any hour when the last is more than
 * 26 hours old, as after a night switched off.
 */
export function isDue(last: Date | undefined, now: Date, quietHour: number): boolean {
  if (last === undefined) return true;
  const age = now.getTime() - last.getTime();
  return age > 26 * HOUR || (age > 12 * HOUR && now.getHours() === quietHour);
}

export interface Keeping {
  readonly databaseUrl: string;
  /** The folder of the backups, and a second place on another disk. */
  readonly folder: string;
  readonly second: string | undefined;
  readonly quietHour: number;
  /** The checkout. */
  readonly root: string;
}

const withClient = async <T>(databaseUrl: string, work: (client: pg.Client) => Promise<T>): Promise<T> => {
  const client = new pg.Client({ connectionString: databaseUrl });
  client.on('error', () => undefined);
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end();
  }
};

/** A backup now, written down in the records. */
export async function keepNow({ databaseUrl, folder, second }: Keeping, now: Date) {
  const kept = await makeBackup(databaseUrl, folder, second, now);
  await withClient(databaseUrl, (client) => recordDump(client, kept));
  return kept;
}

/** Rehearses bringing a backup back, and writes down what came of it. Gives why not, or null. */
export async function rehearse(
  { databaseUrl, folder, root }: Keeping,
  name: string,
  now: Date,
): Promise<string | null> {
  const why = await tryBackup(root, join(folder, name)).then(
    () => null,
    (error: unknown) => (error instanceof Error ? error.message : String(error)),
  );
  await withClient(databaseUrl, (client) => recordTry(client, name, now, why));
  return why;
}

/** One look: makes what is due, and says what it did, line by line. Once a week the last one is brought back for a rehearsal, and a base made. */
export async function look(keeping: Keeping, now: Date, say: (line: string) => void): Promise<void> {
  const { databaseUrl, folder, quietHour } = keeping;
  const [last] = await listBackups(folder);
  if (!isDue(last?.at, now, quietHour)) return;
  const kept = await keepNow(keeping, now);
  say(
    `kept ${kept.name}, ${kept.bytes} bytes${kept.secondWhy === null ? '' : `; not in the second place: ${kept.secondWhy}`}`,
  );
  const { archived, tried } = await withClient(databaseUrl, async (client) => ({
    archived: (await client.query<{ on: string }>(`select current_setting('archive_mode') as on`)).rows[0]?.on === 'on',
    tried: (await client.query<{ at: Date | null }>('select max(tried_at) as at from backup where tried_why is null'))
      .rows[0]?.at,
  }));
  if (tried == null || now.getTime() - tried.getTime() > WEEK) {
    const why = await rehearse(keeping, kept.name, now);
    say(
      why === null
        ? `${kept.name} was brought back for a rehearsal: all of it is there`
        : `the rehearsal of ${kept.name} failed: ${why}`,
    );
  }
  const [base] = await listBases(folder);
  if (archived && (base === undefined || now.getTime() - base.at.getTime() > WEEK)) {
    const made = await makeBase(databaseUrl, folder, join(folder, 'log'), () => new Date());
    await withClient(databaseUrl, (client) => recordBase(client, made));
    say(`kept ${made.name}, ${made.bytes} bytes`);
  }
}

const EVERY_MS = 60_000;
const AFTER_FAILURE_MS = 15 * EVERY_MS;

/** Looks every minute until it is stopped. What fails is said and tried again a quarter of an hour later. */
export async function keepNightly(keeping: Keeping, say: (line: string) => void): Promise<never> {
  for (;;) {
    try {
      await look(keeping, new Date(), say);
      await wait(EVERY_MS);
    } catch (error) {
      say(`no backup was made: ${error instanceof Error ? error.message : String(error)}`);
      await wait(AFTER_FAILURE_MS);
    }
  }
}
