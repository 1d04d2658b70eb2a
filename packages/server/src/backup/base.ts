/** Base backups: the ground on which the kept log stands, so that the records can be had as they were at any moment. */
import { mkdir, readdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import pg from 'pg';
import { runOn } from './postgresProgram.ts';

const BASES = 2;

interface Base {
  readonly name: string;
  readonly at: Date;
  /** The first piece of the log that it needs. */
  readonly from: string;
}

/** The base backups of a folder, newest first. */
export async function listBases(folder: string): Promise<Base[]> {
  const names = (await readdir(folder).catch(() => [])).filter((name) => /^base-\d{8}T\d{6}Z$/.test(name));
  const bases = await Promise.all(
    names.map(async (name) => {
      const said = JSON.parse(await readFile(join(folder, name, 'base.json'), 'utf8')) as { at: string; from: string };
      return { name, at: new Date(said.at), from: said.from };
    }),
  );
  return bases.sort((a, b) => b.at.getTime() - a.at.getTime());
}

/** The base from which a moment can be reached: the newest that was whole by then. */
export const baseBefore = (bases: readonly Base[], moment: Date): Base | undefined =>
  bases.find((base) => base.at.getTime() <= moment.getTime());

/** Makes a base backup, keeps the last two, and lets go of the log that neither needs. Its moment is when it was whole. */
export async function makeBase(
  databaseUrl: string,
  folder: string,
  log: string,
  clock: () => Date,
): Promise<{ name: string; at: Date; bytes: number }> {
  await mkdir(folder, { recursive: true, mode: 0o711 });
  const name = `base-${clock().toISOString().slice(0, 19).replaceAll(/[-:]/g, '')}Z`;
  const part = join(folder, `${name}.part`);
  await rm(part, { recursive: true, force: true });
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  const { rows } = await client.query<{ from: string }>('select pg_walfile_name(pg_current_wal_lsn()) as from');
  await client.end();
  const from = rows[0]?.from ?? '';
  await runOn(databaseUrl, 'pg_basebackup', [
    `--pgdata=${part}`,
    '--format=tar',
    '--gzip',
    '--wal-method=none',
    '--checkpoint=fast',
    '--no-manifest',
  ]);
  const at = clock();
  await writeFile(join(part, 'base.json'), JSON.stringify({ at: at.toISOString(), from }), { mode: 0o600 });
  await rename(part, join(folder, name));
  const bases = await listBases(folder);
  for (const old of bases.slice(BASES)) await rm(join(folder, old.name), { recursive: true, force: true });
  const needed = bases.slice(0, BASES).at(-1)?.from ?? '';
  for (const piece of await readdir(log).catch(() => []))
    if (/^[0-9A-F]{24}\.gz$/.test(piece) && piece < needed) await rm(join(log, piece), { force: true });
  return { name, at, bytes: (await stat(join(folder, name, 'base.tar.gz'))).size };
}
