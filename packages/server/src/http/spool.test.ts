import { readlinkSync } from 'node:fs';
import { connect as connectTcp, type Socket } from 'node:net';
import { api } from '@zabrik/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { select } from '../db/select.ts';
import { openTestKitchen, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { must, received } from '../testing/work.ts';
import { spool } from './spool.ts';

let kitchen: TestKitchen;
let maren: Tablet;
beforeAll(async () => {
  kitchen = await openTestKitchen();
  maren = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
});
afterAll(() => kitchen.stop());

const open = (): Promise<readonly { n: number }[]> =>
  select(
    kitchen.services.db,
    `select count(*)::int as n from pg_stat_activity where datname = current_database() and state like 'idle in transaction%'`,
    [],
  );

describe('a long download', () => {
  it('that nobody reads keeps no transaction open and no bench waiting', async () => {
    // 12 MB, far more than a connection holds on its way
    await kitchen.services.db.query(
      `insert into command (id, keyed_at, house_id, endpoint, fingerprint, answer, person_id, at) select k, time_in(k), $1, 'x', 'x', jsonb_build_object('x', (select string_agg(md5(random()::text), '') from generate_series(1, 120) where i > 0)), $2, now()
       from (select gen_random_uuid() as k from generate_series(1, 3000)) keys, lateral (select 1 as i) one`,
      { bind: [kitchen.home?.houseId, kitchen.personOf('Maren Ostle')] },
    );
    await kitchen.startJobs();
    const { id } = await must(maren, api.jobs.ask, { body: { kind: 'house-file' } });
    await expect
      .poll(async () => (await must(maren, api.jobs.list, {})).jobs[0]?.state, { timeout: 60_000, interval: 200 })
      .toBe('done');
    const { host, port, hostname } = new URL(kitchen.base);
    const stalled = await Promise.all(
      Array.from(
        { length: 25 },
        () =>
          new Promise<Socket>((resolve, reject) => {
            const socket = connectTcp(Number(port), hostname);
            socket.once('error', reject);
            socket.write(
              `GET /api/v1/jobs/${id}/file HTTP/1.1\r\nHost: ${host}\r\nCookie: ${maren.cookie}\r\nAccept-Encoding: identity\r\n\r\n`,
            );
            socket.once('data', () => {
              socket.pause();
              resolve(socket);
            });
          }),
      ),
    );
    await expect.poll(async () => (await open())[0]?.n).toBe(0);
    await received(kitchen, maren);
    expect((await must(maren, api.larder.list, { query: {} })).lots.length).toBeGreaterThan(0);
    for (const socket of stalled) socket.destroy();
  });

  it('is an answer of its own when it breaks in the making, and never half a file', async () => {
    await expect(
      spool(
        (async function* () {
          yield 'half';
          throw new Error('broke');
        })(),
      ),
    ).rejects.toThrow('broke');
    let text = '';
    const file = await spool(
      (async function* () {
        yield 'one ';
        yield 'two – drei';
      })(),
    );
    // whatever happens to the server now, nothing of it lies about
    expect(readlinkSync(`/proc/self/fd/${(file as unknown as { fd: number }).fd}`)).toMatch(/ \(deleted\)$/);
    for await (const part of file) text += String(part);
    expect(text).toBe('one two – drei');
  });
});
