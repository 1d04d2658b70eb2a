/** What the records themselves know of their backups: the server shows it, on whatever machine it runs. */
import type pg from 'pg';
import { v7 as uuidv7 } from 'uuid';
import type { Kept } from './makeBackup.ts';

export async function recordDump(client: pg.Client, kept: Kept): Promise<void> {
  await client.query(
    `insert into backup (name, kind, at, bytes, sha256, second, second_why) values ($1, 'dump', $2, $3, $4, $5, $6) on conflict do nothing`,
    [kept.name, kept.at, kept.bytes, kept.sha256, kept.second, kept.secondWhy],
  );
}

export async function recordBase(client: pg.Client, base: { name: string; at: Date; bytes: number }): Promise<void> {
  await client.query(`insert into backup (name, kind, at, bytes) values ($1, 'base', $2, $3) on conflict do nothing`, [
    base.name,
    base.at,
    base.bytes,
  ]);
}

/** What came of bringing it back for a rehearsal: null when all of it stood there. */
export async function recordTry(client: pg.Client, name: string, at: Date, why: string | null): Promise<void> {
  await client.query('update backup set tried_at = $2, tried_why = $3 where name = $1', [name, at, why]);
}

/** The records were brought back as they stood then. Nobody is signed in, and every tablet will ask itself what it knows beyond that. */
export async function recordRestored(client: pg.Client, at: Date, stateAt: Date): Promise<void> {
  await client.query('delete from session');
  await client.query('insert into restored (id, at, state_at) values ($1, $2, $3)', [uuidv7(), at, stateAt]);
}
