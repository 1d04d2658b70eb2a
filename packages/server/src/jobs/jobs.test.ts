import { type AskedJob, api, type Job } from '@zabrik/contract';
import { v7 as uuidv7 } from 'uuid';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import { select } from '../db/select.ts';
import { Problem } from '../http/problem.ts';
import { openTestKitchen, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { must, received } from '../testing/work.ts';
import { Jobs, type Makes } from './jobs.ts';

let kitchen: TestKitchen;
let ines: Tablet;
let maren: Tablet;
beforeAll(async () => {
  kitchen = await openTestKitchen();
  ines = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
  maren = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
  await received(kitchen, ines);
});
afterAll(() => kitchen.stop());

const csv: AskedJob = { kind: 'movements-csv', cells: 'raw' };
const ask = (tablet: Tablet, asked: AskedJob): Promise<Job> => must(tablet, api.jobs.ask, { body: asked });
const jobOf = async (id: string): Promise<Job> => {
  const job = (await must(maren, api.jobs.list, {})).jobs.find((j) => j.id === id);
  if (job === undefined) throw new Error(`no job ${id}`);
  return job;
};
const until = async (id: string, state: Job['state']): Promise<Job> => {
  await vi.waitFor(async () => expect((await jobOf(id)).state).toBe(state), { timeout: 60_000, interval: 100 });
  return jobOf(id);
};
const callOff = (id: string) => must(maren, api.jobs.callOff, { params: { jobId: id }, body: {} });
const file = (tablet: Tablet, id: string) => tablet.raw('get', `/api/v1/jobs/${id}/file`);
const partsOf = (id: string) => select(kitchen.services.db, 'select n from job_part where job_id = $1', [id]);

/** A process that makes what the test says, beside a server that takes no jobs itself. */
let heard: AbortSignal | undefined;
let made: (tell: (ratio: number) => void) => AsyncIterable<string>;
const makes: Makes = {
  'movements-csv': async (_, { tell, signal }) => {
    heard = signal;
    return { type: 'text/csv', name: 'made.csv', body: made(tell) };
  },
  'movements-epcis': () => Promise.reject(new Problem('too_large', 'Choose a shorter time.')),
  'house-file': () => Promise.reject(new Error('a secret of the inside')),
  tables: () => Promise.reject(new Error('not asked for here')),
};
let worker: Jobs;
beforeEach(() => {
  worker = new Jobs(makes);
});
afterEach(async () => {
  await worker.stop();
  kitchen.setClock(undefined);
  await kitchen.services.db.query('delete from job');
});

/** The process begins to take jobs, and hears of these at once, as of what is asked for while it runs. */
const begin = async (...ids: readonly string[]): Promise<void> => {
  await worker.start(kitchen.services);
  for (const jobId of ids) worker.nudge({ houseId: kitchen.home?.houseId ?? '', jobId });
};

/** Something to be let go by the test. */
function gate() {
  let open: () => void = () => undefined;
  const opened = new Promise<void>((done) => {
    open = done;
  });
  return { open: () => open(), opened };
}

describe('a job', () => {
  it('is made beside the work, told how far it is, and fetched', async () => {
    const held = gate();
    made = async function* (tell) {
      yield 'one,';
      tell(0.4);
      await held.opened;
      yield `${'x'.repeat(600_000)},end`;
    };
    const { id, state, by } = await ask(maren, csv);
    expect({ state, by }).toEqual({ state: 'waiting', by: 'Maren Ostle' });
    await begin(id);
    await vi.waitFor(async () => expect((await jobOf(id)).doneRatio).toBe(0.4), { timeout: 60_000, interval: 100 });
    expect(await jobOf(id)).toMatchObject({ state: 'working', file: null });
    expect((await file(maren, id)).status).toBe(410);
    held.open();
    const done = await until(id, 'done');
    const text = `one,${'x'.repeat(600_000)},end`;
    expect(done).toMatchObject({ doneRatio: 1, bytes: text.length, file: { name: 'made.csv' } });
    expect(await partsOf(id)).toHaveLength(3);
    const reply = await file(maren, id);
    expect(reply.body['text']).toBe(text);
    expect(reply.headers.get('content-disposition')).toBe('attachment; filename="made.csv"');
  });

  it('is called off in the middle, and nothing of it stays', async () => {
    const held = gate();
    made = async function* () {
      yield 'x'.repeat(300_000);
      await held.opened;
      for (;;) {
        await new Promise((done) => setTimeout(done, 20));
        yield 'x'.repeat(300_000);
      }
    };
    const { id } = await ask(maren, csv);
    await begin(id);
    await vi.waitFor(async () => expect(await partsOf(id)).not.toHaveLength(0), { timeout: 60_000, interval: 100 });
    expect(await callOff(id)).toMatchObject({ state: 'called-off', file: null });
    held.open();
    await worker.idle();
    expect(await jobOf(id)).toMatchObject({ state: 'called-off' });
    expect(heard?.aborted).toBe(true);
    expect(await partsOf(id)).toEqual([]);
  });

  it('that waits is called off and never made; one that is made is thrown away', async () => {
    const done = vi.fn();
    made = async function* () {
      done();
      yield 'all';
    };
    const [first, second] = [await ask(maren, csv), await ask(maren, csv)];
    await callOff(first.id);
    await begin(first.id, second.id);
    await until(second.id, 'done');
    expect(done).toHaveBeenCalledTimes(1);
    expect((await jobOf(first.id)).state).toBe('called-off');
    await callOff(second.id);
    expect(await jobOf(second.id)).toMatchObject({ state: 'called-off', file: null });
    expect((await file(maren, second.id)).status).toBe(410);
  });

  it('that cannot be made says why; of what breaks inside nothing is told', async () => {
    const [long, broken] = [await ask(maren, { kind: 'movements-epcis' }), await ask(maren, { kind: 'house-file' })];
    await begin(long.id, broken.id);
    expect(await until(long.id, 'failed')).toMatchObject({ why: 'Choose a shorter time.', file: null });
    expect((await until(broken.id, 'failed')).why).toBe('Something broke on our side. Ask for it again.');
  });

  it('is taken up again after its process was stopped in the middle, from its beginning', async () => {
    let begun = 0;
    made = async function* () {
      begun += 1;
      const turn = begun;
      yield 'x'.repeat(300_000);
      for (let n = 0; turn === 1; n += 1) {
        await new Promise((done) => setTimeout(done, 20));
        yield 'y';
        if (n > 3_000) throw new Error('never stopped');
      }
    };
    const { id } = await ask(maren, csv);
    await begin(id);
    await vi.waitFor(() => expect(begun).toBe(1), { timeout: 60_000, interval: 50 });
    const stopping = worker.stop();
    await stopping;
    expect((await jobOf(id)).state).toBe('waiting');
    worker = new Jobs(makes);
    kitchen.setClock(new Date(Date.now() + 6_000));
    await worker.start(kitchen.services);
    expect(await until(id, 'done')).toMatchObject({ bytes: 300_000 });
    expect(begun).toBe(2);
  });

  it('of a process that is gone is taken up by another, three times and no more', async () => {
    made = async function* () {
      yield 'all';
    };
    const [lost, often, fresh] = [await ask(maren, csv), await ask(maren, csv), await ask(maren, csv)];
    const leave = (id: string, tries: number, secondsAgo: number) =>
      kitchen.services.db.query(`update job set state = 'working', tries = $2, seen_at = $3 where id = $1`, {
        bind: [id, tries, new Date(Date.now() - secondsAgo * 1_000)],
      });
    await leave(lost.id, 2, 31);
    await leave(often.id, 3, 31);
    await leave(fresh.id, 1, 20);
    await worker.start(kitchen.services);
    kitchen.setClock(new Date(Date.now() + 6_000));
    await worker.sweep();
    await until(lost.id, 'done');
    expect(await jobOf(often.id)).toMatchObject({
      state: 'failed',
      why: 'The server stopped while it was made, 3 times.',
    });
    expect((await jobOf(fresh.id)).state).toBe('working');
  });

  it('keeps its file for a day and what came of it for thirty', async () => {
    made = async function* () {
      yield 'all';
    };
    const { id } = await ask(maren, csv);
    await begin(id);
    const { endedAt } = await until(id, 'done');
    const hoursLater = async (hours: number) => {
      kitchen.setClock(new Date(Date.parse(endedAt ?? '') + hours * 3_600_000));
      await worker.sweep();
      kitchen.setClock(undefined);
    };
    await hoursLater(23.9);
    expect((await jobOf(id)).file).not.toBeNull();
    await hoursLater(24.1);
    expect(await jobOf(id)).toMatchObject({ state: 'done', file: null });
    expect((await file(maren, id)).body).toMatchObject({ code: 'file_gone' });
    await hoursLater(24 * 30.1);
    await expect(jobOf(id)).rejects.toThrow('no job');
  });
});

describe('who may', () => {
  it('a butcher none; a sous chef the movements; the head chef the house as well', async () => {
    const sous = [...(kitchen.home?.people ?? [])].find(([, actor]) => actor.role === 'sous-chef');
    const tobin = await kitchen.signIn(sous?.[1].personId ?? '');
    expect((await ines.ask(api.jobs.ask, { body: csv })).status).toBe(403);
    const [mine, house] = [await ask(tobin, csv), await ask(maren, { kind: 'house-file' })];
    expect((await tobin.ask(api.jobs.ask, { body: { kind: 'house-file' } })).body).toMatchObject({
      code: 'not_your_role',
    });
    expect((await must(tobin, api.jobs.list, {})).jobs.map((j) => j.id)).toEqual([mine.id]);
    expect((await must(maren, api.jobs.list, {})).jobs.map((j) => j.id)).toEqual([house.id, mine.id]);
    expect((await file(tobin, house.id)).status).toBe(404);
    expect((await tobin.ask(api.jobs.callOff, { params: { jobId: house.id }, body: {} })).status).toBe(404);
  });

  it('nobody of another house', async () => {
    const { id } = await ask(maren, csv);
    const theirs = await kitchen.signIn(kitchen.personOf('Maren Ostle', kitchen.other));
    expect((await must(theirs, api.jobs.list, {})).jobs).toEqual([]);
    expect((await file(theirs, id)).status).toBe(404);
    expect((await theirs.ask(api.jobs.callOff, { params: { jobId: id }, body: {} })).status).toBe(404);
  });

  it('no more than five at once; the same key asks once', async () => {
    const key = uuidv7();
    const first = await must(maren, api.jobs.ask, { body: csv }, key);
    expect((await must(maren, api.jobs.ask, { body: csv }, key)).id).toBe(first.id);
    for (let n = 0; n < 4; n += 1) await ask(maren, csv);
    expect((await maren.ask(api.jobs.ask, { body: csv })).body).toMatchObject({ code: 'too_many_jobs' });
    await callOff(first.id);
    await ask(maren, csv);
  });
});
