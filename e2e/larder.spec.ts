/** Receive and Larder as their people work them: the delivery with trouble in it, freezing, tubs, recall, counting. */
import { expect, type Page, test } from '@playwright/test';
import { lots } from './comes.ts';
import { axe, goOffline, keptOnDevice, load, openedId, signInByTouch, watchRequests } from './cook.ts';

/** Takes the probe's figure once it rests on what it was stuck into. */
async function probe(page: Page, degrees: string): Promise<void> {
  await page.getByLabel('Stick the simulated probe into, degrees').fill(degrees);
  await page.getByLabel('Stick the simulated probe into, degrees').press('Enter');
  const take = page.getByRole('button', { name: 'Take the temperature from the probe' });
  await expect(take).toContainText(`${Number(degrees).toFixed(1)} °C`);
  await expect(take).toBeEnabled();
  await take.click();
}

async function pick(page: Page, typed: string, name: RegExp): Promise<void> {
  await page.getByPlaceholder(/Animal/).fill(typed);
  await page.getByRole('option', { name }).click();
}

/** Accepts one line of goods and gives its code. */
async function accept(page: Page, typed: string, name: RegExp, grams: number, price: string): Promise<string> {
  await pick(page, typed, name);
  await page.getByLabel('Gross, with box').fill(String(grams));
  await page.getByLabel('Invoice weight').fill(String(grams));
  await page.getByLabel('Invoice price, in all').fill(price);
  if (await page.getByLabel('Supplier', { exact: true }).isEnabled())
    await page.getByLabel('Supplier', { exact: true }).selectOption({ label: 'Bram Quay Fish' });
  await page.getByRole('button', { name: 'Accept delivery' }).click();
  return ((await page.getByTestId('new-code').textContent()) ?? '').trim();
}

async function planALittleFumet(page: Page): Promise<void> {
  await page.goto('/pots');
  await page.getByLabel('Search what can be made').fill('Fumet');
  await page
    .getByRole('radio', { name: /^Fumet/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'So many litres' }).click();
  await page.getByRole('textbox', { name: 'Litres' }).fill('0.3');
  await page.getByRole('button', { name: 'Plan this batch' }).click();
}

