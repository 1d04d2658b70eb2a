/** What goes through all stations: every screen at three widths and in a machine's own colours, finding, buying, paper. */
import { expect, type Page, test } from '@playwright/test';
import { balance, says, start, weighNext } from './atBench.ts';
import { axe, signInByTouch, watchRequests } from './cook.ts';

const read = async (page: Page, path: string): Promise<Record<string, unknown[]>> =>
  (await (await page.request.get(`/api/v1${path}`)).json()) as Record<string, unknown[]>;
const firstId = async (page: Page, path: string, list: string): Promise<string> => {
  const [first] = (await read(page, path))[list] as readonly { readonly id: string }[];
  if (first === undefined) throw new Error(`${path} gave none`);
  return first.id;
};

test('every screen at three widths: nothing for axe to find, no wider than the page, and what is saved stands over it', async ({
  page,
}) => {
  await signInByTouch(page, 'Maren Ostle');
  const [lot, breakdown, closed, delivery, supplier] = [
    await firstId(page, '/lots?limit=1', 'lots'),
    await firstId(page, '/breakdowns', 'breakdowns'),
    await firstId(page, '/ledger/breakdowns?limit=1', 'breakdowns'),
    await firstId(page, '/deliveries?limit=1', 'deliveries'),
    await firstId(page, '/suppliers', 'suppliers'),
  ];
  const screens: readonly (readonly [path: string, stands: string | RegExp])[] = [
    ['/bench', 'On the bench now'],
    [`/bench/${breakdown}`, /Weighed/],
    ['/bench/plans', 'Cut plans'],
    ['/bench/plans/round-fish-two-fillets', 'Save as file'],
    ['/bench/cut', /under the knife|rolls/i],
    ['/larder', /lots on hand/],
    [`/larder/${lot}`, 'On hand'],
    [`/larder/${lot}/trace`, /^Trace of/],
    ['/larder/tubs', 'Tubs'],
    ['/larder/count', 'Which place'],
    ['/larder/labels', /Labels|printer/i],
    ['/pots', 'So many litres'],
    ['/pots/recipes/fish-fumet', 'As JSON'],
    ['/pots/stove', 'Done'],
    ['/pots/cooling', /log/i],
    ['/pots/plates', /Plates|plate/],
    ['/pots/calculator', /salt/i],
    ['/receive', 'Expected'],
    ['/receive/prices', /Brill/],
    ['/receive/suppliers', 'New supplier'],
    [`/receive/suppliers/${supplier}`, 'What is bought of them'],
    [`/receive/${delivery}`, /received by/],
    ['/ledger', 'What is listed'],
    [`/ledger/${closed}`, 'All breakdowns'],
    ['/house', 'Name of the kitchen'],
    ['/house/people', 'Maren Ostle'],
    ['/house/things', 'Pots and pans'],
    ['/house/devices', 'Probe and printer'],
    ['/house/worth', 'Pantry'],
    ['/house/programs', 'Calls'],
    ['/help/figures', 'What is unaccounted for'],
    ['/help/about', 'Made with'],
    ['/house/changes', /Supplier|From which list/],
    ['/limits', 'The usual cautions'],
    ['/server', 'Backups'],
    ['/waiting', 'Kept on this tablet'],
  ];
  const widths = [1280, 800, 390];
  for (const [path, stands] of screens) {
    await page.setViewportSize({ width: 1280, height: 800 });
    await page.goto(path);
    await expect(
      page
        .locator('#work')
        .getByText(stands)
        .or(page.locator('#work').getByRole('region', { name: stands }))
        .or(page.locator('#work').getByLabel(stands))
        .first(),
    ).toBeAttached();
    for (const width of widths) {
      await page.setViewportSize({ width, height: 800 });
      await axe(page, `${path} at ${width}`, true);
      const over = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
      expect(over, `${path} at ${width} is wider than the page by`).toBeLessThanOrEqual(1);
      await expect(page.getByTestId('saved')).toBeInViewport();
    }
    for (const name of ['Receive', 'Bench', 'Larder', 'Pots', 'Ledger', 'House'])
      await expect(
        page.getByRole('navigation', { name: 'Stations' }).getByText(name, { exact: true }),
      ).toBeInViewport();
  }
});

