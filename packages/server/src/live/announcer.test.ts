import { createServer, connect as dial, type Server, type Socket } from 'node:net';
import { setTimeout as wait } from 'node:timers/promises';
import { pino } from 'pino';
import { afterEach, beforeEach, expect, inject, it, vi } from 'vitest';
import { Announcer } from './announcer.ts';

/** PostgreSQL's first byte of a plain query. */
const QUERY = 0x51;

/** A line to PostgreSQL that can be cut, and that can let someone in and cut at the first thing asked. */
let proxy: Server;
const open = new Set<Socket>();
let cutting = false;
let cuts = 0;
let url: string;
const cutAll = (): void => {
  for (const socket of open) socket.destroy();
};
beforeEach(async () => {
  const { port, hostname } = new URL(inject('databaseUrl'));
  proxy = createServer((near) => {
    const far = dial(Number(port), hostname);
    open.add(near);
    for (const socket of [near, far]) socket.on('error', () => undefined);
    near.on('data', (chunk: Buffer) => {
      if (cutting && chunk[0] === QUERY) {
        cuts += 1;
        near.destroy();
      } else far.write(chunk);
    });
    far.on('data', (chunk) => near.write(chunk));
    near.on('close', () => {
      open.delete(near);
      far.destroy();
    });
    far.on('close', () => near.destroy());
  });
  await new Promise<void>((resolve) => proxy.listen(0, '127.0.0.1', resolve));
  const address = proxy.address();
  const near = new URL(inject('databaseUrl'));
  near.port = String(typeof address === 'object' ? address?.port : '');
  url = near.href;
});
afterEach(() => {
  cutAll();
  proxy.close();
});

it('listens over one line after tries that were let in and cut off before they listened', async () => {
  const announcer = new Announcer(url, pino({ level: 'silent' }));
  await announcer.start();
  const heard = vi.fn();
  announcer.subscribe('house', heard);
  expect(open.size).toBe(1);
  cutting = true;
  cutAll();
  await vi.waitFor(() => expect(cuts).toBeGreaterThanOrEqual(2), 30_000);
  cutting = false;
  await vi.waitFor(() => expect(heard).toHaveBeenCalledWith({ event: 'resync', data: {} }), 30_000);
  await wait(1_500); // longer than two retries
  expect(open.size).toBe(1);
  heard.mockClear();
  announcer.announce('house', ['lots']);
  await vi.waitFor(() => expect(heard).toHaveBeenCalledTimes(1), 30_000);
  await announcer.close();
  await vi.waitFor(() => expect(open.size).toBe(0), 30_000);
});
