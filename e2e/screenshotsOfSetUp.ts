/** The picture of a machine with no kitchen on it yet. */
import { test } from '@playwright/test';

test('set-up', async ({ page }) => {
  process.chdir(import.meta.dirname);
  await page.goto('/');
  await page.getByRole('heading', { name: 'Set up this kitchen' }).waitFor();
  await page.getByLabel('Name of the kitchen').fill('Harbour Table');
  await page.getByLabel('Head chef').fill('Alda Fonte');
  await page.evaluate(() => document.fonts.ready);
  await page.waitForTimeout(500);
  await page.screenshot({ path: '../docs/screenshots/set-up.png' });
});
