/** What takes longer than one waits for: a queue on PostgreSQL, one job at a time in each server process, beside everything else. */
import type { AskedJob, JobKind } from '@zabrik/contract';
import PgBoss from 'pg-boss';
import type { Sequelize } from 'sequelize';
import { forHouse, forServer } from '../db/houseScope.ts';
import { select, selectOne } from '../db/select.ts';
import type { GivenFile } from '../http/file.ts';
import { Problem } from '../http/problem.ts';
import type { Services } from '../services.ts';

export interface Making<A = AskedJob> {
  readonly houseId: string;
  readonly asked: A;
  /** Told how far it is, 0 to 1, as often as one likes. */
  readonly tell: (ratio: number) => void;
  /** Aborted when it is called off or the server stops: what computes on a thread (`threads/inThread.ts`) is given it. */
  readonly signal: AbortSignal;
}

/** How a station makes the files it has jobs for. What it throws as a Problem is told to whoever asked. */
export type Makes = {
  readonly [K in JobKind]: (services: Services, making: Making<Extract<AskedJob, { kind: K }>>) => Promise<GivenFile>;
};

const QUEUE = 'job';
const PART_BYTES = 256 * 1_024;
/** How often a process says that it is still at it, and looks whether it was called off. */
const BEAT_MS = 1_000;
/** Nobody has said so for this long: the process is gone, and another takes it up. */
const LOST_MS = 30_000;
const SWEEP_MS = 10_000;
/** A word to the queue may be lost between the commit and the queue. */
const UNHEARD_MS = 5_000;
const TRIES = 3;
/** No file takes longer: what does hangs. */
const LONGEST_HOURS = 12;
/** One process of a database sweeps at a time. */
const ONE_SWEEPER = 7_261_180_944;
/** How long a file is kept, and how long the row that says what came of it. */
export const FILE_HOURS = 24;
const ROW_DAYS = 30;

interface Message {
  readonly houseId: string;
  readonly jobId: string;
}

class CalledOff extends Error {}
class Stopping extends Error {}

/** Statements of the queue's own over our pool: it needs no connections beside them. */
const throughPool = (db: Sequelize): PgBoss.Db => ({
  executeSql: (text, values) =>
    forServer(async () => {
      // what the queue leaves out is null to the database
      const bound = ((values as unknown[] | undefined) ?? []).map((value) => value ?? null);
      const [rows] = await db.query(text, bound.length === 0 ? {} : { bind: bound });
      return { rows: rows as unknown[] };
    }),
});

export class Jobs {
  readonly #makes: Makes;
  #boss: PgBoss | undefined;
  #services: Services | undefined;
  #worker = '';
  #sweeper: NodeJS.Timeout | undefined;
  #stopping = false;
  readonly #ending = new Set<AbortController>();
  #going: Promise<void> = Promise.resolve();

  constructor(makes: Makes) {
    this.#makes = makes;
  }

  /** Takes jobs from now on. Until then what is asked for waits. */
  async start(services: Services): Promise<void> {
    this.#services = services;
    const boss = new PgBoss({ db: throughPool(services.db), schedule: false });
    boss.on('error', (err) => {
      if (!this.#stopping) services.log.warn({ err }, 'the queue of jobs');
    });
    await boss.start();
    await boss.createQueue(QUEUE, { name: QUEUE, retryLimit: 0 });
    this.#worker = await boss.work<Message>(QUEUE, { batchSize: 1, pollingIntervalSeconds: 2 }, async ([job]) => {
      if (job === undefined || this.#stopping) return;
      this.#going = this.#work(services, job.data);
      await this.#going;
    });
    this.#boss = boss;
    const sweep = (): void =>
      void this.sweep().catch((err: unknown) => services.log.warn({ err }, 'jobs could not be looked through'));
    this.#sweeper = setInterval(sweep, SWEEP_MS);
    this.#sweeper.unref();
    sweep();
  }

