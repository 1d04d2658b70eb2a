import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { copyFile, mkdir, open, readdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import pg from 'pg';
import { z } from 'zod';
import { NOT_KEPT, readFacts } from './facts.ts';
import { runOn } from './postgresProgram.ts';
import { toKeep } from './retention.ts';

/** What stands beside a backup, so that it can be judged without opening it. */
const manifestSchema = z.strictObject({
  at: z.iso.datetime(),
  bytes: z.int().nonnegative(),
  sha256: z.string().length(64),
  shape: z.string(),
  facts: z.record(z.string(), z.strictObject({ rows: z.int(), sum: z.string() })),
});
export type Manifest = z.output<typeof manifestSchema>;

const manifestOf = (file: string): string => `${file}.json`;

/** SHA-256 of a file as it lies on the disk. */
export async function sha256Of(file: string): Promise<string> {
  const hash = createHash('sha256');
  for await (const chunk of createReadStream(file)) hash.update(chunk as Buffer);
  return hash.digest('hex');
}

/** Onto the disk itself, not into a memory that a power cut empties. */
async function settle(file: string): Promise<void> {
  const handle = await open(file, 'r+');
  await handle.sync();
  await handle.close();
}

export class BackupRefused extends Error {}

/** Writes the whole database into one file, with what can be said of it beside. Errors `BackupRefused`, in words; no file is left then. */
export async function writeBackup(databaseUrl: string, file: string, at: Date): Promise<Manifest> {
  const part = `${file}.part`;
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  try {
    await client.query('begin isolation level repeatable read read only');
    // the dump and what is said of it are of the same moment
    const { rows } = await client.query<{ snapshot: string }>('select pg_export_snapshot() as snapshot');
    const dumped = runOn(databaseUrl, 'pg_dump', [
      '--format=custom',
      '--no-owner',
      '--no-privileges',
      `--snapshot=${rows[0]?.snapshot}`,
      ...NOT_KEPT.map((table) => `--exclude-table-data=public.${table}`),
      '--exclude-schema=pgboss', // the queue of jobs: what waits is said again from the jobs themselves
      `--file=${part}`,
    ]);
    const seen = (async () => ({
      facts: await readFacts(client),
      shape: (await client.query<{ name: string }>('select max(name) as name from migration')).rows[0]?.name ?? '',
    }))();
    const [{ facts, shape }] = await Promise.all([seen, dumped]);
    await settle(part);
    const manifest: Manifest = {
      at: at.toISOString(),
      bytes: (await stat(part)).size,
      sha256: await sha256Of(part),
      shape,
      facts,
    };
    await writeFile(manifestOf(file), JSON.stringify(manifest, null, 1), { mode: 0o600 });
    await rename(part, file);
    return manifest;
  } catch (error) {
    await rm(part, { force: true });
    throw new BackupRefused(`nothing was kept: ${error instanceof Error ? error.message : String(error)}`);
  } finally {
    await client.end();
  }
}

/** Reads a backup's manifest and holds the file against it. Errors `BackupRefused`, in words. Undefined: it has none, as those of before. */
export async function checkBackup(file: string): Promise<Manifest | undefined> {
  const text = await readFile(manifestOf(file), 'utf8').catch(() => undefined);
  if (text === undefined) return undefined;
  let manifest: Manifest;
  try {
    manifest = manifestSchema.parse(JSON.parse(text));
  } catch {
    throw new BackupRefused(
      `${basename(manifestOf(file))} cannot be read: it does not say what ${basename(file)} should be`,
    );
  }
  const size = (await stat(file)).size;
  if (size !== manifest.bytes)
    throw new BackupRefused(
      `${basename(file)} has ${size} bytes and was kept with ${manifest.bytes}: it is cut short or changed`,
    );
  if ((await sha256Of(file)) !== manifest.sha256)
    throw new BackupRefused(`${basename(file)} is not what was kept: its checksum differs`);
  return manifest;
}

const NAME = /^zabrik-(\d{8}T\d{6})Z\.dump$/;
export const nameAt = (at: Date): string => `zabrik-${at.toISOString().slice(0, 19).replaceAll(/[-:]/g, '')}Z.dump`;
const atOf = (name: string): Date | undefined => {
  const m = NAME.exec(name)?.[1];
  return m === undefined
    ? undefined
    : new Date(
        `${m.slice(0, 4)}-${m.slice(4, 6)}-${m.slice(6, 8)}T${m.slice(9, 11)}:${m.slice(11, 13)}:${m.slice(13, 15)}Z`,
      );
};

/** The backups of a folder, newest first. */
export async function listBackups(folder: string): Promise<{ readonly name: string; readonly at: Date }[]> {
  const names = await readdir(folder).catch(() => []);
  return names
    .flatMap((name) => {
      const at = atOf(name);
      return at === undefined ? [] : [{ name, at }];
    })
    .sort((a, b) => b.at.getTime() - a.at.getTime());
}

/** Removes what is older than is kept, each with its manifest. */
async function thin(folder: string, now: Date): Promise<void> {
  const all = await listBackups(folder);
  const keep = new Set(
    toKeep(
      all.map((b) => b.at),
      now,
    ).map((d) => d.getTime()),
  );
  for (const { name, at } of all)
    if (!keep.has(at.getTime()))
      for (const gone of [name, manifestOf(name)]) await rm(join(folder, gone), { force: true });
}

const WHY_NOT: Readonly<Record<string, (place: string) => string>> = {
  ENOENT: (place) => `${place} is not there`,
  ENOSPC: (place) => `there is no room on ${place}`,
  EACCES: (place) => `nothing may be written to ${place}`,
  EROFS: (place) => `nothing can be written to ${place}`,
};

/** Copies a backup into a second place and reads it back from there. Gives why not, or null. */
async function copyTo(second: string, folder: string, name: string, sha256: string): Promise<string | null> {
  try {
    // a disk that is not plugged in must not become a folder on the first one
    if (!(await stat(second)).isDirectory()) return `${second} is not a folder`;
    const part = join(second, `${name}.part`);
    await copyFile(join(folder, name), part);
    await settle(part);
    if ((await sha256Of(part)) !== sha256) {
      await rm(part, { force: true });
      return 'what was read back from there differs';
    }
    await rename(part, join(second, name));
    await copyFile(join(folder, manifestOf(name)), join(second, manifestOf(name)));
    return null;
  } catch (error) {
    const code = (error as NodeJS.ErrnoException).code ?? '';
    return WHY_NOT[code]?.(second) ?? (error instanceof Error ? error.message : String(error));
  }
}

export interface Kept {
  readonly name: string;
  readonly at: Date;
  readonly bytes: number;
  readonly sha256: string;
  readonly second: 'kept' | 'failed' | null;
  readonly secondWhy: string | null;
}

/**
 * A backup into the house's folder and, where there is one, into a second place; what is older than is kept goes, in both. That the second
 * place failed is no reason to lose the first.
 */
export async function makeBackup(
  databaseUrl: string,
  folder: string,
  second: string | undefined,
  now: Date,
): Promise<Kept> {
  await mkdir(folder, { recursive: true, mode: 0o711 });
  const name = nameAt(now);
  const { bytes, sha256 } = await writeBackup(databaseUrl, join(folder, name), now);
  const why = second === undefined ? null : await copyTo(second, folder, name, sha256);
  await thin(folder, now);
  if (second !== undefined && why === null) await thin(second, now);
  return {
    name,
    at: now,
    bytes,
    sha256,
    second: second === undefined ? null : why === null ? 'kept' : 'failed',
    secondWhy: why,
  };
}
