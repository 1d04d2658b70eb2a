import { once } from 'node:events';
import { createServer, type Socket } from 'node:net';
import { afterEach, expect, it } from 'vitest';
import { ScaleBridge } from './scaleBridge.ts';

const reading = (g: number): string =>
  `reading n=1 state=steady gross=${g * 1000} tare=0 net=${g * 1000} settled=1 e=1000\n`;

const opened: (() => void)[] = [];
afterEach(() => {
  for (const close of opened.splice(0)) close();
});

/** A scale that does with each command what the test says. */
async function lyingScale(onCommand: (line: string, socket: Socket) => void, onOpen?: (socket: Socket) => void) {
  const sockets = new Set<Socket>();
  const server = createServer((socket) => {
    sockets.add(socket);
    socket.on('error', () => undefined);
    if (onOpen === undefined) socket.write(reading(100));
    else onOpen(socket);
    socket.on('data', (chunk) => {
      for (const line of String(chunk).trim().split('\n')) onCommand(line, socket);
    });
  }).listen(0, '127.0.0.1');
  await once(server, 'listening');
  const address = server.address();
  if (address === null || typeof address === 'string') throw new Error('no port');
  const bridge = new ScaleBridge('bench', '127.0.0.1', address.port);
  opened.push(() => {
    bridge.close();
    server.close();
    for (const socket of sockets) socket.destroy();
  });
  return bridge;
}
const standing = (bridge: ScaleBridge) => expect.poll(() => bridge.latest.state, { timeout: 10_000 }).toBe('steady');

it('a scale that loses one answer is tared again as soon as its line is back, and no answer is taken for another', async () => {
  let asked = 0;
  const bridge = await lyingScale((line, socket) => {
    asked += 1;
    if (asked === 1) return; // lost
    socket.write(line === 'zero' ? 'refused zero load\n' : `done ${line}\n`);
  });
  await standing(bridge);
  const both = await Promise.allSettled([bridge.command('tare'), bridge.command('zero')]);
  // the answer of the second stood where that of the first was due: neither may be believed
  expect(both.map((b) => b.status)).toContain('rejected');
  await standing(bridge);
  expect(await bridge.command('tare')).toEqual({ done: true, why: '' });
  expect(await bridge.command('zero')).toEqual({ done: false, why: 'load' });
});

it('a flood of lines is read at the pace of a scale, and the newest is what the pan says', async () => {
  const flood = `${reading(1).repeat(2_000)}${reading(2)}`;
  let sent = 0;
  const bridge = await lyingScale(
    () => undefined,
    (socket) => {
      const more = (): void => {
        while (!socket.destroyed && socket.write(flood)) sent += flood.length;
        if (!socket.destroyed) socket.once('drain', more);
      };
      more();
    },
  );
  let said = 0;
  bridge.subscribe(() => {
    said += 1;
  });
  await standing(bridge);
  let turns = 0;
  let worst = 0;
  for (let last = performance.now(); turns < 200; turns += 1) {
    await new Promise((resolve) => setTimeout(resolve, 5));
    const now = performance.now();
    worst = Math.max(worst, now - last);
    last = now;
  }
  expect(said).toBeGreaterThan(0);
  expect(said).toBeLessThan(200);
  expect(sent).toBeGreaterThan(0);
});

it('a line without an end is no reading and keeps nothing', async () => {
  const bridge = await lyingScale(
    () => undefined,
    (socket) => {
      socket.write('x'.repeat(2_000_000));
      setTimeout(() => socket.write(`\n${reading(3)}`), 50);
    },
  );
  await standing(bridge);
  expect(bridge.latest.grossMg).toBe(3_000);
});