test('under fingers whatever is pressed at bench, stove and door is 56 px high', async ({ browser }) => {
  const context = await browser.newContext({ hasTouch: true, isMobile: true, viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  await signInByTouch(page, 'Maren Ostle');
  const [breakdown, batch] = [
    await firstId(page, '/breakdowns', 'breakdowns'),
    await firstId(page, '/batches', 'batches'),
  ];
  /** What is too small, but for the ribbon, which is a picture, the simulated hand, which no real house has, and links within a sentence. */
  const small = (): Promise<string[]> =>
    page.evaluate(() =>
      [...document.querySelectorAll('main :is(button, select, input, summary, [role=tab], nav a)')].flatMap((el) => {
        const of = el.matches('[type=checkbox], [type=radio]') ? (el.closest('label') ?? el) : el;
        const { height, width } = of.getBoundingClientRect();
        const left = el.closest('[aria-label="Simulated bench"], .ribbon-part, .sr-only') !== null || width < 2;
        return left || height === 0 || height >= 55.5
          ? []
          : [`${Math.round(height)} ${el.getAttribute('aria-label') ?? el.textContent}`];
      }),
    );
  const at = async (path: string, stands: string | RegExp): Promise<void> => {
    await page.goto(path);
    await expect(page.getByText(stands).first()).toBeVisible();
    expect(await small(), path).toEqual([]);
  };
  await at(`/bench/${breakdown}`, /Weighed/);
  for (const tab of [/^Weights/, 'Tools']) {
    await page.getByRole('tab', { name: tab }).tap();
    expect(await small(), String(tab)).toEqual([]);
  }
  await at('/bench', 'On the bench now');
  await page.getByRole('region', { name: 'To be cut' }).getByRole('button').first().tap();
  await expect(page.getByRole('button', { name: 'Another lot' })).toBeVisible();
  expect(await small(), 'a lot on its way to the bench').toEqual([]);
  await at('/bench/cut', /under the knife|rolls/i);
  await at('/pots', 'Cooling');
  await at(`/pots/stove/${batch}`, 'Card');
  await at('/pots/cooling', 'Cooling');
  await at('/receive', 'Receive');
  await context.close();
});

test('in a machine’s own colours what is open, on and chosen is seen', async ({ page }) => {
  await page.emulateMedia({ forcedColors: 'active' });
  await signInByTouch(page, 'Maren Ostle');
  await page.goto(`/receive/suppliers/${await firstId(page, '/suppliers', 'suppliers')}`);
  const ground = (name: string, role: 'link' | 'button'): Promise<string> =>
    page
      .getByRole(role, { name })
      .first()
      .evaluate((el) => getComputedStyle(el).backgroundColor);
  await expect(page.getByRole('button', { name: 'Mon' }).first()).toBeVisible();
  const stations = page.getByRole('navigation', { name: 'Stations' });
  const groundOf = (name: string): Promise<string> =>
    stations.getByRole('link', { name }).evaluate((el) => getComputedStyle(el).backgroundColor);
  expect(await groundOf('Receive')).not.toBe(await groundOf('Bench'));
  expect(await ground('Suppliers', 'link')).not.toBe(await ground('Prices', 'link'));
  // orders are taken on Mondays and not on Sundays
  expect(await ground('Mon', 'button')).not.toBe(await ground('Sun', 'button'));
});

test('found from anywhere by a few letters, by a label that is scanned, by what was opened last; without the server by what the tablet has read', async ({
  page,
}) => {
  const stayedHome = watchRequests(page);
  await signInByTouch(page, 'Ines Calloway');
  await page.getByRole('button', { name: 'Find' }).click();
  const box = page.getByRole('dialog', { name: 'Find' });
  await box.getByPlaceholder('A name, or the code on a label').fill('turbot');
  await expect(box.getByRole('option').first()).toBeVisible();
  await axe(page, 'find', true);
  await box.getByPlaceholder('A name, or the code on a label').fill('zz nothing');
  await expect(box.getByText('Nothing is called zz nothing.')).toBeVisible();
  // the house is the chefs' business
  await box.getByPlaceholder('A name, or the code on a label').fill('currency pounds');
  await expect(box.getByText(/Nothing is called/)).toBeVisible();
  await page.keyboard.press('Escape');

  const [lot] = (await read(page, '/lots?limit=1'))['lots'] as readonly {
    readonly id: string;
    readonly code: string;
  }[];
  // a scanner that says what it read: no key of it is a tray
  await page.goto(`/bench/${await firstId(page, '/breakdowns', 'breakdowns')}`);
  await expect(page.getByRole('button', { name: 'Find' })).toHaveAttribute('aria-keyshortcuts', '/');
  const weighed = await page.getByTestId('balance').textContent();
  await page.keyboard.type(`]d291${lot?.code}`);
  await expect(page.getByTestId('balance')).toHaveText(weighed ?? '');
  await page.keyboard.press('Enter');
  await page.waitForURL(`**/larder/${lot?.id}`);
  await expect(page.getByText('On hand').first()).toBeVisible();

  await page.goto('/pots');
  await expect(page.getByRole('button', { name: 'Find' })).toHaveAttribute('aria-keyshortcuts', '/');
  await page.keyboard.press('/');
  await expect(box.getByRole('option').first()).toContainText(lot?.code ?? '');
  await page.route('**/api/v1/find**', (route) => route.abort());
  await box.getByPlaceholder('A name, or the code on a label').fill(lot?.code ?? '');
  await expect(box.getByText(/The server cannot be reached/)).toBeVisible();
  await expect(box.getByRole('option').first()).toContainText(lot?.code ?? '');
  await page.keyboard.press('Enter');
  await page.waitForURL(`**/larder/${lot?.id}`);
  stayedHome();
});

test('a supplier’s terms: said once, kept over a reload, and an order knows its day; a price follows the supplier’s list; what is bought of is on paper', async ({
  page,
  browser,
}) => {
  await signInByTouch(page, 'Maren Ostle');
  await page.getByRole('link', { name: /^Receive/ }).click();
  await page.getByRole('link', { name: 'Suppliers' }).click();
  await page.getByLabel('New supplier').fill('Holm Dairy');
  await page.getByLabel('New supplier').press('Enter');
  await page.getByRole('link', { name: /Holm Dairy/ }).click();
  await page.getByLabel('Whom to ask for').fill('Sunniva');
  const taken = page.getByRole('group', { name: 'Orders are taken' });
  for (const day of ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'])
    await taken.getByRole('button', { name: day }).click();
  await page.getByLabel('Ordered by').fill('half past four');
  await expect(page.getByText('A time of the day, such as 16:00 or 4 pm')).toBeVisible();
  await page.getByLabel('Ordered by').fill('23:59');
  await page.reload();
  await expect(page.getByLabel('Whom to ask for')).toHaveValue('Sunniva');
  await expect(taken.getByRole('button', { name: 'Sun' })).toHaveAttribute('aria-pressed', 'true');
  await page.getByLabel('Order at least').fill('60');
  await page.getByRole('button', { name: 'Another thing' }).click();
  await page.getByLabel('What', { exact: true }).selectOption({ label: 'Double cream' });
  await page.getByLabel('A pack').fill('2 kg');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Saved.')).toBeVisible();
  await expect(page.getByText(/order today by 23:59, comes/)).toBeVisible();
  await expect(page.getByText(/an order comes to £60.00 at least/)).toBeVisible();

  // another tablet had it open: it is told, and what was typed there stays
  const other = await (await browser.newContext()).newPage();
  await signInByTouch(other, 'Tobin Arkwell');
  await other.goto(page.url());
  await other.getByLabel('Whom to ask for').fill('Sunniva or Per');
  await page.getByLabel('Telephone').fill('01632 960411');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByLabel('Telephone')).toHaveValue('01632 960411');
  await expect(other.getByLabel('Whom to ask for')).toHaveValue('Sunniva or Per');
  await expect(page.getByText('Saved.')).toBeVisible();

  await page.goto('/receive');
  await page.getByRole('button', { name: 'write an order down' }).click();
  await page.getByLabel('Of which supplier').selectOption({ label: 'Holm Dairy' });
  await expect(page.getByText('To be ordered today by 23:59.')).toBeVisible();
  await page.getByLabel('What', { exact: true }).selectOption({ label: 'Double cream' });
  await page.getByLabel('How much').fill('5 kg');
  await expect(page.getByText(/They pack it by 2,000 g: 3 packs, 1,000 g more than that/)).toBeVisible();

  // the pantry's butter from another supplier's list
  await page.goto('/house/worth');
  const pantry = page.getByRole('region', { name: 'Pantry' });
  await pantry
    .getByRole('button', { name: /^shallots?.*from a price list/ })
    .first()
    .click();
  await page.getByRole('dialog').getByLabel('Search the lists').fill('flour');
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /Plain flour/ })
    .click();
  await expect(pantry.getByText('from its next saving on')).toBeVisible();
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Saved.')).toBeVisible();
  await expect(pantry.getByText('£0.92 a kg, list of', { exact: false }).nth(1)).toBeVisible();

  // each list whole, as a file that can be printed
  for (const [at, name] of [
    ['/larder', 'Print'],
    ['/larder/count', 'Sheet to count by'],
    ['/bench', 'Print'],
    ['/receive/prices', 'Print'],
  ] as const) {
    await page.goto(at);
    if (at === '/larder/count') await page.getByLabel('Which place is counted').selectOption({ label: 'Cold room' });
    const href = await page.getByRole('link', { name, exact: true }).getAttribute('href');
    const sheet = await page.request.get(href ?? '');
    expect([sheet.status(), sheet.headers()['content-type']], at).toEqual([200, 'application/pdf']);
  }
});