test('a delivery: a scanned box, short weight, a refused line with its photograph, and the claim', async ({ page }) => {
  const stayedHome = watchRequests(page);
  await signInByTouch(page, 'Ines Calloway');
  await page.getByRole('link', { name: /^Receive/ }).click();

  // the turbot's box is scanned: use-by, lot and weight of the invoice come from it
  await pick(page, 'turb', /Turbot/);
  await page.getByLabel('Scan a box').fill('019952123400101331030062401726113010T2611A');
  await page.getByLabel('Scan a box').press('Enter');
  await expect(page.getByText(/lot.*T2611A/i).first()).toBeVisible();
  await expect(page.getByLabel('Invoice weight')).toHaveValue('6240');
  await expect(page.getByLabel('Use by', { exact: true })).toHaveValue('2026-11-30');
  // a box that was read wrong is said so, and changes nothing
  await page.getByLabel('Scan a box').fill('019952123400101410T1');
  await page.getByLabel('Scan a box').press('Enter');
  await expect(page.getByText(/check digit/)).toBeVisible();
  await expect(page.getByLabel('Invoice weight')).toHaveValue('6240');

  // look, smell, press; probe; two boxes over the scale, 240 g short
  for (const point of ['Slime on the dark side', 'Blind side', 'Gills', 'Gills and gut cut', 'Thick of the shoulder'])
    await page
      .getByRole('button', { name: `${point}: yes`, exact: false })
      .first()
      .click();
  await expect(page.getByText(/Nothing against it|Look again/)).toBeVisible();
  await probe(page, '1.4');
  await expect(page.getByLabel('Temperature', { exact: true })).toHaveValue('1.4');
  await load(page, 410);
  await page.getByRole('button', { name: 'Take box from the scale' }).click();
  await load(page, 3_410);
  await expect(page.getByRole('button', { name: 'Take gross from the scale' })).toContainText('3,410');
  await page.getByRole('button', { name: 'Take gross from the scale' }).click();
  await page.getByRole('button', { name: 'Another box' }).click();
  await page.getByLabel('Gross, with box').fill('3410');
  await page.getByLabel('Box', { exact: true }).fill('410');
  await page.getByRole('button', { name: 'Add them up' }).click();
  await expect(page.getByTestId('net')).toHaveText('6,000 g');
  await expect(page.getByTestId('boxes')).toContainText('2 boxes: 3,000 g, 3,000 g');
  await page.getByLabel('Invoice price, in all').fill('164.74');
  await expect(page.getByTestId('difference')).toContainText('240 g short, £6.34');
  await page.getByLabel('Supplier', { exact: true }).selectOption({ label: 'Bram Quay Fish' });
  await page.getByLabel('Invoice number').fill('BQF 7');
  await page.getByLabel('Catch area').fill('27.7.e');
  await axe(page, 'a line of a delivery');
  await page.getByRole('button', { name: 'Accept delivery' }).click();
  await expect(page.getByTestId('new-code')).toHaveText(/^\d{4}-[A-Z]$/);

  // the mussels gape: all of them go back
  await page.getByRole('button', { name: 'Next line' }).click();
  await pick(page, 'muss', /Mussel/);
  await page.getByRole('button', { name: /^Tap the open ones: no/ }).click();
  await expect(page.getByText('One of these is enough to send it back')).toBeVisible();
  await page.getByLabel('Invoice weight').fill('3 kg');
  await page.getByLabel('Invoice price, in all').fill('12.60');
  await page.getByRole('button', { name: 'Refuse…' }).click();
  await page.getByLabel('Why', { exact: true }).selectOption({ label: 'dead on arrival' });
  await page.getByRole('button', { name: 'Refuse all of it' }).click();
  await expect(page.getByLabel('Refused')).toContainText('Goes back: dead on arrival');

  // photograph, claim, close
  await page.getByRole('link', { name: 'Photographs, claim, close' }).click();
  await expect(page.getByTestId('claim')).toContainText('240 g short');
  await expect(page.getByTestId('claim')).toContainText('refused whole: dead on arrival');
  await expect(page.getByTestId('claim')).toContainText('Please credit £18.94');
  await expect(page.getByTestId('claim')).toContainText('your invoice BQF 7');
  const picture = await page.screenshot({ clip: { x: 0, y: 0, width: 300, height: 200 } });
  await page
    .getByLabel('Photograph of Mussel')
    .setInputFiles({ name: 'gaping.png', mimeType: 'image/png', buffer: picture });
  await expect(page.getByRole('img', { name: '1 of Mussel' })).toBeVisible();
  await page.getByLabel('Photograph of Mussel').setInputFiles({
    name: 'no.jpg',
    mimeType: 'image/jpeg',
    buffer: Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>'),
  });
  await expect(page.getByText('no JPEG, PNG or WebP photograph')).toBeVisible();
  const pdf = await page.request.get((await page.getByRole('link', { name: 'As PDF' }).getAttribute('href')) ?? '');
  expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-');
  await axe(page, 'delivery');
  await page.getByRole('button', { name: 'Nothing more comes: close it' }).click();
  await expect(page.getByText(/· closed /)).toBeVisible();
  stayedHome();
});