  /** Something was asked for and is committed. A word that gets lost is made up for by the next sweep. */
  nudge(message: Message): void {
    const boss = this.#boss;
    if (boss === undefined) return;
    void forServer(async () => {
      await boss.send(QUEUE, message, { expireInHours: LONGEST_HOURS });
      boss.notifyWorker(this.#worker);
    }).catch((err: unknown) => this.#services?.log.warn({ err }, 'a job was not put into the queue'));
  }

  /** Done when nothing is being made here. */
  async idle(): Promise<void> {
    await this.#going.catch(() => undefined);
  }

  /** Takes up what a process that is gone has left, says again what nobody heard, and throws away what is old. */
  async sweep(): Promise<void> {
    const services = this.#services;
    if (services === undefined || this.#stopping) return;
    const now = services.clock();
    const before = (ms: number): Date => new Date(now.getTime() - ms);
    const again = await forServer(() =>
      services.db.transaction(async (transaction) => {
        const turn = await selectOne<{ mine: boolean }>(
          services.db,
          'select pg_try_advisory_xact_lock($1) as mine',
          [ONE_SWEEPER],
          transaction,
        );
        if (turn?.mine !== true) return [];
        const run = (sql: string, bind: readonly unknown[]) => services.db.query(sql, { bind: [...bind], transaction });
        await run(
          `update job set state = 'failed', ended_at = $1, why = 'The server stopped while it was made, ${TRIES} times.'
           where state = 'working' and seen_at < $2 and tries >= ${TRIES}`,
          [now, before(LOST_MS)],
        );
        await run(`update job set state = 'waiting' where state = 'working' and seen_at < $1`, [before(LOST_MS)]);
        await run(`delete from job_part p using job j where j.id = p.job_id and j.ended_at < $1`, [
          before(FILE_HOURS * 3_600_000),
        ]);
        await run('delete from job where ended_at < $1', [before(ROW_DAYS * 86_400_000)]);
        return select<Message>(
          services.db,
          `select house_id as "houseId", id as "jobId" from job where state = 'waiting' and at < $1 order by at limit 100`,
          [before(UNHEARD_MS)],
          transaction,
        );
      }),
    );
    for (const message of again) this.nudge(message);
  }

  /** Ends what is being made here, so that another process, or this one started again, takes it up. */
  async stop(): Promise<void> {
    this.#stopping = true;
    for (const ending of this.#ending) ending.abort(new Stopping());
    clearInterval(this.#sweeper);
    await this.#boss?.stop({ graceful: false, wait: false });
    await this.idle();
  }

  async #work(services: Services, { houseId, jobId }: Message): Promise<void> {
    await forHouse(houseId, async () => {
      const { db } = services;
      const change = async (sql: string, bind: readonly unknown[]): Promise<boolean> => {
        const [, meta] = await db.query(sql, { bind: [jobId, ...bind] });
        const { rowCount } = meta as { readonly rowCount: number | null };
        services.announce(houseId, ['jobs'], [jobId]);
        return (rowCount ?? 0) > 0;
      };
      const claimed = await selectOne<{ asked: AskedJob }>(
        db,
        `update job set state = 'working', tries = tries + 1, seen_at = $2, done_ratio = null, bytes = 0 where id = $1 and state = 'waiting' returning asked`,
        [jobId, services.clock()],
      );
      if (claimed === undefined) return;
      await db.query('delete from job_part where job_id = $1', { bind: [jobId] });
      const ending = new AbortController();
      const stopWith = (why: Error): void => ending.abort(why);
      this.#ending.add(ending);
      let ratio: number | null = null;
      let bytes = 0;
      let beating: Promise<void> = Promise.resolve();
      const beat = setInterval(() => {
        beating = change(
          `update job set seen_at = $2, done_ratio = $3, bytes = $4 where id = $1 and state = 'working'`,
          [services.clock(), ratio, bytes],
        ).then(
          (still) => {
            if (!still) stopWith(new CalledOff());
          },
          () => undefined, // the next one tells
        );
      }, BEAT_MS);
      const mayGoOn = (): void => {
        if (this.#stopping) stopWith(new Stopping());
        ending.signal.throwIfAborted();
      };
      try {
        const make = this.#makes[claimed.asked.kind] as (services: Services, making: Making) => Promise<GivenFile>;
        const file = await make(services, {
          houseId,
          asked: claimed.asked,
          tell: (now) => {
            ratio = Math.min(1, Math.max(0, now));
          },
          signal: ending.signal,
        });
        let parts = 0;
        for await (const part of inParts(file.body, mayGoOn)) {
          await db.query('insert into job_part (house_id, job_id, n, bytes) values ($1, $2, $3, $4)', {
            bind: [houseId, jobId, parts, part],
          });
          parts += 1;
          bytes += part.length;
        }
        mayGoOn();
        clearInterval(beat);
        await beating;
        const done = await change(
          `update job set state = 'done', ended_at = $2, done_ratio = 1, bytes = $3, parts = $4, file_name = $5, file_type = $6 where id = $1 and state = 'working'`,
          [services.clock(), bytes, parts, file.name, file.type],
        );
        if (!done) throw new CalledOff();
      } catch (error) {
        clearInterval(beat);
        await beating;
        await db.query('delete from job_part where job_id = $1', { bind: [jobId] }).catch(() => undefined);
        if (error instanceof CalledOff) return;
        if (error instanceof Stopping) {
          await change(`update job set state = 'waiting', tries = tries - 1 where id = $1 and state = 'working'`, []);
          return;
        }
        if (!(error instanceof Problem)) services.log.error({ err: error, jobId }, 'a job broke');
        const why = error instanceof Problem ? error.message : 'Something broke on our side. Ask for it again.';
        await change(`update job set state = 'failed', ended_at = $2, why = $3 where id = $1 and state = 'working'`, [
          services.clock(),
          why,
        ]);
      } finally {
        this.#ending.delete(ending);
        clearInterval(beat);
      }
    });
  }
}

/** A body as bytes, gathered so that a row is neither tiny nor large. `mayGoOn` is asked at each bit that comes and may throw. */
async function* inParts(body: GivenFile['body'], mayGoOn: () => void): AsyncGenerator<Buffer> {
  if (typeof body === 'string' || body instanceof Uint8Array) {
    const whole = Buffer.from(body as string);
    for (let at = 0; at < whole.length; at += PART_BYTES) yield whole.subarray(at, at + PART_BYTES);
    return;
  }
  let waiting: Buffer[] = [];
  let size = 0;
  for await (const text of body) {
    mayGoOn();
    const bytes = Buffer.from(text);
    waiting.push(bytes);
    size += bytes.length;
    if (size < PART_BYTES) continue;
    const all = Buffer.concat(waiting);
    for (let at = 0; at < all.length; at += PART_BYTES) yield all.subarray(at, at + PART_BYTES);
    waiting = [];
    size = 0;
  }
  if (size > 0) yield Buffer.concat(waiting);
}
