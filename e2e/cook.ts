/** What a cook does at the screen, for the browser tests: by touch, and by keyboard alone. */
import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';
import { PIN } from './kitchenProcess.ts';

/** No finding of axe on what is shown now: none that is serious or critical, and with `slight` none at all. */
export async function axe(page: Page, name: string, slight = false): Promise<void> {
  // everything is in one frame: no second page is needed to put the findings together
  const { violations } = await new AxeBuilder({ page }).setLegacyMode().analyze();
  const found = violations
    .filter((v) => slight || v.impact === 'serious' || v.impact === 'critical')
    .map((v) => `${v.impact} ${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`);
  expect(found, `axe on ${name}`).toEqual([]);
}

/** Every request the page makes, to be judged at the end: none may leave the machine. */
export function watchRequests(page: Page): () => void {
  const strangers: string[] = [];
  page.on('request', (request) => {
    const { protocol, hostname } = new URL(request.url());
    if (protocol !== 'data:' && protocol !== 'blob:' && hostname !== 'localhost') strangers.push(request.url());
  });
  return () => expect(strangers).toEqual([]);
}

/** Tabs on until the element with this name has the focus: what a cook without a mouse does. */
export async function tabTo(page: Page, name: RegExp | string, most = 240): Promise<void> {
  for (let i = 0; i < most; i += 1) {
    // read at once, never waited for: what had the focus may be gone the next moment
    const label = await page.evaluate(() => {
      const el = document.activeElement;
      if (el === null || el === document.body) return '';
      const labelled =
        el instanceof HTMLInputElement || el instanceof HTMLSelectElement
          ? [...(el.labels ?? [])].map((l) => l.textContent).join(' ')
          : '';
      return `${el.getAttribute('aria-label') ?? ''} ${labelled} ${el.textContent ?? ''}`.trim();
    });
    if (typeof name === 'string' ? label.includes(name) : name.test(label)) return;
    await page.keyboard.press('Tab');
  }
  throw new Error(`the keyboard does not reach ${name}`);
}

export async function signInByTouch(page: Page, name: string): Promise<void> {
  await page.goto('/');
  await page.getByRole('button', { name: new RegExp(name) }).click();
  for (const digit of PIN) await page.getByRole('button', { name: digit, exact: true }).click();
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('heading', { name: 'On the bench now' })).toBeVisible();
}

export async function signInByKeyboard(page: Page, name: string): Promise<void> {
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Who is at work?' })).toBeVisible();
  await tabTo(page, name);
  await page.keyboard.press('Enter');
  await page.keyboard.type(PIN);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'On the bench now' })).toBeVisible();
}

export const pan = (page: Page) => page.getByTestId('pan');

/** Waits until what was read is on the device's disk and says this, so many times. Queries are written there once a second at the most. */
export async function keptOnDevice(page: Page, text: string, times = 1): Promise<void> {
  const found = (): Promise<number> =>
    page.evaluate(
      (wanted) =>
        new Promise<number>((done) => {
          const opening = indexedDB.open('zabrik-reads');
          opening.onerror = () => done(0);
          opening.onsuccess = () => {
            const db = opening.result;
            if (!db.objectStoreNames.contains('reads')) {
              db.close();
              done(0);
              return;
            }
            const all = db.transaction('reads').objectStore('reads').getAll();
            all.onsuccess = () => {
              db.close();
              done(all.result.map(String).join('').split(wanted).length - 1);
            };
          };
        }),
      text,
    );
  await expect.poll(found, { message: `kept on the device: ${text}` }).toBeGreaterThanOrEqual(times);
}

/** The last part of the address: the breakdown, cutting or batch that is open. */
export const openedId = (page: Page): string => new URL(page.url()).pathname.split('/').at(-1) ?? '';

/** A piece of the animal that is open, to be weighed next. */
export const pieceButton = (page: Page, piece: RegExp) =>
  page.getByRole('group', { name: 'Piece' }).getByRole('button', { name: piece });

/** Types a weight, and waits until the screen no longer says that it is being kept. */
export async function weighTyped(page: Page, grams: number): Promise<void> {
  const typed = page.getByLabel('Weight, typed');
  await page.keyboard.press('m');
  await typed.fill(String(grams));
  await page.keyboard.press('Enter');
  await typed.waitFor({ state: 'hidden' });
  await expect(page.getByTestId('saved')).not.toContainText('keeping');
}

/** Puts a mass on the simulated scale and waits until it rests on it. */
export async function load(page: Page, grams: number): Promise<void> {
  const field = page.getByLabel('Load in grams').first();
  await field.fill(String(grams));
  await field.press('Enter');
  await field.blur();
}

/** The scale of the bench shows this and is steady. */
export async function steady(page: Page, shown: string): Promise<void> {
  await expect(pan(page)).toHaveAttribute('data-state', 'steady');
  await expect(pan(page).locator('output')).toHaveText(shown);
}

/** Does what puts a piece on the pan, and waits until the pan has moved and come to rest on it. */
export async function putOn(page: Page, act: () => Promise<unknown>): Promise<void> {
  const before = Number(await pan(page).getAttribute('data-settled'));
  // a scale that did not answer in time is loaded again: what lies there then is the same piece
  await expect(async () => {
    await act();
    await expect
      .poll(async () => Number(await pan(page).getAttribute('data-settled')), { intervals: [40], timeout: 20_000 })
      .toBeGreaterThan(before);
  }).toPass({ timeout: 120_000 });
  await expect(pan(page)).toHaveAttribute('data-state', 'steady');
}

/** The tablet loses its network, and goes on once it has none: on a slow machine the browser takes a moment to cut it. */
export async function goOffline(page: Page): Promise<void> {
  await page.context().setOffline(true);
  const reaches = () =>
    page.evaluate(() =>
      fetch('/readyz', { cache: 'no-store' }).then(
        () => true,
        () => false,
      ),
    );
  await expect.poll(reaches).toBe(false);
}