test('freeze, thaw and use a lot; a second freezing is asked about; undo puts it back', async ({ page }) => {
  await signInByTouch(page, 'Tobin Arkwell');
  await page.getByRole('link', { name: /^Receive/ }).click();
  const code = await accept(page, 'gurn', /Gurnard/, 1_400, '9.10');
  await page.getByRole('link', { name: /^Larder/ }).click();
  await page.getByLabel('Search by name, code or supplier').fill(code);
  // the list narrows a moment after the last letter
  await expect(page.getByTestId('lots').getByRole('link')).toHaveCount(1);
  await page.getByRole('link', { name: /Gurnard/ }).click();
  const lot = page.getByLabel('Lot', { exact: true });
  await expect(lot).toContainText(code);
  await axe(page, 'a lot');
  await lot.getByRole('button', { name: 'Freeze', exact: true }).click();
  await lot.getByRole('button', { name: /^Freeze all of it/ }).click();
  await expect(lot).toContainText('frozen, into Freezer');
  await expect(lot).toContainText('days frozen, of quality');
  await expect(lot.getByRole('link', { name: 'Put it on the bench' })).toHaveCount(0);

  // thaw, undo, thaw again
  await lot.getByRole('button', { name: 'Thaw', exact: true }).click();
  await lot.getByRole('button', { name: /^Thaw all of it/ }).click();
  await expect(lot).toContainText('thawed, into Cold room');
  await lot.getByRole('button', { name: 'Undo' }).click();
  await expect(lot.getByRole('button', { name: 'Thaw', exact: true })).toBeVisible();
  await lot.getByRole('button', { name: 'Thaw', exact: true }).click();
  await lot.getByRole('button', { name: /^Thaw all of it/ }).click();
  await expect(lot).toContainText('no more days than it had');

  // freezing it again wants reading first
  await lot.getByRole('button', { name: 'Freeze', exact: true }).click();
  await lot.getByRole('button', { name: /^Freeze all of it/ }).click();
  await expect(lot).toContainText('It was frozen and thawed before');
  await expect(lot.getByRole('button', { name: 'I have read it. Do it' })).toBeVisible();

  // a probe reading is judged against the limit selected, and nothing is ever called safe
  await lot.getByRole('button', { name: 'Probe', exact: true }).click();
  await probe(page, '9.2');
  await expect(lot).toContainText(/outside the limit you selected of [23]\.0 °C/);
  expect(await lot.textContent()).not.toMatch(/\bsafe\b/i);

  // used: half to the staff, the rest served
  await lot.getByRole('textbox', { name: 'Take out' }).fill('700');
  await lot.getByRole('button', { name: 'Staff ate it' }).click();
  await expect(lot).toContainText('700 g of 1,400 g');
  await lot.getByRole('textbox', { name: 'Take out' }).fill('700');
  await lot.getByRole('button', { name: 'Served' }).click();
  await expect(lot).toContainText('0 g of 1,400 g');
});

test('a tub fills until it says that a pot is due, and its label scans back', async ({ page }) => {
  await signInByTouch(page, 'Tobin Arkwell');
  await page.goto('/larder?tray=stock&by=species');
  await expect(page.getByTestId('lots').getByRole('link').first()).toBeVisible();
  // frames and strips of white fish start a tub
  const boxes = page.getByTestId('lots').getByRole('checkbox', { name: /frame|pin bones/i });
  await expect(boxes.first()).toBeVisible();
  await boxes.first().check();
  await page.getByRole('button', { name: 'Start a tub' }).click();
  await page.getByLabel('Name of the tub').fill('Bones of today');
  await page.getByRole('button', { name: 'Into the tub' }).click();
  const tub = page.getByRole('article', { name: 'Bones of today' });
  await expect(tub).toContainText('for fumet');
  await expect(tub).toContainText('there is enough for fumet');
  await axe(page, 'tubs');
  // everything that may go in goes in: with enough frames it is due
  for (let i = 0; i < 40; i += 1) {
    if (await tub.getByText('Enough for a pot.').isVisible()) break;
    const offer = tub.getByRole('checkbox').first();
    await offer.check();
    const before = await tub.locator('header').textContent();
    await tub.getByRole('button', { name: /^Put 1 in/ }).click();
    await expect(tub.locator('header')).not.toHaveText(before ?? '');
  }
  await expect(tub.getByText('Enough for a pot.')).toBeVisible();
  const code = ((await tub.getByRole('link').first().textContent()) ?? '').trim();

  // label: printed, marked the second time, and it scans back to the tub
  await tub.getByRole('link', { name: code }).click();
  const lot = page.getByLabel('Lot', { exact: true });
  await lot.getByRole('button', { name: 'Label', exact: true }).click();
  await lot.getByRole('button', { name: 'Print', exact: true }).click();
  await expect(lot).toContainText('1 label printed');
  await lot.getByRole('link', { name: 'What came out' }).click();
  await expect(page.getByRole('img', { name: `Label ${code}, Bones of today` })).toBeVisible();
  await expect(page.getByRole('link', { name: new RegExp(`${code} Bones of today`) })).toBeVisible();
  await axe(page, 'labels');
  await page.getByRole('link', { name: /^Receive/ }).click();
  await page.getByLabel('Scan a box').fill(`91${code}`);
  await page.getByLabel('Scan a box').press('Enter');
  await expect(page.getByLabel('Lot', { exact: true })).toContainText('Bones of today');

  // the pot is planned from the tub
  await page.goto('/larder/tubs');
  await tub.getByRole('link', { name: 'Plan it' }).click();
  await expect(page.getByText('Bones of today').first()).toBeVisible();
});

