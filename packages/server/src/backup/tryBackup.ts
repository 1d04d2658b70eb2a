/** The rehearsal: a backup that nobody has ever brought back is a hope. */
import { execFile } from 'node:child_process';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { promisify } from 'node:util';
import pg from 'pg';
import { differing, readFacts, wrongInside } from './facts.ts';
import { BackupRefused, checkBackup } from './makeBackup.ts';
import { runOn } from './postgresProgram.ts';

const run = promisify(execFile);

/**
 * Brings a backup back into a cluster of its own, made for it and removed afterwards, and holds every table against what was said when it was
 * made; then whether the ledger is whole. `root`: the checkout, whose scripts/db.sh makes the cluster.
 *
 * Errors  `BackupRefused`, saying what differs.
 */
export async function tryBackup(root: string, file: string): Promise<{ readonly rows: number }> {
  const manifest = await checkBackup(file);
  if (manifest === undefined)
    throw new BackupRefused(`${basename(file)} has nothing beside it that says what it should be`);
  const home = join(await mkdtemp(join(tmpdir(), 'zabrik-try-')), 'pg');
  const env = { ...process.env, DB_HOME: home, DB_FSYNC: 'off', DB_ARCHIVE: '' };
  const db = async (...args: string[]): Promise<string> =>
    (await run(join(root, 'scripts/db.sh'), args, { env, maxBuffer: 10_000_000 })).stdout.trim();
  try {
    await run('chmod', ['711', join(home, '..')]);
    await db('start');
    const url = await db('url');
    await runOn(url, 'pg_restore', ['--no-owner', '--no-privileges', '--exit-on-error', file]);
    const client = new pg.Client({ connectionString: url });
    await client.connect();
    try {
      const facts = await readFacts(client);
      const wrong = [
        ...differing(manifest.facts, facts).map((table) => `${table} is not what was kept`),
        ...(await wrongInside(client)),
      ];
      if (wrong.length > 0) throw new BackupRefused(wrong.join('; '));
      return { rows: Object.values(facts).reduce((sum, f) => sum + f.rows, 0) };
    } finally {
      await client.end();
    }
  } catch (error) {
    if (error instanceof BackupRefused) throw error;
    throw new BackupRefused(
      `it could not be brought back: ${error instanceof Error ? error.message.split('\n').slice(-2).join(' ') : ''}`,
    );
  } finally {
    await db('remove').catch(() => undefined);
    await rm(join(home, '..'), { recursive: true, force: true });
  }
}
