/** Cutting to weight as its people work it: by touch, by keyboard, without network, with someone watching; and rolls, slices, moulds. */
import { expect, type Page, test } from '@playwright/test';
import { axe, goOffline, keptOnDevice, load, signInByKeyboard, signInByTouch, tabTo, watchRequests } from './cook.ts';

const strip = (page: Page) => page.getByTestId('pan-strip');
const ruler = (page: Page) => page.getByTestId('ruler');
const weighed = (page: Page) => page.getByRole('list', { name: 'Weighed' }).getByRole('button');
const portionsGot = async (page: Page): Promise<number> =>
  Number((await page.getByTestId('tally').locator('dd').first().textContent()) ?? '0');

/** Does what puts something on the pan, and waits until the pan has come to rest on it. */
async function onThePan(page: Page, act: () => Promise<unknown>): Promise<void> {
  const before = await strip(page).getAttribute('data-settled');
  await act();
  await expect(strip(page)).not.toHaveAttribute('data-settled', before ?? '');
  await expect(strip(page)).toHaveAttribute('data-state', 'steady');
}

/** Cuts and weighs what the ruler says until that many weights are taken or nothing is left to cut. */
async function cutAll(page: Page, next: () => Promise<void>, take: () => Promise<void>, most: number): Promise<void> {
  for (let i = 0; i < most; i += 1) {
    if (await page.getByText(/Every piece is cut/).isVisible()) return;
    const on = page.getByRole('button', { name: /^To piece/ });
    if (await on.isVisible()) await on.click();
    const count = await weighed(page).count();
    await onThePan(page, next);
    await take();
    // weights typed in between were another fillet's: what is left is asked about once, and meant
    await expect(
      weighed(page)
        .nth(count)
        .or(page.getByText(/Press again to count it/)),
    ).toBeVisible();
    if (await page.getByText(/Press again to count it/).isVisible()) await take();
    await expect(weighed(page)).toHaveCount(count + 1);
  }
}

/** The key counts once the marks are worked out with what was weighed last. */
async function nextByKey(page: Page): Promise<void> {
  await expect(page.getByRole('button', { name: 'Put the next piece on' })).toBeEnabled();
  await page.keyboard.press('p');
}

const open = async (page: Page, kind: string, name: RegExp): Promise<void> => {
  await page.goto(`/bench/cut?as=${kind}`);
  await page.getByRole('region', { name: 'To be cut to weight' }).getByRole('button', { name }).first().click();
};

