import { randomUUID } from 'node:crypto';
import { once } from 'node:events';
import { type AddressInfo, createServer, type Server, type Socket } from 'node:net';
import { setTimeout as wait } from 'node:timers/promises';
import { type KitchenProcess, NEVER_MS, type Session, signInOver } from '../kitchenProcess.ts';
import { Benches } from './benches.ts';
import { watchStalls } from './stalls.ts';
import type { Counts } from './table.ts';

const READING = 'reading n=1 state=steady gross=412000 tare=0 net=412000 settled=1 e=1000\n';

async function device(
  onConnect: (socket: Socket) => void,
): Promise<{ readonly address: string; readonly server: Server }> {
  const server = createServer((socket) => {
    socket.on('error', () => undefined);
    onConnect(socket);
  }).listen(0, '127.0.0.1');
  await once(server, 'listening');
  return { address: `127.0.0.1:${(server.address() as AddressInfo).port}`, server };
}

/** Slow and lying devices beside four benches at work: whatever they do, nothing hangs, and what works again is used again. */
export async function devices(kitchen: KitchenProcess, rounds: number): Promise<Counts> {
  let honest = false;
  let asked = 0;
  // loses two answers in three, and floods with readings in between
  const scale = await device((socket) => {
    let n = 0;
    const flood = setInterval(() => {
      if (!socket.destroyed) socket.write(honest ? READING : READING.repeat(400));
    }, 100);
    socket.on('close', () => clearInterval(flood));
    socket.on('data', (chunk) => {
      for (const line of String(chunk).trim().split('\n')) {
        n += 1;
        if (honest || n % 3 === 0) socket.write(`done ${line}\n`);
      }
    });
  });
  // a byte at a time, for ever, or a line without an end
  const probe = await device((socket) => {
    socket.once('data', () => {
      if (honest) {
        socket.write('probe state=steady c=412 error=50\n');
        return;
      }
      asked += 1;
      const drip = setInterval(() => socket.write(asked % 2 === 0 ? 'p' : 'x'.repeat(50_000)), 200);
      socket.on('close', () => clearInterval(drip));
    });
  });
  const printer = await device((socket) => {
    socket.once('data', () => {
      if (honest) {
        socket.write('done 1\n');
        socket.end();
        return;
      }
      asked += 1;
      const drip = setInterval(() => socket.write('d'), 400);
      socket.on('close', () => clearInterval(drip));
    });
  });
  await kitchen.killServer();
  await kitchen.startServer({
    ZABRIK_SCALE: `bench=${scale.address}`,
    ZABRIK_PROBE: probe.address,
    ZABRIK_PRINTER: printer.address,
  });
  const benches = new Benches(kitchen);
  await benches.start(10);
  const stalls = watchStalls(() => kitchen.base);
  const session: Session = await signInOver(kitchen.base, 'Maren Ostle');
  const { lots } = (await session.get('/api/v1/lots?limit=1')) as { lots: { id: string }[] };
  const answerMs: number[] = [];
  let hung = 0;
  const answered = async (work: () => Promise<unknown>): Promise<void> => {
    const began = performance.now();
    const done = work().then(
      () => true,
      () => true,
    );
    if (await Promise.race([done, wait(NEVER_MS, false, { ref: false })]))
      answerMs.push(Math.round(performance.now() - began));
    else hung += 1;
  };
  const tare = () => session.post('/api/v1/scale/commands', { scale: 'bench', command: 'tare' }, randomUUID());
  const readProbe = () => session.get('/api/v1/probe');
  const print = () =>
    fetch(`${kitchen.base}/api/v1/labels`, {
      method: 'POST',
      headers: {
        'content-type': 'application/json',
        origin: kitchen.base,
        cookie: session.cookie,
        'idempotency-key': randomUUID(),
      },
      body: JSON.stringify({ lots: [{ lotId: lots[0]?.id, copies: 1 }], size: '57x32' }),
      signal: AbortSignal.timeout(2 * NEVER_MS),
    });
  for (let n = 0; n < rounds; n += 1) await Promise.all([tare, tare, readProbe, print].map(answered));
  honest = true;
  await wait(2_500);
  let stuck = 0;
  const works = async (what: string, work: () => Promise<boolean>): Promise<void> => {
    for (let tries = 0; tries < 20; tries += 1) {
      if (await work().catch(() => false)) return;
      await wait(500);
    }
    stuck += 1;
    process.stdout.write(`  stuck: ${what}\n`);
  };
  await works('scale', async () => (await tare()).ok);
  await works('probe', async () => ((await readProbe()) as { state?: string }).state === 'steady');
  await works('printer', async () => (await print()).ok);
  await benches.stop();
  const stallMs = await stalls.stop();
  for (const { server } of [scale, probe, printer]) server.close();
  await kitchen.killServer();
  await kitchen.startServer();
  return {
    asked: answerMs.length + hung,
    hung,
    answerMs,
    stuck,
    acknowledged: benches.acknowledged.size,
    ...benches.recount(),
    stallMs,
  };
}
