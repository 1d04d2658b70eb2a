import { randomUUID } from 'node:crypto';
import { setTimeout as wait } from 'node:timers/promises';
import { type KitchenProcess, signInOver } from '../kitchenProcess.ts';
import { Benches } from './benches.ts';
import { watchStalls } from './stalls.ts';
import type { Counts } from './table.ts';

const SCREENS = 100;

/** A hundred screens listen, labels print five hundred at a time and the house is exported over and over; four benches weigh meanwhile. */
export async function load(kitchen: KitchenProcess, seconds: number): Promise<Counts> {
  const session = await signInOver(kitchen.base, 'Maren Ostle');
  const stop = new AbortController();
  const listening = Array.from({ length: SCREENS }, async () => {
    try {
      const reply = await fetch(`${kitchen.base}/api/v1/live`, {
        headers: { cookie: session.cookie },
        signal: stop.signal,
      });
      for await (const _ of reply.body ?? []) if (stop.signal.aborted) break;
    } catch {
      // stopped
    }
  });
  const { lots } = (await session.get('/api/v1/lots?limit=100')) as { lots: { id: string }[] };
  const benches = new Benches(kitchen);
  await benches.start(40);
  const stalls = watchStalls(() => kitchen.base);
  let going = true;
  let labels = 0;
  let exports = 0;
  const printing = (async () => {
    while (going) {
      const copies = Math.floor(500 / lots.length);
      const reply = await fetch(`${kitchen.base}/api/v1/labels`, {
        method: 'POST',
        headers: {
          'content-type': 'application/json',
          origin: kitchen.base,
          cookie: session.cookie,
          'idempotency-key': randomUUID(),
        },
        body: JSON.stringify({ lots: lots.map((l) => ({ lotId: l.id, copies: Math.min(99, copies) })), size: '57x32' }),
      });
      const said = (await reply.json()) as { labels?: number };
      labels += said.labels ?? 0;
      if (said.labels === undefined) await wait(500);
    }
  })();
  const exporting = (async () => {
    while (going) {
      const reply = await fetch(`${kitchen.base}/api/v1/ledger/house.json`, { headers: { cookie: session.cookie } });
      await reply.arrayBuffer();
      if (reply.ok) exports += 1;
      await wait(500);
    }
  })();
  await wait(seconds * 1_000);
  going = false;
  await benches.stop();
  await Promise.all([printing, exporting]);
  const stallMs = await stalls.stop();
  stop.abort();
  await Promise.all(listening);
  return { weighMs: benches.tookMs.map((ms) => Math.round(ms)), labels, exports, stallMs };
}