test('of two on a lot with one on the bench the other is offered by itself, to two tablets, and the last only once', async ({
  page,
  browser,
}) => {
  await signInByTouch(page, 'Ines Calloway');
  const list = page.getByRole('region', { name: 'To be cut' });
  const duck = list.getByRole('button', { name: /Guinea fowl/ }).filter({ hasText: '2 of them' });
  await duck.first().click();
  await page.getByRole('button', { name: 'Some', exact: true }).click();
  await page.getByLabel('How many').fill('1');
  await page.getByLabel('Weight at the start').fill('1300');
  const code =
    /\d{4}-[A-Z]/.exec((await page.getByRole('region', { name: /^Start Guinea/ }).textContent()) ?? '')?.[0] ?? '';
  await page
    .getByRole('button', { name: /steps first/ })
    .first()
    .click();
  await expect(page.getByTestId('balance')).toContainText('Weighed 0 g');
  await page.goto('/bench');
  const rest = list.getByRole('button', { name: new RegExp(code) });
  await expect(rest).toContainText('one');
  const other = await (await browser.newContext()).newPage();
  await signInByTouch(other, 'Jory Pellam');
  await other
    .getByRole('region', { name: 'To be cut' })
    .getByRole('button', { name: new RegExp(code) })
    .click();
  await expect(other.getByText('How much of it?')).toHaveCount(0);
  await rest.click();
  await page
    .getByRole('button', { name: /steps first/ })
    .first()
    .click();
  await expect(page.getByTestId('balance')).toContainText('Weighed 0 g');
  await expect(other.getByText(/is not here to be cut any more/)).toBeVisible();
  await expect(other.getByRole('button', { name: /steps first/ }).first()).toBeDisabled();
});