test('a mock recall: the delivery is held, what it went into is found, and nothing leaves', async ({ page }) => {
  await signInByTouch(page, 'Maren Ostle');
  await page.goto('/larder?by=species');
  await page.getByLabel('Search by name, code or supplier').fill('Plaice fillets');
  await page
    .getByTestId('lots')
    .getByRole('link', { name: /Plaice fillets/ })
    .first()
    .click();
  const lot = page.getByLabel('Lot', { exact: true });
  await lot.getByLabel('Made from').or(lot.getByText('Made from')).first().waitFor();
  await lot.getByRole('button', { name: 'Hold', exact: true }).click();
  await lot.getByLabel('Why nothing may leave it').fill('recall of the boat, mock');
  await lot.getByRole('button', { name: 'Hold it' }).click();
  await expect(lot).toContainText('on hold: recall of the boat, mock');
  await lot.getByRole('button', { name: 'Served' }).click();
  await expect(lot).toContainText('is held back: recall of the boat, mock');

  // up to the boat, and down from it to everything it went into
  await lot.getByRole('link', { name: /^Trace it/ }).click();
  await expect(page.getByRole('heading', { name: /Plaice/ }).first()).toBeVisible();
  await page.getByRole('region', { name: 'Made from' }).getByRole('link').first().click();
  await expect(page.getByRole('region', { name: 'Went into' }).getByRole('link').nth(2)).toBeVisible();
  await page.reload();
  await expect(page.getByText('on hold').first()).toBeVisible();
  await axe(page, 'trace');

  // everything held is one filter away, and a chef lets it go
  await page.goto('/larder?show=held');
  await page.getByTestId('lots').getByRole('link').first().click();
  await page.getByLabel('Lot', { exact: true }).getByRole('button', { name: 'Let go' }).click();
  await page.getByLabel('Lot', { exact: true }).getByRole('button', { name: 'Let it go' }).click();
  await expect(page.getByText('Nothing like that on hand')).toBeVisible();
});

test('a stock-take: the freezer is walked through, a difference is explained, and it stands in the lot', async ({
  page,
}) => {
  await signInByTouch(page, 'Tobin Arkwell');
  await page.goto('/larder/count');
  await page.getByLabel('Which place is counted').selectOption({ label: 'Freezer' });
  const lines = page.getByRole('list', { name: /What should be here/ }).getByRole('listitem');
  await expect(lines.first()).toBeVisible();
  await axe(page, 'stock-take');
  const total = await lines.count();
  // one of some weight goes over the scale, 20 g less; everything else agrees
  const known = (await lines.allTextContents()).map((text) =>
    Number(text.match(/([\d,]+) g/)?.[1]?.replace(',', '') ?? 0),
  );
  const at = known.findIndex((g) => g > 200);
  const first = lines.nth(at);
  const code = ((await first.textContent()) ?? '').slice(0, 6);
  const less = (known[at] ?? 0) - 20;
  await load(page, less);
  const take = page.getByRole('button', { name: `${code}: take the scale’s weight` });
  await expect(take).toContainText(new Intl.NumberFormat('en-GB').format(less));
  await take.click();
  for (let i = 0; i < total; i += 1)
    if (i !== at)
      await lines
        .nth(i)
        .getByRole('button', { name: /it agrees/ })
        .click();
  await expect(page.getByTestId('round')).toContainText(
    `${total} of ${total} counted, 1 differ by −20 g; 1 want a reason`,
  );
  await page.getByRole('button', { name: 'Write the round down' }).click();
  await expect(page.getByText('1 differ and want a reason.')).toBeVisible();
  await first.getByRole('button', { name: 'drip' }).click();
  await page.getByRole('button', { name: 'Write the round down' }).click();
  await expect(page.getByText(`${total} counted, 1 differed by −20 g`)).toBeVisible();
  await page.goto('/larder');
  await page.getByLabel('Search by name, code or supplier').fill(code);
  await expect(page.getByTestId('lots').getByRole('link')).toHaveCount(1);
  await page.getByTestId('lots').getByRole('link').click();
  await expect(page.getByLabel('Lot', { exact: true })).toContainText('counted');
});

