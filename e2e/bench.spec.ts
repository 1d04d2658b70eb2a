/** The bench in full, in the real app with the simulated scale: stages, batches, picking, guards, hand-over, an hour offline. */
import { expect, test } from '@playwright/test';
import { get, post } from './askServer.ts';
import { atBench, balance, carryOn, close, guard, says, start, weighAll, weighNext, weights } from './atBench.ts';
import { axe, goOffline, keptOnDevice, load, openedId, pan, pieceButton, signInByTouch, steady } from './cook.ts';

test('a loin in two phases: boned, left waiting, trimmed later; the yields multiply', async ({ page }) => {
  await signInByTouch(page, 'Ines Calloway');
  await start(page, /Lamb/, /Saddle to cannons/);
  await weighAll(page);
  await close(page);
  await expect(page.getByTestId('through')).toContainText('Pieces still wait to go on');
  await carryOn(page, /Lamb: cannons/);
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Lamb: cannons');
  await weighAll(page);
  await axe(page, 'bench, second stage');
  await close(page);
  await expect(page.getByTestId('through')).toContainText('through all stages');
  const cells = await page
    .getByRole('row', { name: /^cannons/ })
    .getByRole('cell')
    .allTextContents();
  const [ofStage = 0, ofPurchase = 0] = cells.slice(2, 4).map((c) => Number.parseFloat(c));
  const began = Number.parseFloat(
    /began with ([\d.]+)/.exec((await page.getByTestId('through').textContent()) ?? '')?.[1] ?? '',
  );
  expect(ofPurchase).toBeGreaterThan(15);
  expect(Math.abs(ofPurchase - (ofStage * began) / 100)).toBeLessThan(0.2);
  const lost = await page
    .getByRole('row', { name: /^unaccounted/ })
    .getByRole('cell')
    .allTextContents();
  const [ofStageLost = 0, ofPurchaseLost = 0] = lost.slice(2, 4).map((c) => Number.parseFloat(c));
  expect(Math.abs(ofPurchaseLost - (ofStageLost * began) / 100)).toBeLessThan(0.2);
});

test('a barrel that rested since yesterday is cut into portions', async ({ page }) => {
  await signInByTouch(page, 'Tobin Arkwell');
  await expect(page.getByRole('listitem').filter({ hasText: 'Roe deer: portion' })).toContainText(
    'rested, within its window',
  );
  await carryOn(page, /Roe deer: portion/);
  await weighAll(page);
  await close(page);
  await expect(page.getByRole('region', { name: 'Stages and time' }).getByRole('link')).toHaveCount(3);
});

test('crab is picked in many small weights, with its pace, and not closed before three passes', async ({ page }) => {
  await signInByTouch(page, 'Jory Pellam');
  await carryOn(page, /Brown crab: claws/);
  await page.getByRole('button', { name: /^white meat/ }).click();
  for (let i = 0; i < 6; i += 1) await weighNext(page);
  const picking = page.getByRole('region', { name: 'Picking' });
  await expect(picking).toContainText('6 weights');
  await expect(picking).toContainText('from the first minute on'); // a pace of seconds would say nothing
  await expect(picking).toContainText('next ten minutes, work £2.73');
  await axe(page, 'picking');
  await page.getByRole('button', { name: /^shell and blades/ }).click();
  await weighAll(page);
  await page.keyboard.press('c');
  await expect(page.getByText('0 of 3 passes counted.')).toBeVisible();
  await page.getByRole('button', { name: 'Weigh on' }).click();
  await page.getByRole('button', { name: /Pick through/ }).click();
  for (let i = 1; i <= 3; i += 1) {
    await page.getByRole('button', { name: 'Count a pass' }).click();
    await expect(page.getByTestId('passes')).toContainText(`${i} of 3`);
  }
  await close(page);
  await expect(page.getByText('a pass counted').first()).toBeVisible();
});

