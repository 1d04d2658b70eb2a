import { randomUUID } from 'node:crypto';
import { setTimeout as wait } from 'node:timers/promises';
import type { Browser, Page } from '@playwright/test';
import { type KitchenProcess, PATIENT_MS, signInOver } from '../kitchenProcess.ts';
import { withBrowser } from './browser.ts';
import type { Counts } from './table.ts';

/** How far ahead a timer is set, one after another until one is longer than it takes to come back on this machine. */
const AHEAD_MS = [25_000, 60_000, 150_000] as const;

/** A screen of someone who is not at the stove. */
async function openScreen(browser: Browser, kitchen: KitchenProcess, person: string): Promise<Page> {
  const { cookie } = await signInOver(kitchen.base, person);
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const [name = '', value = ''] = cookie.split('=');
  await context.addCookies([{ name, value, url: kitchen.base }]);
  const page = await context.newPage();
  await page.goto(`${kitchen.base}/larder`);
  await page.waitForSelector('[data-testid=lots] a');
  return page;
}

/** Milliseconds from a timer's time until it is seen ringing. */
const heardAfter = async (page: Page, label: string, dueAt: string): Promise<number> => {
  await page.getByTestId('ringing').getByText(`${label} is over`).waitFor({ timeout: 180_000 });
  return Date.now() - Date.parse(dueAt);
};

/**
 * A batch is on with a timer; the server is killed, then PostgreSQL. The timer is there again after both, to the millisecond, and rings within a
 * second of its time on a screen that was open all the while and on one opened afterwards.
 */
export async function stove(kitchen: KitchenProcess): Promise<Counts> {
  return withBrowser(async (browser) => {
    const session = await signInOver(kitchen.base, 'Ines Calloway');
    const openBefore = await openScreen(browser, kitchen, 'Maren Ostle');
    const { lots } = (await session.get('/api/v1/lots?category=white-fish-frame&kind=piece&limit=5')) as {
      lots: { id: string }[];
    };
    const sent = async (path: string, body: unknown): Promise<{ id: string }> => {
      const reply = await session.post(path, body, randomUUID(), PATIENT_MS);
      if (!reply.ok) throw new Error(`${path} ${reply.status} ${await reply.text()}`);
      return (await reply.json()) as { id: string };
    };
    const plan = { recipeId: 'fish-fumet', lotIds: [lots[0]?.id], vesselId: null, onHandMg: {} };
    const batch = await sent('/api/v1/batches', plan);
    const stands = async (id: string, dueAt: string): Promise<boolean> => {
      for (;;) {
        const said = (await session.get('/api/v1/batch-timers').catch(() => undefined)) as
          | { timers?: { id: string; dueAt: string }[] }
          | undefined;
        if (said?.timers !== undefined) return said.timers.some((t) => t.id === id && t.dueAt === dueAt);
        await wait(100);
      }
    };
    for (const aheadMs of AHEAD_MS) {
      const label = `soak of ${aheadMs / 1_000}`;
      const dueAt = new Date(Date.now() + aheadMs).toISOString();
      const timer = { kind: 'timer', step: 0, label, dueAt };
      const { id } = await sent(`/api/v1/batches/${batch.id}/events`, { at: new Date().toISOString(), body: timer });
      let gone = 0;
      await kitchen.killServer();
      await kitchen.startServer();
      if (!(await stands(id, dueAt))) gone += 1;
      kitchen.killPostgres();
      await wait(300);
      kitchen.db('start');
      if (!(await stands(id, dueAt))) gone += 1;
      const openAfter = await openScreen(browser, kitchen, 'Tobin Arkwell');
      // come back too late for this one: whether it was kept, a longer one shows
      if (Date.now() > Date.parse(dueAt)) continue;
      const heard = await Promise.all([openBefore, openAfter].map((page) => heardAfter(page, label, dueAt)));
      return { timers: 1, gone, rangMs: Math.max(...heard) };
    }
    throw new Error('it took longer to come back than any timer had to go');
  });
}