test('prices: a list with faults in it is shown before it counts, read in, and taken back', async ({ page }) => {
  await signInByTouch(page, 'Maren Ostle');
  await page.goto('/receive/prices');
  const list =
    'Product;Price;Unit\r\n"Hake, gutted, 2-4 kg";12,40;kg\r\n=HYPERLINK("x");3;kg\r\nBream;free;kg\r\nSea bream;14.90;kg\r\n';
  const choose = (name: string, buffer: Buffer) =>
    page.getByLabel('Read in a CSV list').setInputFiles({ name, mimeType: 'text/csv', buffer });
  await choose('bad.csv', Buffer.from([105, 116, 101, 109, 44, 112, 10, 80, 252, 114, 44, 49]));
  await expect(page.getByText('not written in UTF-8')).toBeVisible();
  await choose('week.csv', Buffer.from(list));
  await expect(page.getByText('2 of 4 rows can be read')).toBeVisible();
  await expect(page.getByText('line 3 has a cell that a spreadsheet would run')).toBeVisible();
  await page.getByRole('combobox', { name: /^Supplier/ }).selectOption({ label: 'Bram Quay Fish' });
  await axe(page, 'price list');
  await page.getByRole('button', { name: 'Read in 2 prices' }).click();
  await expect(page.getByRole('row', { name: /Hake, gutted, 2-4 kg.*£12\.40/ })).toBeVisible();
  await page.getByRole('button', { name: 'Hake, gutted, 2-4 kg' }).click();
  await expect(page.getByLabel('Price history')).toContainText('£12.40');
  await page
    .getByRole('listitem')
    .filter({ hasText: 'week.csv' })
    .getByRole('button', { name: 'Take it back' })
    .click();
  await expect(page.getByRole('row', { name: /Sea bream/ })).toHaveCount(0);
});

test('limits: the head chef selects with who and why; what we are not sure of is no limit', async ({ page }) => {
  await signInByTouch(page, 'Maren Ostle');
  await page.goto('/limits');
  await expect(page.getByText('selected by your house')).toBeVisible();
  await axe(page, 'limits');
  await page.getByLabel('Profile').selectOption({ index: 1 });
  await expect(page.getByText('not selected')).toBeVisible();
  await page.getByRole('button', { name: 'Cold holding' }).click();
  await expect(page.getByText('Check your code.').first()).toBeVisible();
  await page.getByRole('button', { name: 'Select, or change figures' }).click();
  await page.getByLabel('Why this profile, and who says so').fill('We moved.');
  await page
    .getByRole('button', { name: /^Select / })
    .last()
    .click();
  await expect(page.getByText('selected by your house')).toBeVisible();
  await expect(page.getByLabel('Who and why')).toContainText('We moved.');
});