test('a token is made and taken back; a tablet is lent; the screen is handed over to somebody who must not touch what lies there', async ({
  page,
  playwright,
}) => {
  await signInByTouch(page, 'Maren Ostle');
  await page.goto('/house/programs');
  await page.getByLabel('For which program').fill('The accountant');
  // half-way: what was typed is there again, but for the PIN
  await page.getByLabel('Your PIN').fill('2468');
  await page.reload();
  await expect(page.getByLabel('For which program')).toHaveValue('The accountant');
  await expect(page.getByLabel('Your PIN')).toHaveValue('');
  await page.getByRole('button', { name: 'Make a token' }).click();
  await expect(page.getByText('Your PIN').last()).toBeVisible();
  await page.getByLabel('Your PIN').fill('2468');
  await page.getByRole('button', { name: 'Make a token' }).click();
  const shown = page.getByRole('status').filter({ hasText: 'not shown again' });
  const token = (await shown.locator('output').textContent()) ?? '';
  await axe(page, 'a token that was made', true);
  const { origin } = new URL(page.url());
  const program = await playwright.request.newContext({ extraHTTPHeaders: { authorization: `Bearer ${token}` } });
  expect((await program.get(`${origin}/api/v1/lots`)).status()).toBe(200);
  await page.reload();
  const row = page.getByRole('listitem').filter({ hasText: 'The accountant' });
  await expect(row).toContainText('last used');
  await row.getByRole('button', { name: 'Take back' }).click();
  await expect(row).toContainText('taken back');
  expect((await program.get(`${origin}/api/v1/lots`)).status()).toBe(401);
  await program.dispose();

  await page.goto('/house/people');
  const jory = page.getByRole('listitem').filter({ hasText: 'Jory Pellam' });
  await jory.getByRole('button', { name: 'Change' }).click();
  await jory.getByRole('button', { name: 'Skills, shifts' }).click();
  await jory.getByRole('button', { name: 'fish', exact: true }).click();
  await jory.getByRole('button', { name: 'Another shift' }).click();
  await jory.getByLabel('From').fill('0');
  await jory.getByLabel('Until').fill('12 am');
  await jory.getByLabel('Sat').check();
  await jory.getByLabel('Sun').check();
  await axe(page, 'what somebody can and when', true);
  await jory.getByRole('button', { name: 'Save' }).click();
  await expect(jory).toContainText('Must not touch fish.');
  await expect(jory).toContainText('Mon to Sun 00:00 to 00:00 the next day');

  await page.goto('/house/devices');
  const here = page.getByRole('region', { name: 'Tablets' }).getByRole('listitem').filter({ hasText: 'this one' });
  await here.getByRole('button', { name: 'Lend it' }).click();
  await here.getByLabel('It is called').fill('Fish bench');
  await here.getByLabel('Jory Pellam').check();
  await here.getByRole('form').getByRole('button', { name: 'Lend it' }).click();
  await expect(here).toContainText('Fish bench');

  // handed over: whoever comes next goes on where it stood
  await page.goto('/bench');
  await page
    .getByRole('region', { name: 'To be cut' })
    .getByRole('button', { name: /Hake|Plaice|Cod/ })
    .first()
    .click();
  await expect(page.getByRole('heading', { name: 'Cut plan' })).toBeVisible();
  await expect(page.getByText(/must not touch/)).toBeHidden();
  const address = page.url();
  await page.getByRole('button', { name: 'Hand over' }).click();
  await expect(page.getByText('Fish bench')).toBeVisible();
  const first = page.getByRole('region', { name: 'Who is at work' }).getByRole('button').first();
  await expect(first).toContainText('Jory Pellam');
  await expect(first).toContainText('on shift');
  await first.click();
  for (const digit of '2468') await page.getByRole('button', { name: digit, exact: true }).click();
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByText('Jory Pellam must not touch fish')).toBeVisible();
  expect(page.url()).toBe(address);
  await page.goto('/house/programs');
  await expect(page.getByText('The house is the chefs’ business')).toBeVisible();
});

