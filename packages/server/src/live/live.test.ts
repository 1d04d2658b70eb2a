import { api, type ScaleReading } from '@zabrik/contract';
import { grams } from '@zabrik/core';
import { startSimulatedScale } from '@zabrik/devices';
import pg from 'pg';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { select } from '../db/select.ts';
import { openTestKitchen, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { must, received, startHake, takeBody } from '../testing/work.ts';

let scale: Awaited<ReturnType<typeof startSimulatedScale>>;
let one: TestKitchen;
let two: TestKitchen;
let ines: Tablet;
beforeAll(async () => {
  scale = await startSimulatedScale({
    host: '127.0.0.1',
    port: 0,
    intervalMg: 1_000,
    maxMg: 15_000_000,
    lagMs: 15,
    restMs: 60,
    normal: () => 0.3,
  });
  one = await openTestKitchen({ scale: `127.0.0.1:${scale.port}` });
  two = await openTestKitchen({ databaseUrl: one.databaseUrl });
  ines = await one.signIn(one.personOf('Ines Calloway'));
});
afterAll(async () => {
  await one.stop();
  await two.stop();
  await scale.stop();
});

interface Heard {
  readonly event: string;
  readonly data: unknown;
}

/** Listens until `enough` says so. */
async function listen(
  base: string,
  cookie: string,
  act: () => Promise<unknown>,
  enough: (heard: readonly Heard[]) => boolean,
): Promise<Heard[]> {
  const stop = new AbortController();
  const response = await fetch(`${base}/api/v1/live`, { headers: { cookie }, signal: stop.signal });
  expect(response.headers.get('content-type')).toContain('text/event-stream');
  const heard: Heard[] = [];
  const late = setTimeout(() => stop.abort(), 60_000);
  const decoder = new TextDecoder();
  let rest = '';
  let acted = false;
  try {
    for await (const chunk of response.body ?? []) {
      const blocks = (rest + decoder.decode(chunk as Uint8Array, { stream: true })).split('\n\n');
      rest = blocks.pop() ?? '';
      for (const block of blocks) {
        const event = /^event: (.*)$/m.exec(block)?.[1];
        const data = /^data: (.*)$/m.exec(block)?.[1];
        if (event !== undefined && data !== undefined) heard.push({ event, data: JSON.parse(data) });
      }
      if (!acted) {
        acted = true;
        await act();
      }
      if (enough(heard)) break;
    }
  } catch (error) {
    if (!stop.signal.aborted) throw error;
  }
  clearTimeout(late);
  stop.abort();
  return heard;
}

describe('the live stream', () => {
  it('tells a screen on another server process of a weighing', async () => {
    const { breakdown } = await startHake(one, ines);
    const heard = await listen(
      two.base,
      ines.cookie, // the session is in the database: any process knows it
      async () => {
        await must(ines, api.bench.weigh, {
          params: { breakdownId: breakdown.id },
          body: takeBody('head', 'stock', 500),
        });
      },
      (all) => all.some((h) => h.event === 'changed' && JSON.stringify(h.data).includes(breakdown.id)),
    );
    const told = heard.find((h) => h.event === 'changed' && JSON.stringify(h.data).includes(breakdown.id));
    expect(told?.data).toEqual({ topics: ['breakdowns'], ids: [breakdown.id] });
  });

  it('tells nobody in another house', async () => {
    const theirs = await one.signIn(one.personOf('Ines Calloway', one.other));
    const { breakdown } = await startHake(one, ines);
    const heard = await listen(
      one.base,
      theirs.cookie,
      async () => {
        await must(ines, api.bench.weigh, {
          params: { breakdownId: breakdown.id },
          body: takeBody('head', 'stock', 500),
        });
        // something of their own comes after it: what was to be heard before has been heard by then
        await received(one, theirs, {}, one.other);
      },
      (all) => all.some((h) => h.event === 'changed'),
    );
    expect(JSON.stringify(heard)).not.toContain(breakdown.id);
    expect(JSON.stringify(heard)).not.toContain('breakdowns');
  });

  it('needs someone signed in', async () => {
    expect((await fetch(`${one.base}/api/v1/live`)).status).toBe(401);
  });
});

describe('the bench scale', () => {
  const steadyAt = (massMg: number) => (all: readonly Heard[]) =>
    all.some(
      (h) =>
        h.event === 'scale' &&
        (h.data as ScaleReading).state === 'steady' &&
        (h.data as ScaleReading).grossMg === massMg,
    );

  it('comes to rest on what is put on it, and is tared and zeroed through the app', async () => {
    const heard = await listen(
      one.base,
      ines.cookie,
      () => must(ines, api.simulation.pan, { body: { what: 'load', massMg: grams(412) } }),
      steadyAt(grams(412)),
    );
    expect(steadyAt(grams(412))(heard)).toBe(true);
    await must(ines, api.bench.scaleCommand, { body: { command: 'tare' } });
    const tared = await listen(
      one.base,
      ines.cookie,
      () => must(ines, api.simulation.pan, { body: { what: 'load', massMg: grams(1_080) } }),
      steadyAt(grams(1_080)),
    );
    expect(tared.at(-1)?.data).toMatchObject({ netMg: grams(668), tareMg: grams(412), state: 'steady' });
    await must(ines, api.bench.scaleCommand, { body: { command: 'untare' } });
    expect(await ines.ask(api.bench.scaleCommand, { body: { command: 'zero' } })).toMatchObject({
      status: 503,
      body: { detail: expect.stringContaining('Too much') },
    });
  });

  it('gives the same hidden piece each time, and pieces that add up to the fish', async () => {
    const { breakdown } = await startHake(one, ines);
    const piece = (pieceId: string, unit = 0) =>
      must(ines, api.simulation.pan, { body: { what: 'piece', breakdownId: breakdown.id, pieceId, unit } });
    expect(await piece('head')).toEqual(await piece('head'));
    let sum = 0;
    for (const p of breakdown.plan.stages[0]?.pieces ?? [])
      for (let unit = 0; unit < p.count; unit += 1) sum += (await piece(p.id, unit)).massMg;
    expect(sum).toBeLessThanOrEqual(breakdown.startMg);
    expect(sum).toBeGreaterThan(breakdown.startMg * 0.93);
  });

  it('is said to be away when it is gone, and the app goes on', async () => {
    const bridge = one.services.devicesOf(one.home?.houseId ?? '').scales.get('bench');
    await scale.stop();
    await expect.poll(() => bridge?.latest.state, { timeout: 6_000 }).toBe('away');
    expect(await ines.ask(api.bench.scaleCommand, { body: { command: 'tare' } })).toMatchObject({
      status: 503,
      body: { code: 'scale_away' },
    });
    scale = await startSimulatedScale({
      host: '127.0.0.1',
      port: scale.port,
      intervalMg: 1_000,
      maxMg: 15_000_000,
      lagMs: 15,
      restMs: 60,
      normal: () => 0,
    });
    await expect.poll(() => bridge?.latest.state, { timeout: 6_000 }).toBe('steady');
  });
});

it('a line ends with its session', async () => {
  const jory = await one.signIn(one.personOf('Jory Pellam'));
  const response = await fetch(`${one.base}/api/v1/live`, { headers: { cookie: jory.cookie } });
  await must(jory, api.access.signOut, {});
  // ends by itself: were it open, this would never be done
  let read = '';
  for await (const chunk of response.body ?? []) read += new TextDecoder().decode(chunk as Uint8Array);
  expect(read).toContain('event: resync');
});

it('one line listens, however often the database was gone and however it went', async () => {
  const listening = () =>
    select<{ n: number }>(
      one.services.db,
      `select count(*)::int as n from pg_stat_activity where datname = current_database() and application_name = 'zabrik live'`,
      [],
    );
  expect((await listening())[0]?.n).toBe(2); // two servers, one line each
  const admin = new pg.Client({ connectionString: inject('databaseUrl') });
  await admin.connect();
  const name = new URL(one.databaseUrl).pathname.slice(1);
  // ended again and again for longer than a few retries, so that some fail half-way
  for (const until = Date.now() + 4_000; Date.now() < until; )
    await admin.query('select pg_terminate_backend(pid) from pg_stat_activity where datname = $1', [name]);
  await admin.end();
  await expect.poll(async () => (await listening().catch(() => []))[0]?.n, { timeout: 30_000 }).toBe(2);
  await new Promise((resolve) => setTimeout(resolve, 1_500));
  expect((await listening())[0]?.n).toBe(2);
});

it('the devices stand in one house: another on the same machine sees no scale, no probe and no printed label of it', async () => {
  const theirs = await one.signIn(one.personOf('Ines Calloway', one.other));
  expect(await theirs.ask(api.bench.scaleCommand, { body: { scale: 'bench', command: 'tare' } })).toMatchObject({
    status: 503,
    body: { code: 'scale_away' },
  });
  expect(await must(theirs, api.larder.printed, {})).toMatchObject({ jobs: [] });
  expect(await must(theirs, api.receive.probe, {})).toMatchObject({ state: 'away' });
  expect(await theirs.raw('get', '/api/v1/labels/printed/1')).toMatchObject({ status: 503 });
});
