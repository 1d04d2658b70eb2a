import { setTimeout as wait } from 'node:timers/promises';
import { type Browser, type BrowserContext, expect, type Page } from '@playwright/test';
import { pieceButton, signInByTouch, weighTyped } from '../cook.ts';
import { type KitchenProcess, PATIENT_MS, signInOver } from '../kitchenProcess.ts';
import { withBrowser } from './browser.ts';
import type { Counts } from './table.ts';

/** After so many weights a tablet goes on with a new animal: a breakdown of thousands of weights is none. */
const ON_ONE = 150;
/** However slow the machine: a reload and a hard closing are among them. Without, a short form that had no time left had tried nothing. */
const LEAST = 8;

interface Tally {
  weights: number;
  cuts: number;
  reloads: number;
  closed: number;
}

/** A breakdown of so many hake that none of its pieces is ever the last. */
export async function begin(kitchen: KitchenProcess, name: string): Promise<string> {
  const session = await signInOver(kitchen.base, name);
  const { suppliers } = (await session.get('/api/v1/suppliers')) as { suppliers: { id: string }[] };
  const sent = async (path: string, body: unknown): Promise<Record<string, string>> =>
    (await (await session.post(path, body, crypto.randomUUID(), PATIENT_MS)).json()) as Record<string, string>;
  const line = await sent('/api/v1/deliveries', {
    species: 'hake',
    form: 'gutted',
    animals: 400,
    supplierId: suppliers[0]?.id,
    origin: null,
    grossMg: 1_000_000_000,
    tareMg: 0,
    invoiceMg: 1_000_000_000,
    paidMinor: 3_000,
    temperatureCentiC: 100,
    landedOn: null,
    useBy: null,
    note: null,
  });
  const started = await sent('/api/v1/breakdowns', {
    lotId: line['lotId'],
    planId: 'round-fish-two-fillets',
    animals: 400,
    massMg: null,
  });
  if (started['id'] === undefined) throw new Error(`no breakdown: ${JSON.stringify(started)}`);
  return started['id'];
}

/** One tablet in one cook's hands: weighs, and is cut off, reloaded and closed hard by turns. Gives how many weights went onto each breakdown. */
async function tablet(
  browser: Browser,
  kitchen: KitchenProcess,
  name: string,
  untilMs: number,
  tally: Tally,
): Promise<Map<string, number>> {
  const said = new Map<string, number>();
  const context: BrowserContext = await browser.newContext({
    baseURL: kitchen.base,
    viewport: { width: 1280, height: 800 },
  });
  context.setDefaultTimeout(180_000);
  let page: Page = await context.newPage();
  await signInByTouch(page, name);
  await page.evaluate(() => navigator.serviceWorker.ready);
  let id = '';
  const atBench = async (): Promise<void> => {
    await page.goto(`/bench/${id}`);
    await page.getByTestId('pan').waitFor();
    await pieceButton(page, /^fillet/).click();
  };
  const weigh = async (): Promise<void> => {
    await weighTyped(page, 100 + (tally.weights % 50));
    said.set(id, (said.get(id) ?? 0) + 1);
    tally.weights += 1;
  };
  const sentAll = async (): Promise<void> => {
    await context.setOffline(false);
    await expect(page.getByTestId('saved')).toContainText('all saved', { timeout: 180_000 });
  };
  for (let n = 0; n < LEAST || Date.now() < untilMs; n += 1) {
    if (id === '' || (said.get(id) ?? 0) >= ON_ONE) {
      if (id !== '') await sentAll();
      id = await begin(kitchen, name);
      await atBench();
    }
    await weigh();
    const turn = n % 10;
    await context.setOffline(true);
    tally.cuts += 1;
    await weigh();
    if (turn === 3) {
      tally.reloads += 1;
      await page.reload();
      await page.getByTestId('pan').waitFor();
      await pieceButton(page, /^fillet/).click();
    } else if (turn === 7) {
      tally.closed += 1;
      await page.close({ runBeforeUnload: false });
      page = await context.newPage();
      await atBench();
    } else await wait((n % 4) * 40);
    await context.setOffline(false);
  }
  await sentAll();
  await context.close();
  return said;
}

/** Two tablets at once, each with its own cook and its own animals. */
export async function cuts(kitchen: KitchenProcess, untilMs: number): Promise<Counts> {
  const tally: Tally = { weights: 0, cuts: 0, reloads: 0, closed: 0 };
  return withBrowser(async (browser) => {
    const names = ['Ines Calloway', 'Jory Pellam'] as const;
    const done = await Promise.all(names.map((name) => tablet(browser, kitchen, name, untilMs, tally)));
    let lost = 0;
    let doubled = 0;
    let otherName = 0;
    for (const [i, said] of done.entries())
      for (const [id, n] of said) {
        const rows = kitchen
          .db(
            'psql',
            '-At',
            '-F',
            '|',
            '-c',
            `select p.name, count(*) from weighing w join person p on p.id = w.person_id where breakdown_id = '${id}' group by 1`,
          )
          .trim()
          .split('\n')
          .map((line) => line.split('|'));
        const stored = rows.reduce((sum, [, count]) => sum + Number(count), 0);
        lost += Math.max(0, n - stored);
        doubled += Math.max(0, stored - n);
        otherName += rows.reduce((sum, [actor, count]) => sum + (actor === names[i] ? 0 : Number(count)), 0);
      }
    return { ...tally, lost, doubled, otherName };
  });
}