test('practice is marked and never booked: the stage does not close with it, and the animal goes back; a scale on the tablet’s own cable is read, tared and let go', async ({
  page,
}) => {
  // a line that the test holds: no machine of the tests has one
  await page.addInitScript(() => {
    let sent: ReadableStreamDefaultController<Uint8Array> | undefined;
    const port = {
      readable: null as ReadableStream<Uint8Array> | null,
      open: () => {
        port.readable = new ReadableStream({
          start: (controller) => {
            sent = controller;
          },
        });
        return Promise.resolve();
      },
      close: () => Promise.resolve(),
    };
    const serial = { requestPort: () => Promise.resolve(port), getPorts: () => Promise.resolve([port]) };
    Object.defineProperty(navigator, 'serial', { value: serial });
    let line = '';
    setInterval(() => {
      if (line !== '') sent?.enqueue(new TextEncoder().encode(`${line}\r\n`));
    }, 100);
    Object.assign(globalThis, {
      lineSays: (text: string): void => {
        line = text;
      },
    });
  });
  const lineSays = (text: string): Promise<void> =>
    page.evaluate((said) => (globalThis as unknown as { lineSays(text: string): void }).lineSays(said), text);
  await signInByTouch(page, 'Maren Ostle');
  await page.goto('/house/devices');
  await page.getByLabel('The bench has a practice scale').check();
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Saved.')).toBeVisible();
  await axe(page, 'devices with a practice scale', true);

  await start(page, /Hake/, /two fillets/i);
  await page.getByRole('tab', { name: /^Tools/ }).click();
  await page.getByRole('button', { name: /^Practice/ }).click();
  await expect(page.getByTestId('practice')).toContainText('the stage cannot be closed with them');
  await axe(page, 'the bench in practice', true);
  await page.getByRole('tab', { name: /^Weights/ }).click();
  await weighNext(page);
  await expect(page.getByRole('listitem').filter({ hasText: 'practice' })).toHaveCount(1);
  await page.getByRole('button', { name: /Close stage/ }).click();
  await expect(says(page)).toContainText('from the practice scale');
  // half-way a reload: the weight stands, marked; what is weighed now lies on the real one again
  await page.reload();
  await expect(page.getByTestId('practice')).toHaveCount(0);
  await page.getByRole('tab', { name: /^Weights/ }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'practice' })).toHaveCount(1);
  await page.getByRole('button', { name: 'Put it back' }).click();
  await expect(page.getByRole('heading', { name: 'On the bench now' })).toBeVisible();

  await page.goto('/house/devices');
  const scales = page.getByRole('region', { name: 'Scales' });
  await page.getByLabel('The bench has a practice scale').uncheck();
  await scales.getByRole('button', { name: 'Another scale' }).click();
  await scales.getByLabel('Name').last().fill('On the tablet');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Saved.')).toBeVisible();
  await scales.getByRole('button', { name: 'Read it over this tablet’s cable' }).last().click();
  await lineSays('ST,GS,+  0.412kg');
  await expect(page.getByTestId('cable')).toContainText('412 g steady');
  await axe(page, 'a scale on its own cable', true);
  await page.goto('/bench');
  await lineSays('ST,GS,+  0.500kg');
  await start(page, /Hake/, /two fillets/i);
  await page.getByRole('tab', { name: /^Tools/ }).click();
  await page.getByRole('button', { name: /On the tablet/ }).click();
  await expect(page.getByTestId('pan')).toContainText('500');
  await page.keyboard.press('t');
  await expect(page.getByTestId('pan')).toContainText('0');
  await lineSays('ST,GS,+  0.582kg');
  await expect(page.getByTestId('pan')).toContainText('82');
  await page.getByRole('button', { name: /Take weight/ }).click();
  await expect(balance(page)).toContainText('Weighed 82 g');
  await page.getByRole('button', { name: 'Undo last weight' }).click();
  await page.getByRole('button', { name: 'Put it back' }).click();
  await page.goto('/house/devices');
  await page.getByRole('button', { name: 'Read it here no more' }).click();
  await expect(page.getByTestId('cable')).toHaveCount(0);
});
