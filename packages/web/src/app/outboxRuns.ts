/**
 * Randomised runs of the outbox against a network that fails in every way it can: before the server, after it, with 503, for a
 * while, and with the page reloaded in the middle. Used by the test in a short form and by the benchmark in a long one.
 */

import type { Random } from '@zabrik/core/simulator';
import { api } from './endpoints.ts';

type Outbox = typeof import('./outbox.ts');

export interface RunResult {
  /** Commands the server has applied, in the order it first saw them. */
  readonly applied: readonly string[];
  /** Commands kept, in the order they were made. */
  readonly kept: readonly string[];
  /** How often the server got a command it already had. */
  readonly repeats: number;
}

interface Settings {
  readonly random: Random;
  readonly commands: number;
  /** A fresh instance of the module over the same database: what a reload is. */
  readonly open: () => Promise<Outbox>;
  readonly sleep: (ms: number) => Promise<void>;
  readonly patienceMs: number;
}

/** One run: keeps commands at random moments over a random network, then lets the network come back and waits for the end. */
export async function outboxRun({ random, commands, open, sleep, patienceMs }: Settings): Promise<RunResult> {
  const applied: string[] = [];
  const seen = new Set<string>();
  let repeats = 0;
  // instances of an earlier run may still be about: what they send is not of this one
  const name = `run-${random.whole(0, 1_000_000_000)}-`;
  let online = random.next() < 0.5;
  let faults = true;
  const apply = (key: string): void => {
    if (!key.startsWith(name)) return;
    if (seen.has(key)) repeats += 1;
    else applied.push(key);
    seen.add(key);
  };
  globalThis.fetch = (async (_url: string, init: RequestInit): Promise<Response> => {
    await sleep(random.whole(0, 2));
    const key = new Headers(init.headers).get('idempotency-key') ?? '';
    if (!online) throw new TypeError('no network');
    const fate = faults ? random.next() : 1;
    if (fate < 0.1) throw new TypeError('lost on the way');
    if (fate < 0.18) return new Response('{}', { status: 503 });
    apply(key);
    if (fate < 0.3) throw new TypeError('the answer was lost');
    return new Response(JSON.stringify({ id: key }), { status: 200 });
  }) as typeof fetch;

  let outbox = await open();
  const kept: string[] = [];
  for (let i = 0; i < commands; i += 1) {
    const key = `${name}${i}`;
    await outbox.keep(
      api.bench.weigh,
      { params: { breakdownId: 'b' }, body: { i } as never },
      { key, says: `weight ${i}` },
    );
    kept.push(key);
    if (random.next() < 0.25) online = !online;
    if (random.next() < 0.12) outbox = await open();
    if (random.next() < 0.3) await sleep(random.whole(0, 4));
  }
  online = true;
  faults = false;
  outbox = await open();
  outbox.drain();
  for (let waited = 0; seen.size < kept.length && waited < patienceMs; waited += 5) await sleep(5);
  return { applied, kept, repeats };
}