test('a bird boned out whole: warned before the harm, skipped with a note, and told how much filling it takes', async ({
  page,
}) => {
  await signInByTouch(page, 'Ines Calloway');
  await start(page, /Guinea fowl.*one ·/, /Boned out whole/);
  await page.getByRole('button', { name: /^body bones/ }).click();
  await expect(guard(page)).toContainText('Wishbone still in');
  await guard(page).getByRole('button', { name: /Done/ }).click();
  await expect(guard(page)).toContainText('hip joints');
  await axe(page, 'a warning');
  await guard(page).getByRole('button', { name: /Skip/ }).click();
  await page.getByLabel('Why it was skipped').fill('kept for the roast');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(says(page)).toContainText('kept for the roast');
  await weighAll(page);
  await expect(page.getByTestId('fill')).toContainText(/what came out [\d,]+ g\. Filling [\d,]+ g to [\d,]+ g/);
  await close(page);
  await expect(page.getByText('kept for the roast')).toBeVisible();
});

test('ten pigeons by kind: one weight says how many it is, and the sheet counts them', async ({ page }) => {
  await signInByTouch(page, 'Jory Pellam');
  await page
    .getByRole('region', { name: 'To be cut' })
    .getByRole('button', { name: /Wood pigeon/ })
    .first()
    .click();
  await page.getByRole('button', { name: /^All \d/ }).click();
  await axe(page, 'ways to weigh a batch');
  await start(page, /Wood pigeon/, /Breasts only/, /By kind/);
  await page.getByRole('button', { name: /^breasts/ }).click();
  await expect(page.getByTestId('count')).toHaveText('20');
  await page.getByRole('button', { name: 'One fewer' }).click();
  await page.getByRole('button', { name: 'One more' }).click();
  await weighAll(page);
  await close(page);
  await expect(page.getByRole('row', { name: /^breasts/ })).toContainText('portions, 20');
  await expect(page.getByTestId('time')).toContainText('an animal');
});

test('squid and trotters come to a closed balance too', async ({ page }) => {
  await signInByTouch(page, 'Tobin Arkwell');
  await start(page, /Squid/, /Tube, wings/, /By kind/);
  await weighAll(page);
  await close(page);
  await start(page, /trotter/, /Boned out, then braised/, /By kind/);
  await weighAll(page);
  await close(page);
  await expect(page.getByTestId('through')).toContainText('Pieces still wait to go on');
});

test('a duck is handed over mid-way, paused, noted and put right: piece, split, join', async ({ page, browser }) => {
  await signInByTouch(page, 'Ines Calloway');
  await start(page, /Duck/, /Legs, breasts/);
  const other = await (await browser.newContext()).newPage();
  await signInByTouch(other, 'Jory Pellam');
  await other.goto(page.url());
  await atBench(other);
  for (let i = 0; i < 4; i += 1) await weighNext(page);

  // it was another piece
  await page.getByRole('tab', { name: /^Weights/ }).click();
  await page
    .getByRole('tabpanel')
    .getByRole('button', { name: /preen gland/ })
    .click();
  await page.getByRole('button', { name: /^lean trim/ }).click();
  await expect(says(page)).toContainText('It was lean trim');
  await expect(page.getByRole('tabpanel')).toContainText('Put right or taken back');
  // part of the fat goes elsewhere, and comes back
  await page
    .getByRole('tabpanel')
    .getByRole('button', { name: /fat and skin/ })
    .click();
  await page.getByRole('button', { name: 'Split' }).click();
  await page.getByLabel('Grams to split off').fill('40');
  await page.keyboard.press('Tab');
  await page.getByRole('button', { name: /^Garnish/ }).click();
  await expect(page.getByRole('button', { name: /^Garnish, 40 g/ })).toBeVisible();
  const weighed = await balance(page).textContent();
  await page
    .getByRole('tabpanel')
    .getByRole('button', { name: /Garnish/ })
    .click();
  await page.keyboard.press('5'); // back to the fat tray
  await expect(page.getByRole('button', { name: /^Garnish, 0 g/ })).toBeVisible();
  await page
    .getByRole('tabpanel')
    .getByRole('button', { name: /(^|\D)40 g/ })
    .click();
  await page.getByRole('button', { name: 'Join' }).click();
  await expect(says(page)).toContainText('two weights are one');
  await expect(balance(page)).toHaveText(weighed ?? '');

  await pieceButton(page, /^legs/).click(); // a piece that may go there: of any other the tray says why not
  await page.getByRole('tab', { name: 'Tools' }).click();
  await page.getByLabel('Tray', { exact: true }).selectOption({ label: 'Filling' });
  await page.getByLabel('Note', { exact: true }).fill('for Wednesday’s pie');
  await page.getByRole('button', { name: 'Keep the note' }).click();
  await expect(page.getByRole('button', { name: /^Filling/ })).toContainText('for Wednesday’s pie');
  await axe(page, 'tools');
  await page.keyboard.press('h');
  await expect(page.getByTestId('clock')).toContainText('paused');
  await page.getByRole('button', { name: 'To Jory Pellam' }).click();
  await expect(
    other.getByText('Jory Pellam', { exact: true }).or(other.getByText('· Jory Pellam')).first(),
  ).toBeVisible();
  await expect(other.getByTestId('clock')).toContainText('paused');
  await other.keyboard.press('h');
  await expect(page.getByTestId('clock')).not.toContainText('paused');
  await expect(balance(other)).toHaveText((await balance(page).textContent()) ?? '');
  await other.context().close();
});

