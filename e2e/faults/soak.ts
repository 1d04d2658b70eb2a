import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { setTimeout as wait } from 'node:timers/promises';
import { type KitchenProcess, type Session, signInOver } from '../kitchenProcess.ts';
import { weighPathOf } from './benches.ts';
import type { Counts } from './table.ts';

const DEVICES = 50;
const BREAKDOWNS = 10;
const EVERY_MS = 4_000;
const LOOK_MS = 30_000;
const NAMES = ['Ines Calloway', 'Jory Pellam', 'Tobin Arkwell', 'Maren Ostle'] as const;

/** Kilobytes of memory that a process really holds. */
const residentKb = (pid: number): number =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0);

/** Fifty devices at work at a kitchen's pace: each listens, weighs every few seconds and reads what a screen reads. */
export async function soak(kitchen: KitchenProcess, minutes: number): Promise<Counts> {
  const sessions = await Promise.all(NAMES.map((name) => signInOver(kitchen.base, name)));
  const sessionOf = (i: number): Session => sessions[i % sessions.length] as Session;
  const paths = await Promise.all(Array.from({ length: BREAKDOWNS }, (_, i) => weighPathOf(sessionOf(i))));
  const stop = new AbortController();
  let weighed = 0;
  let failed = 0;
  const devices = Array.from({ length: DEVICES }, async (_, i) => {
    const session = sessionOf(i);
    const listening = (async () => {
      try {
        const reply = await fetch(`${kitchen.base}/api/v1/live`, {
          headers: { cookie: session.cookie },
          signal: stop.signal,
        });
        for await (const _ of reply.body ?? []) if (stop.signal.aborted) break;
      } catch {
        // stopped
      }
    })();
    await wait((EVERY_MS / DEVICES) * i);
    for (let n = 0; !stop.signal.aborted; n += 1) {
      const body = {
        kind: 'take',
        pieceId: 'frame',
        destination: 'stock',
        massMg: 1_000,
        source: 'scale',
        replaces: null,
        at: new Date().toISOString(),
      };
      const reply = await session.post(paths[i % BREAKDOWNS] ?? '', body, randomUUID()).catch(() => undefined);
      if (reply?.ok === true) weighed += 1;
      else failed += 1;
      await reply?.arrayBuffer();
      if (n % 3 === 0) await session.get('/api/v1/lots?limit=50');
      if (n % 5 === 0) await session.get('/api/v1/flow');
      // hands are at work: without this the head chef's devices are asked for a PIN after half an hour, as they should be
      if (n % 60 === 59) await session.post('/api/v1/session/here', {}, randomUUID());
      if (n % 40 === 0) await session.get('/api/v1/ledger/breakdowns?limit=20');
      await wait(EVERY_MS, undefined, { signal: stop.signal }).catch(() => undefined);
    }
    await listening;
  });
  const residentMb: number[] = [];
  for (const until = Date.now() + minutes * 60_000; Date.now() < until; ) {
    await wait(LOOK_MS);
    residentMb.push(Math.round(residentKb(kitchen.serverPid) / 102.4) / 10);
  }
  stop.abort();
  await Promise.all(devices);
  return { soakMinutes: minutes, weighed, failed, residentMb };
}