test('two fillets of a closed stage to sixteen portions in the larder, by touch', async ({ page, browser }) => {
  const stayedHome = watchRequests(page);
  await signInByTouch(page, 'Ines Calloway');
  await page.getByRole('link', { name: /^Ledger/ }).click();
  await page.getByRole('row', { name: /Hake/ }).first().getByRole('link').first().click();
  await page.getByRole('link', { name: 'Cut to weight' }).click();
  await page.getByRole('button', { name: /Hake fillet/ }).click();
  await expect(ruler(page)).toBeVisible();

  // wishes that cannot be, each with the nearest that can
  await page.getByRole('tab', { name: 'Sizes' }).click();
  const weighs = page.getByLabel('Weighs').first();
  await weighs.fill('4000');
  await expect(page.getByText(/4,000 g is more than the .* lying here/)).toBeVisible();
  await weighs.fill('160');
  await page.getByLabel('Within').first().fill('0');
  await expect(page.getByText(/no cut on the millimetre comes so near. Nearest: within/)).toBeVisible();
  await page.getByLabel('Within').first().fill('6');
  await page.getByLabel('Thickness from').first().fill('60');
  await page.getByLabel('to', { exact: true }).first().fill('20');
  await expect(page.getByText(/at least 60 mm and at most 20 mm cannot both be/)).toBeVisible();
  await page.getByLabel('Thickness from').first().fill('0');
  await page.getByLabel('to', { exact: true }).first().fill('200');

  // eight from each: what one of sixteen weighs, a little less so that an end is left
  await page.getByRole('button', { name: 'thin end' }).first().click();
  await page.getByRole('tab', { name: 'Got' }).click();
  const still = ((await page.getByText('still on the board').locator('..').textContent()) ?? '').replace(/\D/g, '');
  await page.getByRole('tab', { name: 'Sizes' }).click();
  await weighs.fill(String(Math.floor(Number(still) / 16.4)));
  await page.getByRole('tab', { name: 'Got' }).click();
  await expect(page.getByRole('radio', { name: /^8 ×/ }).first()).toBeVisible();
  await axe(page, 'ruler');

  // a mark moves under the finger, is locked, and goes back
  const mark = page.getByRole('slider', { name: 'Cut 1' });
  const at = await mark.getAttribute('aria-valuetext');
  const box = await mark.boundingBox();
  if (box === null) throw new Error('no mark');
  await page.mouse.move(box.x + box.width / 2, box.y + 120);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 30, box.y + 120, { steps: 4 });
  await page.mouse.up();
  await expect(mark).not.toHaveAttribute('aria-valuetext', at ?? '');
  await page.getByRole('button', { name: /^Reckon/ }).click();
  await expect(mark).toHaveAttribute('aria-valuetext', at ?? '');

  const second = await browser.newPage();
  await signInByTouch(second, 'Tobin Arkwell');
  await second.goto(page.url());
  await expect(ruler(second)).toBeVisible();
  const next = () => page.getByRole('button', { name: 'Put the next piece on' }).click();
  const take = () => page.getByRole('button', { name: /weigh it|Weigh the end|Weigh what/ }).click();
  await cutAll(page, next, take, 1);
  await expect(weighed(second)).toHaveCount(1);
  await cutAll(page, next, take, 1);
  await expect(weighed(second)).toHaveCount(2); // the second screen sees it within a second
  await second.close();
  await page.getByRole('button', { name: /^Undo/ }).click();

  // too heavy: said, trimmed, weighed again; then moved to another tray and back
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(weighed(page)).toHaveCount(0);
  await onThePan(page, () => load(page, 150));
  await take();
  await expect(page.getByTestId('says')).toContainText('too heavy');
  await expect(weighed(page).first()).toContainText('too heavy');
  await weighed(page).first().click();
  const wanted = Number(
    (
      (await page
        .getByText(/wanted [\d,]+ g/)
        .first()
        .textContent()) ?? ''
    ).replace(/\D/g, ''),
  );
  await onThePan(page, () => load(page, wanted + 1));
  await page.getByRole('button', { name: /^Weigh it again/ }).click();
  await expect(weighed(page).first()).not.toContainText('too heavy');
  await weighed(page).first().click();
  await page.getByRole('button', { name: 'To staff' }).click();
  await expect(weighed(page).first()).toContainText('staff');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(weighed(page)).toHaveCount(0);

  await cutAll(page, next, take, 30);
  expect(await portionsGot(page)).toBe(16);
  await axe(page, 'cut');
  await page.getByRole('button', { name: /^Finish/ }).click();
  const strange = page.getByRole('region', { name: 'Not all is weighed' });
  const done = page.getByRole('region', { name: 'Cut', exact: true });
  await expect(strange.or(done)).toBeVisible();
  if (await strange.isVisible()) await strange.getByRole('button', { name: 'The rest goes back uncut' }).click();
  await expect(done.getByRole('link', { name: /16 of them/ })).toBeVisible();
  await done.getByRole('link', { name: /16 of them/ }).click();
  await expect(page.getByRole('complementary', { name: 'Lot' })).toContainText('cut to weight');
  stayedHome();
});

test('two sizes by keyboard alone, an hour of it without network', async ({ page, context }) => {
  await signInByKeyboard(page, 'Ines Calloway');
  await tabTo(page, /^Cut to weight/);
  await page.keyboard.press('Enter');
  await tabTo(page, /Hake fillet/);
  await page.keyboard.press('Enter');
  await expect(ruler(page)).toBeVisible();
  await page.keyboard.press('z');
  // whatever was wanted last time: 160 g now, within 5 %
  for (const [field, figure] of [
    [/^ ?Weighs/, '160'],
    [/^ ?Within/, '5'],
  ] as const) {
    await tabTo(page, field);
    await page.keyboard.press('Control+A');
    await page.keyboard.type(figure);
  }
  await tabTo(page, /starter, 90 g/);
  await page.keyboard.press('Enter');
  await page.keyboard.press('g');
  await expect(page.getByRole('radio', { name: /160 g/ }).first()).toBeVisible();
  await expect(page.getByRole('radio', { name: /90 g/ }).first()).toBeVisible();
  // nudged by arrow keys, locked, given back
  const first = page.getByRole('slider').first();
  // tabbing past the marks has picked the last one touched: back to the first
  for (let i = 0; i < 10; i += 1) await page.keyboard.press('ArrowUp');
  const at = await first.getAttribute('aria-valuenow');
  await page.keyboard.press('ArrowRight');
  await expect(first).toHaveAttribute('aria-valuenow', String(Number(at) + 1));
  await page.keyboard.press('l');
  await expect(page.getByRole('slider', { name: 'Cut 1, locked' })).toBeVisible();
  await page.keyboard.press('l');
  await page.keyboard.press('r');
  await expect(first).toHaveAttribute('aria-valuenow', at ?? '');
  await page.keyboard.press('1');

  const next = () => nextByKey(page);
  const take = () => page.keyboard.press('Space');
  await cutAll(page, next, take, 2);
  await keptOnDevice(page, '"kind":"weigh"', 2);
  await goOffline(page);
  // no network, no scale: typed weights are kept on this device
  for (const g of [161, 159]) {
    const count = await weighed(page).count();
    await page.keyboard.press('k');
    await page.getByLabel('Weight in grams').fill(String(g));
    await page.keyboard.press('Enter');
    await expect(weighed(page)).toHaveCount(count + 1);
  }
  await expect(weighed(page).first()).toContainText('on this device');
  await expect(page.getByTestId('saved')).toContainText('kept here'); // on its disk, that is
  await page.reload();
  await expect(weighed(page)).toHaveCount(4);
  await context.setOffline(false);
  await expect(weighed(page).filter({ hasText: 'on this device' })).toHaveCount(0);

  // the scale is there again: both fillets to the end, and into the larder
  await expect(strip(page)).toHaveAttribute('data-state', 'steady');
  await cutAll(page, next, take, 40);
  await expect(page.getByText(/Every piece is cut/)).toBeVisible();
  const portions = await portionsGot(page);
  expect(portions).toBeGreaterThan(9);
  await page.keyboard.press('c');
  const strange = page.getByRole('region', { name: 'Not all is weighed' });
  const done = page.getByRole('region', { name: 'Cut', exact: true });
  await expect(strange.or(done)).toBeVisible();
  if (await strange.isVisible()) {
    await tabTo(page, /Skin or sinew came off|Something was added/);
    await page.keyboard.press('Enter');
    await tabTo(page, 'Finish all the same');
    await page.keyboard.press('Enter');
  }
  await expect(done).toContainText('in tolerance');
  await expect(done.getByRole('link', { name: /main course 160 g/ })).toBeVisible();
  await expect(done.getByRole('link', { name: /starter 90 g/ })).toBeVisible();
});