test('hands busy: a steady load takes itself, once, and a wipe is not a touch', async ({ page }) => {
  await signInByTouch(page, 'Maren Ostle');
  await start(page, /Plaice/, /Four fillets/, /By kind/);
  await page.keyboard.press('a');
  await expect(page.getByText('takes by itself when steady')).toBeVisible();
  while (await guard(page).isVisible()) await page.keyboard.press('g');
  await expect(guard(page)).toBeHidden();
  // once: a second load, for a pan that was slow to be seen at rest, would take itself as well
  await page.keyboard.press('p');
  await weights(page, 1);
  await page.waitForTimeout(2_500); // what stays on the pan is not taken again
  await weights(page, 1);
  await page.keyboard.press('b');
  await expect(page.getByRole('tab', { name: 'Tools' })).toBeHidden();
  await page.keyboard.press('b');
  await page.keyboard.press('l');
  await expect(page.getByText('Touches are ignored')).toBeVisible();
  await page.mouse.click(1_000, 250);
  await expect(page.getByText('Touches are ignored')).toBeHidden();
  await weights(page, 1);
  await page.keyboard.press('a');

  // the floor scale has its own pan and its own division; what is heavier than the bench scale can hold is said so
  await load(page, 16_500);
  await expect(pan(page)).toHaveAttribute('data-state', 'over');
  await expect(pan(page)).toContainText('too heavy for this scale');
  await load(page, 0);
  await page.getByRole('tab', { name: 'Tools' }).click();
  await page.getByRole('button', { name: /Floor scale/ }).click();
  await load(page, 8_747);
  await steady(page, '8,740');
  await expect(pan(page)).toContainText('Floor scale');
  await page.getByRole('button', { name: /Bench scale/ }).click();
  await expect(pan(page)).not.toContainText('Floor scale');
});

