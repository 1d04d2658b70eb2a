import { appendFileSync, mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import pg from 'pg';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openTestKitchen, type TestKitchen } from '../testing/openTestKitchen.ts';
import { closedHake } from '../testing/work.ts';
import { baseBefore } from './base.ts';
import { differing, readFacts, wrongInside } from './facts.ts';
import { checkBackup, makeBackup, nameAt, writeBackup } from './makeBackup.ts';
import { isDue } from './nightly.ts';
import { runOn } from './postgresProgram.ts';
import { toKeep } from './retention.ts';
import { tryBackup } from './tryBackup.ts';

const DAY = 86_400_000;
const ROOT = new URL('../../../..', import.meta.url).pathname;
const folder = (): string => mkdtempSync(join(tmpdir(), 'zabrik-backup-'));
const at = new Date('2026-11-29T03:00:00Z');

describe('what is kept', () => {
  const nights = (n: number): Date[] => Array.from({ length: n }, (_, i) => new Date(at.getTime() - i * DAY));

  it('of two years of nights: seven days, five weeks, twelve months', () => {
    const kept = toKeep(nights(730), at).map((d) => Math.round((at.getTime() - d.getTime()) / DAY));
    expect(kept.slice(0, 8)).toEqual([0, 1, 2, 3, 4, 5, 6, 7]);
    // Sundays, then the last day of each month
    expect(kept.slice(8, 13)).toEqual([14, 21, 28, 29, 35]);
    expect(kept.at(-1)).toBeGreaterThan(330);
    expect(kept.length).toBeLessThanOrEqual(8 + 6 + 12);
  });

  it('is never nothing, keeps every night of the last week, and does not depend on the order', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 0, max: 2_000 }), { minLength: 1 }), (ages) => {
        const all = ages.map((age) => new Date(at.getTime() - age * DAY));
        const kept = toKeep(all, at);
        expect(kept.length).toBeGreaterThan(0);
        expect(toKeep([...all].reverse(), at)).toEqual(kept);
        for (const date of all) if (at.getTime() - date.getTime() <= 7 * DAY) expect(kept).toContain(date);
        // what was kept stays kept until it is too old: a second look on the same night removes nothing
        expect(toKeep(kept, at)).toEqual(kept);
      }),
    );
  });

  it('is due in the quiet hour, and at once after a night switched off', () => {
    const quiet = new Date(2026, 10, 29, 3, 10);
    const ago = (hours: number): Date => new Date(quiet.getTime() - hours * 3_600_000);
    expect(isDue(undefined, quiet, 3)).toBe(true);
    expect(isDue(ago(24), quiet, 3)).toBe(true);
    expect(isDue(ago(0.1), quiet, 3)).toBe(false);
    expect(isDue(ago(24), quiet, 4)).toBe(false);
    expect(isDue(ago(27), quiet, 4)).toBe(true);
  });

  it('a moment is reached from the newest base that was whole by then', () => {
    const bases = [5, 3, 1].map((day) => ({ name: `b${day}`, at: new Date(`2026-11-0${day}T03:00:00Z`), from: '' }));
    expect(baseBefore(bases, new Date('2026-11-04T00:00:00Z'))?.name).toBe('b3');
    expect(baseBefore(bases, new Date('2026-11-03T03:00:00Z'))?.name).toBe('b3');
    expect(baseBefore(bases, new Date('2026-11-01T02:59:59Z'))).toBeUndefined();
  });
});

describe('a backup', () => {
  let kitchen: TestKitchen;
  beforeAll(async () => {
    kitchen = await openTestKitchen();
    await closedHake(kitchen, await kitchen.signIn(kitchen.personOf('Ines Calloway')));
  });
  afterAll(() => kitchen.stop());

  it('holds all of it but who is signed in, is what it says, and is found out when a byte changes', async () => {
    const dir = folder();
    const kept = await makeBackup(kitchen.databaseUrl, dir, undefined, at);
    const file = join(dir, kept.name);
    const manifest = await checkBackup(file);
    expect(manifest).toMatchObject({ sha256: kept.sha256, bytes: kept.bytes });
    expect(manifest?.facts['posting']?.rows).toBeGreaterThan(5);
    expect(manifest?.facts).not.toHaveProperty('session');
    expect(readFileSync(file).includes('connect.sid')).toBe(false);
    const changed = readFileSync(file);
    changed[Math.floor(changed.length / 2)] = (changed[Math.floor(changed.length / 2)] ?? 0) ^ 1;
    writeFileSync(file, changed);
    await expect(checkBackup(file)).rejects.toThrow('checksum differs');
    appendFileSync(file, 'x');
    await expect(checkBackup(file)).rejects.toThrow('cut short or changed');
    await expect(tryBackup(ROOT, file)).rejects.toThrow('cut short or changed');
    writeFileSync(`${file}.json`, '{');
    await expect(checkBackup(file)).rejects.toThrow('cannot be read');
  });

  it('lies in a second place too, or it is said in words why not', async () => {
    const [dir, second] = [folder(), folder()];
    const there = await makeBackup(kitchen.databaseUrl, dir, second, at);
    expect(there).toMatchObject({ second: 'kept', secondWhy: null });
    expect(await checkBackup(join(second, there.name))).toMatchObject({ sha256: there.sha256 });
    const unplugged = join(second, 'unplugged');
    const later = new Date(at.getTime() + 1_000);
    expect(await makeBackup(kitchen.databaseUrl, dir, unplugged, later)).toMatchObject({
      second: 'failed',
      secondWhy: `${unplugged} is not there`,
    });
  });

  it('that cannot be made leaves nothing behind', async () => {
    const dir = folder();
    const nowhere = new URL(kitchen.databaseUrl);
    nowhere.pathname = '/not_there';
    await expect(writeBackup(nowhere.toString(), join(dir, nameAt(at)), at)).rejects.toThrow();
    expect(readdirSync(dir)).toEqual([]);
    // what a program says of its failure has no password in it
    const failed = await runOn(kitchen.databaseUrl, 'pg_dump', ['--no-such-thing']).catch((e: Error) => e.message);
    expect(failed).toContain('pg_dump');
    expect(failed).not.toContain(new URL(kitchen.databaseUrl).password);
  });

  it('is brought back for a rehearsal, and one table that differs is named', async () => {
    const dir = folder();
    const { name } = await makeBackup(kitchen.databaseUrl, dir, undefined, at);
    const file = join(dir, name);
    expect((await tryBackup(ROOT, file)).rows).toBeGreaterThan(50);
    const manifest = JSON.parse(readFileSync(`${file}.json`, 'utf8')) as { facts: { lot: { sum: string } } };
    manifest.facts.lot.sum = '1';
    writeFileSync(`${file}.json`, JSON.stringify(manifest));
    await expect(tryBackup(ROOT, file)).rejects.toThrow('lot is not what was kept');
  });

  it('a balance that is not that of its postings is seen, and so is any row that changed', async () => {
    const client = new pg.Client({ connectionString: kitchen.databaseUrl });
    await client.connect();
    const before = await readFacts(client);
    expect(await wrongInside(client)).toEqual([]);
    await client.query('begin');
    await client.query('update lot_balance set mass_mg = mass_mg + 1 where mass_mg > 0');
    expect((await wrongInside(client)).join()).toContain('balances');
    expect(differing(before, await readFacts(client))).toEqual(['lot_balance']);
    await client.query('rollback');
    expect(differing(before, await readFacts(client))).toEqual([]);
    await client.end();
  });
});