test('two gurnard fillets to sixteen portions by keyboard alone, begun without network', async ({ page, context }) => {
  await signInByKeyboard(page, 'Ines Calloway');
  await tabTo(page, /^Cut to weight/);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: /Gurnard fillet/ }).first()).toBeVisible();
  // the screens are on the tablet, and what was read is on its disk
  await page.evaluate(() => navigator.serviceWorker.ready);
  await keptOnDevice(page, 'Gurnard fillet');
  await goOffline(page);
  await tabTo(page, /Gurnard fillet/);
  await page.keyboard.press('Enter');
  await expect(ruler(page)).toBeVisible();
  await page.keyboard.press('g');
  const still = ((await page.getByText('still on the board').locator('..').textContent()) ?? '').replace(/\D/g, '');
  const each = Math.floor(Number(still) / 16.4);
  await page.keyboard.press('z');
  for (const [field, figure] of [
    [/^ ?Weighs/, String(each)],
    [/^ ?Within/, '12'],
  ] as const) {
    await tabTo(page, field);
    await page.keyboard.press('Control+A');
    await page.keyboard.type(figure);
    await page.keyboard.press('Enter'); // done with the field: single keys count again
  }
  await page.keyboard.press('g');
  await expect(page.getByRole('radio', { name: /^8 ×/ }).first()).toBeVisible();
  await page.keyboard.press('1');
  const typed = async (g: number) => {
    const count = await weighed(page).count();
    await page.keyboard.press('k');
    await page.getByLabel('Weight in grams').fill(String(g));
    await page.keyboard.press('Enter');
    await expect(weighed(page)).toHaveCount(count + 1);
  };
  const next = () => nextByKey(page);
  for (let i = 0; i < 3; i += 1) await typed(each);
  await expect(weighed(page).first()).toContainText('on this device');
  await context.setOffline(false);
  await expect(weighed(page).filter({ hasText: 'on this device' })).toHaveCount(0);
  await expect(strip(page)).toHaveAttribute('data-state', 'steady');
  await cutAll(page, next, () => page.keyboard.press('Space'), 30);
  expect(await portionsGot(page)).toBe(16);
  await page.keyboard.press('c');
  const strange = page.getByRole('region', { name: 'Not all is weighed' });
  const done = page.getByRole('region', { name: 'Cut', exact: true });
  await expect(strange.or(done)).toBeVisible();
  if (await strange.isVisible()) {
    await tabTo(page, /Skin or sinew came off|Something was added/);
    await page.keyboard.press('Enter');
    await tabTo(page, 'Finish all the same');
    await page.keyboard.press('Enter');
  }
  await expect(done.getByRole('link', { name: /16 of them/ })).toBeVisible();
});

