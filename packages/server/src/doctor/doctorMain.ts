/**
 * What ./zabrik doctor shows: looks at this machine and at the kitchen on it, changes nothing. DATABASE_URL, empty where the database is not running;
 * ZABRIK_STATE; ZABRIK_BACKUPS; ZABRIK_BACKUPS_SECOND. Ends with 1 where something must be put right.
 */
import { execFile } from 'node:child_process';
import { X509Certificate } from 'node:crypto';
import { readFile, statfs } from 'node:fs/promises';
import { connect as connectTo } from 'node:net';
import { join } from 'node:path';
import { promisify } from 'node:util';
import pg from 'pg';
import { migrationNames } from '../db/migrations.ts';
import {
  type BackupFacts,
  type DatabaseFacts,
  type Finding,
  findingLines,
  judgeBackups,
  judgeCertificate,
  judgeClock,
  judgeDatabase,
  judgeDevice,
  judgeDisk,
  judgeNode,
} from './findings.ts';

const { env } = process;
const state = env['ZABRIK_STATE'] ?? '.zabrik';
const backups = env['ZABRIK_BACKUPS'] ?? join(state, 'backups');
const second = env['ZABRIK_BACKUPS_SECOND'] ?? '';
const now = new Date();

const freeBytes = (folder: string): Promise<number | undefined> =>
  statfs(folder).then(
    ({ bavail, bsize }) => bavail * bsize,
    () => undefined,
  );

const clockKept = (): Promise<boolean | undefined> =>
  promisify(execFile)('timedatectl', ['show', '-p', 'NTPSynchronized', '--value']).then(
    ({ stdout }) => stdout.trim() === 'yes',
    () => undefined,
  );

const certificateUntil = (): Promise<Date | undefined> =>
  readFile(join(state, 'house-certificate', 'server.crt'), 'utf8').then(
    (pem) => new Date(new X509Certificate(pem).validTo),
    () => undefined,
  );

/** Whether something listens there; nothing is said to it. */
const answers = (address: string): Promise<boolean> =>
  new Promise((resolve) => {
    const [host = '', port = ''] = address.split(':');
    const line = connectTo({ host, port: Number(port) });
    const end = (yes: boolean): void => {
      line.destroy();
      resolve(yes);
    };
    line.setTimeout(2_000, () => end(false));
    line.once('connect', () => end(true));
    line.once('error', () => end(false));
  });

interface HouseRow {
  readonly name: string;
  readonly settings: {
    readonly scales?: readonly { readonly name: string; readonly address?: string }[];
    readonly probeAt?: string;
    readonly printerAt?: string;
  };
}

interface Seen {
  readonly database: DatabaseFacts | undefined;
  readonly backups: BackupFacts;
  readonly houses: readonly HouseRow[];
}
const nothingSeen: Seen = {
  database: undefined,
  backups: { lastAt: undefined, rehearsedAt: undefined, secondWhy: null, second: second !== '' },
  houses: [],
};

async function lookInside(url: string): Promise<Seen> {
  if (url === '') return nothingSeen;
  const client = new pg.Client({ connectionString: url, connectionTimeoutMillis: 5_000 });
  try {
    await client.connect();
    const one = async <T>(sql: string): Promise<T> => (await client.query(sql)).rows[0] as T;
    const { version, most } = await one<{ version: string; most: number }>(
      `select current_setting('server_version') as version, current_setting('max_connections')::int as most`,
    );
    const { connections, longest } = await one<{ connections: number; longest: number }>(
      `select count(*)::int as connections, coalesce(max(extract(epoch from now() - query_start)) filter (where state = 'active' and pid <> pg_backend_pid() and backend_type = 'client backend'), 0)::float8 as longest from pg_stat_activity`,
    );
    const began = performance.now();
    for (let i = 0; i < 20; i += 1) await client.query('select 1');
    const askedMs = (performance.now() - began) / 20;
    const { made } = await one<{ made: string | null }>(`select to_regclass('migration')::text as made`);
    const done =
      made === null
        ? []
        : ((await client.query('select name from migration')).rows as { readonly name: string }[]).map((r) => r.name);
    const known = new Set(migrationNames);
    const facts = {
      version,
      connections,
      mostConnections: most,
      longestSeconds: longest,
      askedMs,
      missing: [...known].filter((name) => !done.includes(name)).length,
      unknown: done.filter((name) => !known.has(name)).length,
    };
    // of records that are of another version nothing more is asked: its tables may be others
    if (facts.missing > 0 || facts.unknown > 0) return { ...nothingSeen, database: { ...facts, houses: 0 } };
    const houses = (await client.query('select name, settings from house order by name')).rows as HouseRow[];
    const last = await one<{ at: Date; second_why: string | null } | undefined>(
      `select at, second_why from backup where kind = 'dump' order by at desc limit 1`,
    );
    const { at: rehearsedAt } = await one<{ at: Date | null }>(
      'select max(tried_at) as at from backup where tried_why is null',
    );
    return {
      database: { ...facts, houses: houses.length },
      backups: {
        lastAt: last?.at,
        rehearsedAt: rehearsedAt ?? undefined,
        secondWhy: last?.second_why ?? null,
        second: second !== '',
      },
      houses,
    };
  } catch {
    return nothingSeen;
  } finally {
    await client.end().catch(() => undefined);
  }
}

const devicesOf = ({ name, settings }: HouseRow): Promise<Finding>[] =>
  [
    ...(settings.scales ?? []).map((s) => ({ device: s.name, at: s.address })),
    { device: 'Probe', at: settings.probeAt },
    { device: 'Label printer', at: settings.printerAt },
  ].flatMap(({ device, at }) =>
    at === undefined ? [] : [answers(at).then((there) => judgeDevice(name, device, at, there))],
  );

const seen = await lookInside(env['DATABASE_URL'] ?? '');
const findings = [
  judgeNode(process.version),
  judgeDisk('the records', await freeBytes(state)),
  judgeDisk('the backups', (await freeBytes(backups)) ?? (await freeBytes(state))),
  judgeClock(await clockKept()),
  ...judgeDatabase(seen.database),
  ...(seen.database === undefined ? [] : judgeBackups(seen.backups, now)),
  judgeCertificate(await certificateUntil(), now),
  ...(await Promise.all(seen.houses.flatMap(devicesOf))),
];
process.stdout.write(`${findingLines(findings).join('\n')}\n`);
process.exitCode = findings.some((f) => f.verdict === 'bad') ? 1 : 0;