test('an hour without the server: taken out, moved, received and planned; another tablet takes from the same lot; all of it once', async ({
  browser,
}) => {
  const context = await browser.newContext();
  const page = await context.newPage();
  await signInByTouch(page, 'Ines Calloway');
  await page.evaluate(() => navigator.serviceWorker.ready);
  await page.getByRole('link', { name: /Receive/ }).click();
  const code = await accept(page, 'sea bass', /Sea bass/, 3_000, '42');
  await page.goto('/larder');
  await page.getByLabel('Search by name, code or supplier').fill(code.slice(0, 4));
  await expect(page.getByTestId('lots').getByRole('link')).toHaveCount(1);
  await page.getByTestId('lots').getByRole('link').click();
  const lot = page.getByLabel('Lot', { exact: true });
  await expect(lot).toContainText(code);
  const address = page.url();
  const lotId = openedId(page);
  // this tablet has never been at the pots: it has read for itself what it may need
  for (const read of [lotId, 'fish-fumet', '"lots","pots"', '"suppliers"', '"catalogue"'])
    await keptOnDevice(page, read);
  const other = await (await browser.newContext()).newPage();
  await signInByTouch(other, 'Jory Pellam');
  await other.goto(address);
  const theirs = other.getByLabel('Lot', { exact: true });
  await expect(theirs).toContainText('3,000 g of 3,000 g');

  await goOffline(page);
  const takeOut = async (on: typeof lot, grams: number, to: string): Promise<void> => {
    await on.getByRole('textbox', { name: 'Take out' }).fill(String(grams));
    await on.getByRole('button', { name: to }).click();
  };
  await takeOut(lot, 700, 'Served');
  await expect(lot.getByTestId('waits-here')).toContainText(/served, 700 g/);
  // it is gone from what can be taken: not once more by mistake
  await expect(lot.getByRole('textbox', { name: 'Take out' })).toHaveValue('');
  await lot.getByRole('textbox', { name: 'Take out' }).fill('2400');
  await expect(lot).toContainText('of which 700 g waits to leave it');
  await page.reload();
  await expect(lot.getByTestId('waits-here')).toContainText(/served, 700 g/);
  await expect(lot.getByRole('textbox', { name: 'Take out' })).toHaveValue('2400');
  await lot.getByRole('button', { name: 'Begin anew' }).click();
  await expect(lot.getByRole('textbox', { name: 'Take out' })).toHaveValue('');
  await lot.getByRole('button', { name: 'Freeze', exact: true }).click();
  await lot.getByRole('button', { name: /^Freeze all of it/ }).click();
  await expect(lot.getByTestId('waits-here').getByRole('listitem')).toHaveCount(2);
  // meanwhile the other tablet, with a network, takes from the same lot
  await takeOut(theirs, 300, 'Staff ate it');
  await expect(theirs).toContainText('2,700 g of 3,000 g');
  await page.getByRole('link', { name: /Receive/ }).click();
  await pick(page, 'gurn', /Gurnard/);
  await page.getByLabel('Gross, with box').fill('1465');
  await page.getByLabel('Invoice weight').fill('1465');
  await page.getByLabel('Invoice price, in all').fill('9.38');
  await page.getByLabel('Supplier', { exact: true }).selectOption({ label: 'Bram Quay Fish' });
  await page.getByRole('button', { name: 'Accept delivery' }).click();
  await expect(page.getByTestId('waits-here')).toContainText('Gurnard, 1,465 g taken in');
  await expect(page.getByLabel('Gross, with box')).toHaveValue('');
  await axe(page, 'a line that waits');
  await planALittleFumet(page);
  await expect(page.getByTestId('waits-here')).toContainText('A batch of');
  await expect(page.getByTestId('saved')).toContainText('4 kept here');

  await context.setOffline(false);
  await expect(page.getByTestId('saved')).toContainText('all saved');
  await expect(page.getByRole('region', { name: 'Going' })).toContainText('planned');
  await expect(page.getByTestId('waits-here')).toHaveCount(0);
  // 3,000 received, 300 eaten, 700 served
  await expect(theirs).toContainText('2,000 g of 3,000 g');
  await expect(theirs).toContainText('frozen');
  await other.goto('/receive');
  await expect(other.getByLabel('Latest deliveries')).toContainText('Gurnard');
  await other.context().close();
  await context.close();
});