test('a roll across the night, then to portions', async ({ page }) => {
  await signInByTouch(page, 'Ines Calloway');
  await open(page, 'roll', /Roe deer small fillets/);
  await page.getByRole('button', { name: 'Make rolls' }).click();
  await expect(page.getByRole('img', { name: /^Roll 1/ })).toBeVisible();
  await page.getByLabel('Wrapped in').selectOption('sheet');
  await expect(page.getByText(/sheets: .* side by side/)).toBeVisible();
  await axe(page, 'roll');
  await onThePan(page, () => page.getByRole('button', { name: 'Put the next piece on' }).click());
  await page.getByRole('button', { name: 'Weigh roll 1' }).click();
  await expect(weighed(page)).toHaveCount(1);
  await page.getByRole('button', { name: /^Finish/ }).click();
  const strange = page.getByRole('region', { name: 'Not all is weighed' });
  const done = page.getByRole('region', { name: 'Cut', exact: true });
  await expect(strange.or(done)).toBeVisible();
  if (await strange.isVisible()) {
    await strange
      .getByRole('button', { name: 'Skin or sinew came off' })
      .or(strange.getByRole('button', { name: 'Something was added' }))
      .click();
    await strange.getByRole('button', { name: 'Finish all the same' }).click();
  }
  await expect(done).toBeVisible();
  // the next morning, eight hours on, the roll says since when it is firm
  await page.clock.setSystemTime(Date.now() + 8 * 3_600_000);
  await page.getByRole('link', { name: 'Cut the next one' }).click();
  const resting = page
    .getByRole('complementary', { name: 'Under the knife' })
    .getByRole('listitem')
    .filter({ hasText: /Roe deer small fillets, roll/ });
  await expect(resting).toContainText(/firm since/);
  await resting.getByRole('button', { name: 'Cut it', exact: true }).click();
  await expect(ruler(page)).toBeVisible();
  await page.getByRole('tab', { name: 'Piece' }).click();
  await page.getByLabel('Form').selectOption('barrel');
  await page.getByRole('tab', { name: 'Sizes' }).click();
  await page.getByLabel('Weighs').first().fill('45');
  await page.getByLabel('Within').first().fill('8');
  await page.getByRole('tab', { name: 'Got' }).click();
  await expect(page.getByRole('radio', { name: /× 45 g/ }).first()).toBeVisible();
  await cutAll(
    page,
    () => page.getByRole('button', { name: 'Put the next piece on' }).click(),
    () => page.getByRole('button', { name: /weigh it|Weigh the end|Weigh what/ }).click(),
    6,
  );
  await page.getByRole('button', { name: /^Finish/ }).click();
  await expect(
    page.getByRole('region', { name: 'Cut', exact: true }).or(page.getByRole('region', { name: 'Not all is weighed' })),
  ).toBeVisible();
});

test('a block to slices that go different ways, and a mould to covers', async ({ page }) => {
  await signInByTouch(page, 'Ines Calloway');
  await open(page, 'slices', /Roe deer barrel/);
  await page.getByLabel('Slice thick').fill('10');
  await page.getByLabel('Knife slants').fill('20');
  await page.getByRole('button', { name: 'Parts go different ways' }).click();
  await axe(page, 'slices');
  const next = () => page.getByRole('button', { name: 'Put the next piece on' }).click();
  for (let i = 0; i < 3; i += 1) {
    await onThePan(page, next);
    await page.getByRole('button', { name: /^Weigh \d+ slices/ }).click();
    await expect(weighed(page)).toHaveCount(i + 1);
  }
  await onThePan(page, next);
  await page.getByRole('button', { name: 'Weigh the ends' }).click();
  await expect(weighed(page)).toHaveCount(4);
  await page.getByRole('button', { name: /^Finish/ }).click();
  const done = page.getByRole('region', { name: 'Cut', exact: true });
  await expect(done.getByRole('link', { name: /raw/ })).toBeVisible();

  await open(page, 'mould', /Plaice fillets/);
  await page.getByRole('button', { name: 'Fill moulds' }).click();
  await page.getByRole('combobox', { name: /^Mould/ }).selectOption('terrine-half');
  await page.getByLabel('Lining', { exact: true }).fill('4');
  await page.getByLabel('Filled to').fill('50');
  await expect(page.getByText('lining', { exact: true })).toBeVisible();
  await axe(page, 'mould');
  // a pastry case: the sheet is small, so the piece is cut across
  await page.getByLabel('Sheet long').fill('300');
  await expect(page.getByTestId('case')).toContainText('cut the piece across in');
  await onThePan(page, next);
  await page.getByRole('button', { name: 'Weigh mould 1' }).click();
  await expect(page.getByTestId('says')).toContainText('covers');
  await page.getByRole('button', { name: /^Finish/ }).click();
  const strange = page.getByRole('region', { name: 'Not all is weighed' });
  await expect(strange.or(done)).toBeVisible();
  if (await strange.isVisible()) await strange.getByRole('button', { name: 'The rest goes back uncut' }).click();
  await expect(done.getByRole('link', { name: /mould for \d+ starter/ })).toBeVisible();
});
