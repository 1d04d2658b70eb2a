import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Browser, expect, type Page } from '@playwright/test';
import { openedId, pieceButton, signInByTouch, weighTyped } from '../cook.ts';
import { type KitchenProcess, signInOver } from '../kitchenProcess.ts';
import { withBrowser } from './browser.ts';
import { begin } from './cuts.ts';
import type { Counts } from './table.ts';

const ROOT = new URL('../..', import.meta.url).pathname;

/** Everything that work leaves behind, a line each: who weighed what onto what, and what every lot holds and stems from. */
const RECORDS = `select 'weight ' || w.id || ' ' || w.breakdown_id || ' ' || w.person_id || ' ' || w.mass_mg from weighing w
  union all select 'animal ' || id || ' ' || person_id from breakdown
  union all select 'lot ' || lot_id || ' ' || mass_mg || ' ' || cost_minor from lot_balance
  union all select 'kin ' || parent_id || ' ' || child_id from lot_genealogy
  order by 1`;

async function openTablet(browser: Browser, kitchen: KitchenProcess, name: string): Promise<Page> {
  const context = await browser.newContext({ baseURL: kitchen.base, viewport: { width: 1280, height: 800 } });
  context.setDefaultTimeout(180_000);
  const page = await context.newPage();
  await signInByTouch(page, name);
  return page;
}

async function serve(page: Page, lotId: string, grams: number): Promise<void> {
  await page.goto(`/larder/${lotId}`);
  const lot = page.getByLabel('Lot', { exact: true });
  await lot.getByRole('textbox', { name: 'Take out' }).fill(String(grams));
  await lot.getByRole('button', { name: 'Served' }).click();
  await expect(lot).toContainText(`−${grams} g`);
}

/**
 * Two tablets work; a backup is made; they work on, one of them on what the other one began. Then the records are brought back from the backup by
 * the command that a house types. Both tablets are asked for a PIN, say what the records no longer know, and send it again, first the one whose work
 * needs the other's: in the end every line of the records is as it was, each under its own cook's name.
 */
export async function restore(kitchen: KitchenProcess): Promise<Counts> {
  const away = mkdtempSync(join(tmpdir(), 'zabrik-restore-'));
  const zabrik = (...args: string[]): void => {
    execFileSync(join(ROOT, 'zabrik'), args, {
      cwd: ROOT,
      env: { ...process.env, ZABRIK_STATE: away, DB_HOME: kitchen.home },
      stdio: ['ignore', 'ignore', 'inherit'],
    });
  };
  const records = (): readonly string[] => kitchen.db('psql', '-Atc', RECORDS).trim().split('\n');
  const work = async (browser: Browser): Promise<Counts> => {
    const old = await begin(kitchen, 'Ines Calloway');
    const ines = await openTablet(browser, kitchen, 'Ines Calloway');
    const jory = await openTablet(browser, kitchen, 'Jory Pellam');
    await ines.goto(`/bench/${old}`);
    await pieceButton(ines, /^fillet/).click();
    for (const grams of [311, 312]) await weighTyped(ines, grams);
    await expect(ines.getByTestId('saved')).toContainText('all saved');
    zabrik('backup', join(away, 'noon.dump'));

    // after the backup: on the old animal, a new one, the other's new one, and out of the larder
    for (const grams of [321, 322, 323]) await weighTyped(ines, grams);
    await jory.goto('/bench');
    await jory
      .getByRole('region', { name: 'To be cut' })
      .getByRole('button', { name: /Guinea fowl.*one ·/ })
      .first()
      .click();
    await jory
      .getByRole('button', { name: /Boned out whole/ })
      .first()
      .click();
    await pieceButton(jory, /^body bones/).click();
    const begun = openedId(jory);
    for (const grams of [41, 42]) await weighTyped(jory, grams);
    await expect(jory.getByTestId('saved')).toContainText('all saved');
    await ines.goto(`/bench/${begun}`);
    await pieceButton(ines, /^body bones/).click();
    await weighTyped(ines, 43);
    await expect(ines.getByTestId('saved')).toContainText('all saved');
    const reader = await signInOver(kitchen.base, 'Ines Calloway');
    const { lots } = (await reader.get('/api/v1/lots?kind=piece&limit=50')) as {
      lots: { id: string; massMg: number }[];
    };
    const lot = lots.find((l) => l.massMg >= 500_000)?.id ?? '';
    await serve(jory, lot, 130);
    await serve(ines, lot, 140);

    const before = records();
    await kitchen.close();
    zabrik('restore', join(away, 'noon.dump'));
    const stood = new Set(records());
    const gone = before.filter((line) => !stood.has(line)).length;
    await kitchen.open();

    for (const [page, name] of [
      [ines, 'Ines Calloway'],
      [jory, 'Jory Pellam'],
    ] as const) {
      await page.goto('/');
      await expect(page.getByRole('heading', { name: 'Who is at work?' })).toBeVisible();
      await signInByTouch(page, name);
      await expect(page.getByTestId('saved')).toContainText('no longer in the records');
    }
    // hers needs what he began
    const lostHere = ines.getByRole('region', { name: 'No longer in the records' });
    const all = (page: Page) => page.getByRole('button', { name: /^Send all \d+ of mine again/ }).click();
    for (const page of [ines, jory]) await page.goto('/waiting');
    await all(ines);
    await expect(lostHere.getByRole('listitem')).toHaveCount(1);
    await expect(lostHere).toContainText('43 g');
    await all(jory);
    await expect(jory.getByText('All of it is in the records')).toBeVisible();
    await lostHere.getByRole('button', { name: 'Send again' }).click();
    await expect(ines.getByText('All of it is in the records')).toBeVisible();
    const after = records();
    const held = new Set(after);
    const was = new Set(before);
    return {
      restores: 1,
      gone,
      lost: before.filter((line) => !held.has(line)).length,
      doubled: after.filter((line) => !was.has(line)).length,
      otherName: 0,
    };
  };
  try {
    return await withBrowser(work);
  } finally {
    rmSync(away, { recursive: true, force: true });
  }
}
