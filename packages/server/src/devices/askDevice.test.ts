import { once } from 'node:events';
import { type AddressInfo, createServer, type Socket } from 'node:net';
import { afterEach, expect, it } from 'vitest';
import { type DeviceAddress, print, printedJobs, readProbe } from './askDevice.ts';

const closing: (() => void)[] = [];
afterEach(() => {
  for (const close of closing.splice(0)) close();
});

/** A device that does this with whoever asks. */
async function device(onAsked: (socket: Socket) => void): Promise<DeviceAddress> {
  const sockets = new Set<Socket>();
  const server = createServer((socket) => {
    sockets.add(socket);
    socket.on('error', () => undefined);
    socket.once('data', () => onAsked(socket));
  }).listen(0, '127.0.0.1');
  await once(server, 'listening');
  closing.push(() => {
    server.close();
    for (const socket of sockets) socket.destroy();
  });
  return { host: '127.0.0.1', port: (server.address() as AddressInfo).port };
}

const dripping = (what: string, everyMs: number) => (socket: Socket) => {
  const drip = setInterval(() => socket.write(what), everyMs);
  socket.on('close', () => clearInterval(drip));
};
/** The longest that anything may be asked of a device, and some. */
const PATIENT_MS = 14_000;

it('a probe that says a byte at a time is away after its time, not for ever', async () => {
  const began = performance.now();
  expect(await readProbe(await device(dripping('p', 200)))).toMatchObject({ state: 'away', centiC: null });
  expect(performance.now() - began).toBeLessThan(PATIENT_MS);
});

it('a probe whose line has no end is away at once, however fast it talks', async () => {
  const flood = await device((socket) => {
    const more = (): void => {
      while (!socket.destroyed && socket.write('x'.repeat(64_000)));
      if (!socket.destroyed) socket.once('drain', more);
    };
    more();
  });
  const before = process.memoryUsage().rss;
  expect(await readProbe(flood)).toMatchObject({ state: 'away' });
  expect(process.memoryUsage().rss - before).toBeLessThan(100_000_000);
});

it('a printer that drips, one that hangs up, and one that is not there print nothing and say so', async () => {
  const pdf = new Uint8Array(10);
  await expect(print(await device(dripping('d', 300)), 'x', 1, pdf)).rejects.toMatchObject({ code: 'printer_away' });
  await expect(print(await device((s) => s.destroy()), 'x', 1, pdf)).rejects.toMatchObject({ code: 'printer_away' });
  await expect(print({ host: '127.0.0.1', port: 1 }, 'x', 1, pdf)).rejects.toMatchObject({ code: 'printer_away' });
  expect(await printedJobs({ host: '127.0.0.1', port: 1 })).toEqual([]);
  const honest = await device((s) => s.end('done 7\n'));
  expect(await print(honest, 'x', 1, pdf)).toBe('7');
});
