/** What a cook does in Pots, for the browser tests: choose what is made, plan it, work its steps. */
import { expect, type Locator, type Page } from '@playwright/test';

export const pick = async (page: Page, title: RegExp): Promise<void> => {
  await page.goto('/pots');
  await page.getByLabel('Search what can be made').fill(title.source.replaceAll(/[\\^$]/g, ''));
  await page.getByRole('radio', { name: title }).first().click();
  await expect(page.getByRole('heading', { level: 2, name: title })).toBeVisible();
};
export const plan = async (page: Page): Promise<string> => {
  await page.getByRole('button', { name: 'Plan this batch' }).click();
  await expect(page).toHaveURL(/\/pots\/stove\/[0-9a-f-]{36}/);
  return page.url().split('/').at(-1) ?? '';
};
/** Works the step that is next, and waits until the one after it stands there. */
export const oneStep = async (page: Page, act: () => Promise<unknown>): Promise<void> => {
  const step = page.getByRole('region', { name: 'Next step' }).locator('p').first();
  const at = await step.textContent();
  await act();
  await expect
    .poll(async () => (await step.count()) === 0 || (await step.textContent()) !== at, { intervals: [40] })
    .toBe(true);
};
/** Works every step that is left. */
export const allSteps = async (page: Page): Promise<void> => {
  const last = page.getByText('Every step is done.');
  for (let i = 0; i < 20 && !(await last.isVisible()); i += 1)
    await oneStep(page, () => page.getByRole('button', { name: /^Done/ }).click());
  await expect(last).toBeVisible();
};

/** Types a temperature into an open log and sees it taken: under a clock that was set ahead a click was once lost, and nothing was written. */
export const writeDown = async (log: Locator, C: number): Promise<void> => {
  const field = log.getByLabel(/^Temperature of/);
  await field.fill(String(C));
  await expect(async () => {
    if ((await field.inputValue()) !== '')
      await log.getByRole('button', { name: 'Write it down' }).click({ timeout: 2_000 });
    await expect(field).toHaveValue('', { timeout: 2_000 });
  }).toPass();
};