test('an hour offline: twenty weights, a reload, the browser closed; all arrive once and in order', async ({
  browser,
}) => {
  const context = await browser.newContext();
  const page = await context.newPage();
  await signInByTouch(page, 'Jory Pellam');
  // a box of two came a moment ago
  const { suppliers } = await get<{ readonly suppliers: readonly { readonly id: string }[] }>(page, '/suppliers');
  const { code } = await post<{ readonly code: string }>(page, '/deliveries', {
    species: 'hake',
    form: 'gutted',
    animals: 2,
    supplierId: suppliers[0]?.id,
    origin: null,
    grossMg: 5_600_000,
    tareMg: 0,
    invoiceMg: 5_600_000,
    paidMinor: 6_100,
    temperatureCentiC: 120,
    landedOn: null,
    useBy: null,
    note: null,
  });
  await start(page, new RegExp(code), /Two fillets/, /Piece by piece/);
  await page.evaluate(() => navigator.serviceWorker.ready);
  await keptOnDevice(page, openedId(page));
  const address = page.url();
  const watcher = await (await browser.newContext()).newPage();
  await signInByTouch(watcher, 'Maren Ostle');
  await watcher.goto(address);
  await atBench(watcher);

  await goOffline(page);
  const type = async (grams: number): Promise<void> => {
    await page.keyboard.press('m');
    await page.getByLabel('Weight, typed').fill(String(grams));
    await page.keyboard.press('Enter');
    // what is far from anything expected is asked about once
    const asked = page.getByRole('button', { name: /^Count it all the same/ });
    await expect
      .poll(async () => (await asked.isVisible()) || !(await page.getByLabel('Weight, typed').isVisible()))
      .toBe(true);
    if (await asked.isVisible()) await page.keyboard.press('Enter');
    await expect(page.getByLabel('Weight, typed')).toBeHidden();
  };
  for (let g = 101; g <= 110; g += 1) await type(g);
  await expect(page.getByTestId('saved')).toContainText('10 kept here');
  await page.reload();
  await expect(balance(page)).toContainText('Weighed 1,055 g');
  for (let g = 111; g <= 116; g += 1) await type(g);
  await page.keyboard.press('h'); // a pause is kept like a weight
  await expect(page.getByTestId('clock')).toContainText('paused');
  // what is said to be kept is kept: it is said once it is on the disk
  await expect(page.getByTestId('saved')).toContainText('17 kept here');
  await page.close();
  const again = await context.newPage();
  await again.goto(address);
  await expect(balance(again)).toContainText('Weighed 1,736 g');
  await expect(again.getByTestId('clock')).toContainText('paused');
  await again
    .getByRole('group', { name: 'Piece' })
    .getByRole('button', { name: /^fillet/ })
    .click();
  for (let g = 117; g <= 120; g += 1) {
    await again.keyboard.press('m');
    await again.getByLabel('Weight, typed').fill(String(g));
    await again.keyboard.press('Enter');
    await expect(again.getByLabel('Weight, typed')).toBeHidden();
  }
  await expect(again.getByTestId('saved')).toContainText('21 kept here');
  await expect(balance(watcher)).toContainText('Weighed 0 g');

  await context.setOffline(false);
  await expect(again.getByTestId('saved')).toContainText('all saved');
  await expect(balance(watcher)).toContainText('Weighed 2,210 g');
  await watcher.getByRole('tab', { name: 'Weights, 20' }).click();
  const listed = await watcher.getByRole('listitem').filter({ hasText: 'typed' }).allTextContents();
  const grams = listed.map((text) => Number(/(\d+) g$/.exec(text.trim())?.[1]));
  expect(grams).toEqual(Array.from({ length: 20 }, (_, i) => 120 - i));
  await watcher.context().close();
  await context.close();
});

test('a plan is copied, changed, refused while its shares do not add up, saved, retired, and goes out and in as a file', async ({
  page,
}) => {
  await signInByTouch(page, 'Maren Ostle');
  await page.getByRole('link', { name: 'Cut plans' }).click();
  await axe(page, 'cut plans');
  await page.getByRole('button', { name: 'Add a species' }).click();
  await axe(page, 'a new species');
  await page.getByRole('button', { name: 'Leave it' }).click();
  await page.getByLabel('Search plans').fill('squid');
  await page.getByRole('link', { name: /Tube, wings/ }).click();
  await axe(page, 'cut plan');
  await page.getByRole('button', { name: 'Copy it' }).click();
  await page.getByLabel('What the copy is called').fill('Squid for the grill');
  await page.getByRole('button', { name: 'Go on' }).click();
  await expect(page.getByTestId('sum-0')).toContainText('100');
  const share = page.getByLabel('share, %').first();
  await share.fill('40');
  await page.getByRole('button', { name: 'Step 1 down' }).click();
  await page.getByRole('button', { name: 'Save the plan' }).click();
  await expect(page.getByRole('alert')).toContainText('not to 100 %');
  await axe(page, 'plan editor');
  await page.getByRole('button', { name: 'Share out to 100 %' }).click();
  await page.getByRole('button', { name: 'Save the plan' }).click();
  await expect(page.getByRole('heading', { name: 'Squid for the grill' })).toBeVisible();
  await expect(page.getByText('your own, version 1')).toBeVisible();
  const waiting = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as file' }).click();
  const file = await (await waiting).path();
  await page.getByRole('button', { name: 'Retire it' }).click();
  await expect(page.getByRole('button', { name: 'Bring it back' })).toBeVisible();
  await page.getByRole('link', { name: 'All plans' }).click();
  await page.getByLabel('Cut plan file').setInputFiles(file);
  await expect(page.getByRole('alert')).toContainText('There is already a plan called squid-for-the-grill');
  await page.getByLabel('Cut plan file').setInputFiles({
    name: 'list.json',
    mimeType: 'application/json',
    buffer: Buffer.from('not json at all'),
  });
  await expect(page.getByRole('alert')).toContainText('This file is not JSON');
});
