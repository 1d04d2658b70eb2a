/**
 * A hundred screens that listen, an office that prints five hundred labels at a time and one that exports the house over and over: in a process
 * of their own, as they are machines of their own, so that what a bench waits for is the server.
 *
 * Forked with the server's address as its argument. Says `ready`, works until it is told anything, then says what it did and ends.
 */
import { randomUUID } from 'node:crypto';
import { setTimeout as wait } from 'node:timers/promises';
import { PATIENT_MS, signInOver } from '../kitchenProcess.ts';

const SCREENS = 100;

export interface CrowdDid {
  readonly labels: number;
  readonly exports: number;
}

const base = process.argv[2] ?? '';
const session = await signInOver(base, 'Maren Ostle');
const stop = new AbortController();
const listening = Array.from({ length: SCREENS }, async () => {
  try {
    const reply = await fetch(`${base}/api/v1/live`, { headers: { cookie: session.cookie }, signal: stop.signal });
    for await (const _ of reply.body ?? []) if (stop.signal.aborted) break;
  } catch {
    // stopped
  }
});
const { lots } = (await session.get('/api/v1/lots?limit=100')) as { lots: { id: string }[] };
let going = true;
let labels = 0;
let exports = 0;
const printing = async (): Promise<void> => {
  while (going) {
    const copies = Math.floor(500 / lots.length);
    const reply = await fetch(`${base}/api/v1/labels`, {
      method: 'POST',
      headers: {
        'content-type': 'application/json',
        origin: base,
        cookie: session.cookie,
        'idempotency-key': randomUUID(),
      },
      body: JSON.stringify({ lots: lots.map((l) => ({ lotId: l.id, copies: Math.min(99, copies) })), size: '57x32' }),
    });
    const said = (await reply.json()) as { labels?: number };
    labels += said.labels ?? 0;
    if (said.labels === undefined) await wait(500);
  }
};
const exporting = async (): Promise<void> => {
  while (going) {
    const { id } = await (await session.post('/api/v1/jobs', { kind: 'house-file' }, randomUUID(), PATIENT_MS)).json();
    for (let state = 'waiting'; state === 'waiting' || state === 'working'; ) {
      await wait(200);
      const { jobs } = (await session.get('/api/v1/jobs')) as { jobs: { id: string; state: string }[] };
      state = jobs.find((j) => j.id === id)?.state ?? 'gone';
    }
    const reply = await fetch(`${base}/api/v1/jobs/${id}/file`, { headers: { cookie: session.cookie } });
    await reply.arrayBuffer();
    if (reply.ok) exports += 1;
  }
};
process.once('message', () => {
  going = false;
});
process.send?.('ready');
await Promise.all([printing(), exporting()]);
stop.abort();
await Promise.all(listening);
process.send?.({ labels, exports } satisfies CrowdDid);
process.disconnect();
