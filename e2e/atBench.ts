/** What a cook does at the bench, for the browser tests: start, weigh, answer warnings, close, carry on. */
import { expect, type Page } from '@playwright/test';
import { putOn } from './cook.ts';

export const balance = (page: Page) => page.getByTestId('balance');
export const says = (page: Page) => page.getByTestId('says');
export const guard = (page: Page) => page.getByRole('alert', { name: 'Before this piece' });
export const next = (page: Page) => page.getByRole('button', { name: 'Put the next piece on' });
export const atBench = (page: Page) => expect(page.getByRole('button', { name: /Take weight/ })).toBeVisible();
export const weights = (page: Page, n: number) =>
  expect(page.getByRole('tab', { name: `Weights, ${n}` })).toBeVisible();
export const taken = async (page: Page): Promise<number> =>
  Number(/\d+/.exec((await page.getByRole('tab', { name: /^Weights/ }).textContent()) ?? '')?.[0]);

/** Starts on the first such lot: all of it, in the way asked for, where it holds more than one. */
export async function start(page: Page, lot: RegExp, plan: RegExp, way?: RegExp): Promise<void> {
  const list = page.getByRole('region', { name: 'To be cut' });
  if (!(await list.isVisible())) await page.getByRole('link', { name: /^Bench/ }).click();
  await list.getByRole('button', { name: lot }).first().click();
  const all = page.getByRole('button', { name: /^All \d/ });
  const plans = page.getByRole('button', { name: plan });
  await expect(plans).toBeVisible();
  if (way !== undefined || (await all.isVisible())) await all.click();
  if (way !== undefined) await page.getByRole('button', { name: way }).click();
  await plans.click();
  await atBench(page);
}

/** Puts the next true piece on and takes it with the pedal's key, answering what has to be answered first. */
export async function weighNext(page: Page): Promise<void> {
  const before = await taken(page);
  while (await guard(page).isVisible()) {
    const warning = await guard(page).textContent();
    await page.keyboard.press('g');
    await expect(guard(page).filter({ hasText: warning ?? '' })).toBeHidden();
  }
  await putOn(page, () => page.keyboard.press('p'));
  await page.keyboard.press('Space');
  await weights(page, before + 1);
}

/** Weighs all that is left. Answers how many weights that took. */
export async function weighAll(page: Page): Promise<number> {
  await expect(next(page)).toBeVisible();
  for (let i = 0; i < 40; i += 1) {
    if (!(await next(page).isVisible())) return i;
    await weighNext(page);
  }
  throw new Error('the stage never ends');
}

/** Closes the stage. Now and then the hidden animal has lost more than usual: then with a reason, as a cook would. */
export async function close(page: Page): Promise<number> {
  await page.keyboard.press('c');
  return onSheet(page);
}

/** Waits until the sheet of the stage stands there, with a reason where the balance does not hold. Answers the touches which that took. */
export async function onSheet(page: Page): Promise<number> {
  const bar = page.getByRole('region', { name: 'The balance does not hold' });
  await expect(bar.or(page.getByTestId('time'))).toBeVisible();
  const asked = await bar.isVisible();
  if (asked) {
    await bar.getByRole('button', { name: 'Stood long: more drip' }).click();
    await bar.getByRole('button', { name: 'Close all the same' }).click();
  }
  await expect(page).toHaveURL(/\/ledger\//);
  await expect(page.getByTestId('time')).toContainText('min');
  return asked ? 2 : 0;
}

/** From the sheet of the stage that was just closed to the one that follows. */
export async function goOn(page: Page, stage: RegExp): Promise<void> {
  await page.getByRole('button', { name: stage }).click();
  const all = page.getByRole('button', { name: 'Carry on all the same' });
  await expect(all.or(page.getByRole('button', { name: /Take weight/ }))).toBeVisible();
  if (await all.isVisible()) await all.click();
  await atBench(page);
}

export async function carryOn(page: Page, name: RegExp): Promise<void> {
  await page.getByRole('link', { name: /^Bench/ }).click();
  // of several, the one that was made last
  await page.getByRole('listitem').filter({ hasText: name }).getByRole('button', { name: 'Carry on' }).last().click();
  await atBench(page);
}
