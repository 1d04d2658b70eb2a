/**
 * kill -9 of the server and of PostgreSQL in the middle of weighings: none that was acknowledged may be lost, none doubled. A timer at
 * the stove is there again after both, to the millisecond, and rings within a second of its time on a screen that was open all the while
 * and on one opened afterwards.
 *   tsx e2e/faults.ts [--weighings 200]
 * Four benches weigh at once; each repeats a weighing under its key until it is acknowledged, as a tablet's outbox does.
 */
import { randomUUID } from 'node:crypto';
import { setTimeout as wait } from 'node:timers/promises';
import { chromium, type Page } from '@playwright/test';
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

const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-dev-shm-usage'],
});

/** A screen of someone who is not at the stove. */
async function openScreen(cookie: string): Promise<Page> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const [name = '', value = ''] = cookie.split('=');
  await context.addCookies([{ name, value, url: kitchen.base }]);
  const page = await context.newPage();
  await page.goto(`${kitchen.base}/larder`);
  await page.waitForSelector('[data-testid=lots] a');
  return page;
}

/** Milliseconds from a timer's time until it is seen ringing. */
const heardAfter = async (page: Page, dueAt: string): Promise<number> => {
  await page.getByTestId('ringing').getByText('soak is over').waitFor({ timeout: 60_000 });
  return Date.now() - Date.parse(dueAt);
};

await kitchen.start();
try {
  const session = await signInOver(kitchen.base, 'Ines Calloway');
  const { breakdowns } = (await session.get('/api/v1/breakdowns')) as { breakdowns: { id: string }[] };
  const path = `/api/v1/breakdowns/${breakdowns[0]?.id}/weighings`;
  const openBefore = await openScreen((await signInOver(kitchen.base, 'Maren Ostle')).cookie);
  const benches = Array.from({ length: BENCHES }, async () => {
    while (next < wanted) {
      next += 1;
      await weighOnce(session, path);
    }
  });
  // a batch is on with a timer that has half a minute to go: longer than it takes to come back
  const { lots } = (await session.get('/api/v1/lots?category=white-fish-frame&kind=piece&limit=5')) as {
    lots: { id: string }[];
  };
  const [frame] = lots;
  const dueAt = new Date(Date.now() + 30_000).toISOString();
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
  const backFor = Date.parse(dueAt) - Date.now();
  const openAfter = await openScreen((await signInOver(kitchen.base, 'Tobin Arkwell')).cookie);
  const heard = await Promise.all([openBefore, openAfter].map((page) => heardAfter(page, dueAt)));

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
  process.stdout.write(
    `both back ${(backFor / 1_000).toFixed(1)} s before its time; it rang ${heard.join(' and ')} ms after it, on the screen open all the while and on the one opened since\n`,
  );
  if (!afterServer || !afterBoth || backFor < 1_000) process.exitCode = 1;
  if (heard.some((ms) => ms < -200 || ms > 1_000)) process.exitCode = 1;
  if (lost.length > 0 || rows.length !== wanted || stored.size !== wanted) process.exitCode = 1;
} finally {
  await browser.close();
  await kitchen.stop();
}
