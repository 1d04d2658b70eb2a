/**
 * kill -9 of the server and of PostgreSQL in the middle of weighings: none that was acknowledged may be lost, none doubled. A timer at
 * the stove is there again after both, to the millisecond.
 *   tsx e2e/faults.ts [--weighings 200]
 * Four benches weigh at once; each repeats a weighing under its key until it is acknowledged, as a tablet's outbox does.
 */
import { randomUUID } from 'node:crypto';
import { setTimeout as wait } from 'node:timers/promises';
import { KitchenProcess, type Session, signInOver } from './kitchenProcess.ts';

const at = process.argv.indexOf('--weighings');
const wanted = at === -1 ? 200 : Number(process.argv[at + 1]);
const BENCHES = 4;

const kitchen = new KitchenProcess({ cluster: 'pg-faults', fsync: 'on', port: 0, breakdowns: 0 });
const acknowledged = new Set<string>();
let repeats = 0;
let next = 0;

async function weighOnce(session: Session, path: string): Promise<void> {
  const key = randomUUID();
  const body = {
    kind: 'take',
    pieceId: 'frame',
    destination: 'stock',
    massMg: 1_000,
    source: 'scale',
    replaces: null,
    at: new Date().toISOString(),
  };
  for (;;) {
    try {
      const reply = await session.post(path, body, key);
      if (reply.ok) {
        await reply.json();
        acknowledged.add(key);
        return;
      }
      if (reply.status < 500) throw new RangeError(`refused with ${reply.status}: ${await reply.text()}`);
    } catch (error) {
      if (error instanceof RangeError) throw error;
    }
    repeats += 1;
    await wait(100);
  }
}

await kitchen.start();
try {
  const session = await signInOver(kitchen.base, 'Ines Calloway');
  const { breakdowns } = (await session.get('/api/v1/breakdowns')) as { breakdowns: { id: string }[] };
  const path = `/api/v1/breakdowns/${breakdowns[0]?.id}/weighings`;
  const benches = Array.from({ length: BENCHES }, async () => {
    while (next < wanted) {
      next += 1;
      await weighOnce(session, path);
    }
  });
  // a batch is on with a timer that has a quarter of an hour to go
  const { lots } = (await session.get('/api/v1/lots?category=white-fish-frame&kind=piece&limit=5')) as {
    lots: { id: string }[];
  };
  const [frame] = lots;
  const dueAt = new Date(Date.now() + 15 * 60_000).toISOString();
  const sent = async (path: string, body: unknown): Promise<{ id: string }> => {
    const reply = await session.post(path, body, randomUUID());
    if (!reply.ok) throw new Error(`${path} ${reply.status} ${await reply.text()}`);
    return (await reply.json()) as { id: string };
  };
  const run = await sent('/api/v1/runs', { useId: 'fish-fumet', lotIds: [frame?.id], vesselId: null, onHandMg: {} });
  const timer = { kind: 'timer', step: 0, label: 'soak', dueAt };
  const { id: timerId } = await sent(`/api/v1/runs/${run.id}/events`, { at: new Date().toISOString(), body: timer });
  const timerStands = async (): Promise<boolean> => {
    const { timers } = (await session.get('/api/v1/run-timers')) as { timers: { id: string; dueAt: string }[] };
    return timers.some((t) => t.id === timerId && t.dueAt === dueAt);
  };
  const reach = async (count: number): Promise<void> => {
    while (acknowledged.size < count) await wait(1);
  };
  await reach(Math.floor(wanted / 4));
  process.stdout.write(`kill -9 of the server after ${acknowledged.size} acknowledged\n`);
  await kitchen.killServer();
  await kitchen.startServer();
  const afterServer = await timerStands();
  await reach(Math.floor(wanted / 2));
  process.stdout.write(`kill -9 of PostgreSQL after ${acknowledged.size} acknowledged\n`);
  kitchen.killPostgres();
  await wait(300);
  kitchen.db('start');
  await Promise.all(benches);
  const afterBoth = await timerStands();

  const rows = kitchen
    .db('psql', '-At', '-c', `select id from weighing where piece_id = 'frame' and mass_mg = 1000`)
    .trim()
    .split('\n');
  const stored = new Set(rows);
  const lost = [...acknowledged].filter((key) => !stored.has(key));
  process.stdout.write(
    `${wanted} weighings, ${repeats} repeats, ${stored.size} stored, ${lost.length} lost, ${rows.length - acknowledged.size} doubled\n`,
  );
  process.stdout.write(`timer at the stove there after the server: ${afterServer}, after both: ${afterBoth}\n`);
  if (!afterServer || !afterBoth) process.exitCode = 1;
  if (lost.length > 0 || rows.length !== wanted || stored.size !== wanted) process.exitCode = 1;
} finally {
  await kitchen.stop();
}
