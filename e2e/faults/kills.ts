import { setTimeout as wait } from 'node:timers/promises';
import { type KitchenProcess, signInOver } from '../kitchenProcess.ts';
import { Benches, weighPathOf } from './benches.ts';
import { watchStalls } from './stalls.ts';
import type { Counts } from './table.ts';

/**
 * Four benches weigh and serve; whatever runs is killed without a word, over and over. The server is started again at once, as the supervisor
 * of `serve` does with one that had been running. After each kill: how long until a new weight is taken.
 */
export async function kills(
  kitchen: KitchenProcess,
  untilMs: number,
  most = Number.POSITIVE_INFINITY,
): Promise<Counts> {
  const benches = new Benches(kitchen);
  await benches.start(2);
  const session = await signInOver(kitchen.base, 'Ines Calloway');
  const path = await weighPathOf(session);
  const stalls = watchStalls(() => kitchen.base);
  const took = { server: 0, backend: 0, postgres: 0 };
  const backMs: number[] = [];
  const taken = async (): Promise<boolean> => {
    try {
      const reply = await session.post(
        path,
        {
          kind: 'take',
          pieceId: 'head',
          destination: 'stock',
          massMg: 5,
          source: 'scale',
          replaces: null,
          at: new Date().toISOString(),
        },
        crypto.randomUUID(),
      );
      await reply.arrayBuffer();
      return reply.ok;
    } catch {
      return false;
    }
  };
  for (let n = 0; n < most && Date.now() < untilMs; n += 1) {
    await wait(150 + (n % 7) * 60);
    const began = performance.now();
    if (n % 5 === 4) {
      took.postgres += 1;
      kitchen.killPostgres();
      await wait(250);
      kitchen.db('start');
    } else if (n % 5 === 1 || n % 5 === 3) {
      took.server += 1;
      await kitchen.killServer();
      await kitchen.startServer();
    } else {
      took.backend += 1;
      kitchen.db(
        'psql',
        '-Atc',
        `select pg_terminate_backend(pid) from (select pid from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid() order by random() limit 3) x`,
      );
    }
    while (!(await taken())) await wait(25);
    backMs.push(Math.round(performance.now() - began));
  }
  await benches.stop();
  const stallMs = await stalls.stop();
  return {
    ...took,
    acknowledged: benches.acknowledged.size,
    repeats: benches.repeats,
    ...benches.recount(),
    backMs,
    stallMs,
  };
}
