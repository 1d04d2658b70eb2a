/** Weighings over HTTP, as 20 benches send them, against a bare INSERT on the same cluster. */
import { randomUUID } from 'node:crypto';
import { Agent, request } from 'node:http';
import { setTimeout as wait } from 'node:timers/promises';
import pg from 'pg';

export interface Load {
  readonly perSecond: number;
  readonly p50: number;
  readonly p99: number;
  readonly count: number;
}

const percentile = (sorted: readonly number[], p: number): number =>
  sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * p))] ?? Number.NaN;

/** Runs `benches` loops of `once` for `seconds` and says how fast they went, milliseconds. */
async function drive(
  benches: number,
  seconds: number,
  once: (bench: number) => Promise<void>,
  everyMs = 0,
): Promise<Load> {
  const times: number[] = [];
  const start = performance.now();
  const end = start + seconds * 1_000;
  await Promise.all(
    Array.from({ length: benches }, async (_, bench) => {
      while (performance.now() < end) {
        const before = performance.now();
        await once(bench);
        times.push(performance.now() - before);
        if (everyMs > 0) await wait(Math.random() * 2 * everyMs);
      }
    }),
  );
  const took = (performance.now() - start) / 1_000;
  times.sort((a, b) => a - b);
  return {
    perSecond: times.length / took,
    p50: percentile(times, 0.5),
    p99: percentile(times, 0.99),
    count: times.length,
  };
}

/** BEGIN; one INSERT of a row like a weighing; COMMIT, from `benches` connections. */
export async function bareInserts(databaseUrl: string, benches: number, seconds: number): Promise<Load> {
  const clients = await Promise.all(
    Array.from({ length: benches }, async () => {
      const client = new pg.Client({ connectionString: databaseUrl });
      await client.connect();
      return client;
    }),
  );
  await clients[0]?.query(`create table if not exists bare_row (id uuid primary key, breakdown_id uuid not null, piece_id text, destination text,
    mass_mg bigint, source text, replaces uuid unique, person_id uuid, at timestamptz, recorded_at timestamptz default now())`);
  const breakdownId = randomUUID();
  const load = await drive(benches, seconds, async (bench) => {
    const client = clients[bench];
    await client?.query('begin');
    await client?.query(
      'insert into bare_row (id, breakdown_id, piece_id, destination, mass_mg, source, replaces, person_id, at) values ($1, $2, $3, $4, $5, $6, $7, $8, $9)',
      [randomUUID(), breakdownId, 'frame', 'stock', 1_000, 'scale', null, breakdownId, new Date()],
    );
    await client?.query('commit');
  });
  await Promise.all(clients.map((client) => client.end()));
  return load;
}

export interface BenchSeat {
  readonly cookie: string;
  readonly breakdownId: string;
}

/** One weighing after another from each seat, each acknowledged before the next; `everyMs` apart on average, or flat out. */
export function weighings(port: number, seats: readonly BenchSeat[], seconds: number, everyMs = 0): Promise<Load> {
  const agent = new Agent({ keepAlive: true, maxSockets: seats.length });
  const once = (bench: number): Promise<void> =>
    new Promise((resolve, reject) => {
      const seat = seats[bench];
      if (seat === undefined) return reject(new Error('no such bench'));
      const body = JSON.stringify({
        kind: 'take',
        pieceId: 'frame',
        destination: 'stock',
        massMg: 1_000,
        source: 'scale',
        replaces: null,
        at: new Date().toISOString(),
      });
      const sent = request(
        {
          agent,
          host: '127.0.0.1',
          port,
          method: 'POST',
          path: `/api/v1/breakdowns/${seat.breakdownId}/weighings`,
          headers: {
            'content-type': 'application/json',
            'content-length': Buffer.byteLength(body),
            origin: `http://127.0.0.1:${port}`,
            cookie: seat.cookie,
            'idempotency-key': randomUUID(),
          },
        },
        (response) => {
          response.resume();
          response.once('end', () =>
            response.statusCode === 200 ? resolve() : reject(new Error(`answered ${response.statusCode}`)),
          );
        },
      );
      sent.once('error', reject);
      sent.end(body);
    });
  return drive(seats.length, seconds, once, everyMs).finally(() => agent.destroy());
}