test('what is typed is there again: after a reload, after another screen, and after signing in anew', async ({
  page,
  context,
}) => {
  await signInByTouch(page, 'Maren Ostle');
  await planALittleFumet(page);
  await expect(page).toHaveURL(/\/pots\/stove\/[0-9a-f-]{36}/);
  const batch = new URL(page.url()).pathname;
  const [{ id: lotId = '' } = {}] = await lots(page, '');
  const value = (label: string, text: string, exact = true) => ({
    field: () => page.getByLabel(label, { exact }).first(),
    text,
  });
  const forms = [
    {
      at: '/receive',
      open: async () => {
        await pick(page, 'hak', /Hake/);
        await page.getByRole('button', { name: 'write an order down' }).click();
      },
      fields: [value('Gross, with box', '2861'), value('Expected on', '2027-03-27')],
      also: () => expect(page.getByRole('button', { name: /Hake. Change/ })).toBeVisible(),
    },
    {
      at: '/larder/count',
      open: () => Promise.resolve(),
      fields: [
        { field: () => page.getByLabel(/counted, grams$/).first(), text: '123' },
        value('Note on this round', 'half way'),
      ],
    },
    {
      at: '/limits',
      open: () => page.getByRole('button', { name: 'Select, or change figures' }).click(),
      fields: [value('Why this profile, and who says so', 'The inspector, on Tuesday')],
    },
    {
      at: '/pots/recipes/fish-fumet',
      open: () => Promise.resolve(),
      fields: [value('What changed, and why', 'less wine')],
    },
    {
      at: '/bench/plans/round-fish-two-fillets',
      open: () => page.getByRole('button', { name: 'Change it' }).click(),
      fields: [value('share, %', '41')],
    },
    {
      at: '/bench/plans',
      open: () => page.getByRole('button', { name: 'Add a species' }).click(),
      fields: [value('Name', 'Wreckfish'), value('Scientific name', 'Polyprion americanus')],
    },
    {
      at: '/pots/plates',
      open: () => page.getByRole('button', { name: 'A new plate' }).click(),
      fields: [value('The plate', 'Hake, brown butter')],
    },
    {
      at: '/pots/cooling',
      open: () => Promise.resolve(),
      fields: [value('What', 'brown stock'), value('Cold room at', '4')],
    },
    {
      at: `/larder/${lotId}`,
      open: () => Promise.resolve(),
      fields: [{ field: () => page.getByRole('textbox', { name: 'Take out' }), text: '17' }],
    },
    {
      at: batch,
      open: () => Promise.resolve(),
      fields: [value('Strained', '4.2'), value('Bones thrown away', '3900'), value('Down to, litres', '2.5')],
    },
  ];
  const stands = async (form: (typeof forms)[number]): Promise<void> => {
    for (const { field, text } of form.fields) await expect(field(), form.at).toHaveValue(text);
    await form.also?.();
  };
  for (const form of forms) {
    await page.goto(form.at);
    await form.open();
    for (const { field, text } of form.fields) await field().fill(text);
    await stands(form);
    await page.reload();
    await stands(form);
    await expect(page.getByTestId('still-here').first(), form.at).toContainText('Still here from');
    // left by the bar, and come back to by the browser's own way back
    await page.getByRole('link', { name: /^Ledger/ }).click();
    await expect(page).toHaveURL(/\/ledger/);
    await page.goBack();
    await stands(form);
  }
  await axe(page, 'a form that stands as it was left');
  await context.clearCookies();
  await page.goto('/bench');
  await expect(page.getByRole('heading', { name: 'Who is at work?' })).toBeVisible();
  // another one at this tablet sees none of it
  await signInByTouch(page, 'Ines Calloway');
  await page.goto('/receive');
  await expect(page.getByLabel('Gross, with box')).toHaveValue('');
  await context.clearCookies();
  await signInByTouch(page, 'Maren Ostle');
  for (const form of forms) {
    await page.goto(form.at);
    await stands(form);
  }
  // let go, it is gone
  await page.getByTestId('still-here').getByRole('button', { name: 'Begin anew' }).click();
  await expect(page.getByLabel('Strained', { exact: true })).toHaveValue('');
  await page.reload();
  await expect(page.getByLabel('Strained', { exact: true })).toHaveValue('');
  await page.goto('/receive');
  await page
    .getByLabel('Receive a delivery')
    .getByTestId('still-here')
    .getByRole('button', { name: 'Begin anew' })
    .click();
  await expect(page.getByPlaceholder(/Animal/)).toBeVisible();
  await expect(page.getByLabel('Gross, with box')).toHaveValue('');
});
