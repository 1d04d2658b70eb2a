/** Pictures of each main view from demo data, into docs/screenshots: npm run screenshots */

import { execFileSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Locator, type Page, test } from '@playwright/test';
import { load, putOn, signInByTouch } from './cook.ts';

const shot = async (page: Page, name: string): Promise<void> => {
  await page.mouse.move(0, 400);
  await page.evaluate(() => document.fonts.ready);
  await page.waitForTimeout(500);
  await page.screenshot({ path: `../docs/screenshots/${name}.png` });
};

test('pictures', async ({ page }) => {
  test.setTimeout(300_000);
  process.chdir(import.meta.dirname);
  await page.goto('/');
  await page.getByText('Who is at work?').waitFor();
  await signInByTouch(page, 'Maren Ostle');
  await shot(page, 'bench-start');

  await page.getByRole('link', { name: /^Receive/ }).click();
  await page.getByPlaceholder(/Animal/).fill('hak');
  await page.getByRole('option', { name: /Hake/ }).click();
  await page.getByRole('button', { name: /^Eyes: yes/ }).click();
  await page.getByRole('button', { name: /^Gills, lifted with a finger: yes/ }).click();
  await page.getByRole('button', { name: /^Flesh beside the backbone: no/ }).click();
  await page.getByLabel('Gross, with box').fill('5.44 kg');
  await page.getByLabel('Box', { exact: true }).fill('820');
  await page.getByLabel('Invoice weight').fill('4.8 kg');
  await page.getByLabel('Invoice price, in all').fill('52.56');
  await page.getByLabel('Supplier', { exact: true }).selectOption({ label: 'Bram Quay Fish' });
  await page.getByLabel('Temperature', { exact: true }).fill('1.4');
  await page.getByLabel('How many').fill('2');
  await page.getByLabel('Origin').fill('Marrow Bay, day boat');
  await load(page, 1_240);
  await page.evaluate(() => scrollTo(0, 0));
  await shot(page, 'receive');

  await page.getByRole('link', { name: /^Bench/ }).click();
  await page
    .getByRole('complementary')
    .getByRole('link', { name: /weighed/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'Put the next piece on' }).waitFor();
  await putOn(page, () => page.keyboard.press('p'));
  await shot(page, 'bench');

  // crab, picked bit by bit, then without the network
  await page.getByRole('link', { name: /^Bench/ }).click();
  await page
    .getByRole('listitem')
    .filter({ hasText: 'Brown crab: claws' })
    .getByRole('button', { name: 'Carry on' })
    .click();
  await page.getByRole('button', { name: /^white meat/ }).click();
  for (let i = 0; i < 4; i += 1) {
    await putOn(page, () => page.keyboard.press('p'));
    await page.keyboard.press('Space');
    await page.waitForTimeout(150);
  }
  await page.getByRole('button', { name: /Pick through/ }).click();
  await page.getByRole('button', { name: 'Count a pass' }).click();
  await page.context().setOffline(true);
  for (const g of [31, 28]) {
    await page.keyboard.press('m');
    await page.getByLabel('Weight, typed').fill(String(g));
    await page.keyboard.press('Enter');
    await page.getByLabel('Weight, typed').waitFor({ state: 'hidden' });
  }
  await page.getByRole('tab', { name: /^Weights/ }).click();
  await page.waitForTimeout(1_500);
  await page.context().setOffline(false);
  await page.getByText('all saved').waitFor();

  await page.getByRole('link', { name: /^Ledger/ }).click();
  await page.getByLabel('Animal').selectOption({ label: 'Hake' });
  await page.getByRole('row', { name: /Hake/ }).nth(1).waitFor();
  await page.getByRole('row', { name: /Hake/ }).first().click();
  await page.getByTestId('total-weight').waitFor();
  await page.waitForTimeout(1_000);
  await page.setViewportSize({ width: 1280, height: 1140 });
  await shot(page, 'yield-sheet');
  await page.setViewportSize({ width: 1280, height: 800 });

  await page.getByRole('link', { name: /^Larder/ }).click();
  await page
    .getByRole('link', { name: /Hake fillet/ })
    .first()
    .click();
  await page.getByText('Made from').waitFor();
  await shot(page, 'larder');
  await page.getByRole('link', { name: /Trace it/ }).click();
  await page.getByRole('region', { name: 'Made from' }).getByRole('link').first().click();
  await page.getByRole('region', { name: 'Went into' }).getByRole('row').nth(4).waitFor();
  await shot(page, 'trace');
  await page.getByRole('link', { name: /^Pots/ }).click();
  await page.goto('/pots?recipe=fish-fumet');
  await page.getByRole('combobox', { name: 'Pot' }).selectOption('pot-12');
  await shot(page, 'pots');
  await page.getByRole('button', { name: 'Plan this batch' }).click();
  await page.getByRole('region', { name: 'Next step' }).waitFor();
  await page.keyboard.press('d');
  await page.getByText('Step 2 of').waitFor();
  await page.keyboard.press('t');
  const mark = page.getByRole('region', { name: 'To the mark' });
  await mark.getByLabel('Pan').selectOption('pan-24');
  await mark.getByLabel('Burner').selectOption('gas-small');
  await mark.getByRole('button', { name: 'sauce base' }).click();
  await mark.getByRole('button', { name: 'Set the mark' }).click();
  await mark.getByLabel('Stands at').fill('8.4');
  await mark.getByRole('button', { name: 'Read it' }).click();
  await mark.getByTestId('minutes-left').waitFor();
  await shot(page, 'stove');
  await page.goto('/pots/cooling');
  await page.getByRole('article').first().waitFor();
  await shot(page, 'cooling');
  await page.goto('/house/people');
  await page.getByRole('list', { name: 'People' }).getByRole('button', { name: 'Change' }).nth(1).click();
  await page.getByRole('form', { name: 'Save' }).waitFor();
  await shot(page, 'people');
  await page.goto('/house/things');
  await page.getByRole('region', { name: 'Pots and pans' }).evaluate((region) => region.scrollIntoView());
  await shot(page, 'things');
  await page.goto('/bench');
  await page.getByRole('button', { name: 'Find', exact: true }).click();
  await page.getByPlaceholder('A name, or the code on a label').fill('hake bram');
  await page.getByRole('option').nth(3).waitFor();
  await shot(page, 'find');
  await page.keyboard.press('Escape');
  await page.goto('/house/devices');
  const scale = page.getByRole('region', { name: 'Scales' }).getByRole('listitem').first();
  await scale.getByRole('button', { name: 'Check with weights' }).click();
  await scale.getByLabel('It showed').first().fill('500');
  await scale.getByLabel('It showed').nth(1).fill('5003');
  await shot(page, 'devices');

  // cutting to weight: the ruler with its mixes and what was got, a roll
  const cut = async (kind: string, name: RegExp): Promise<void> => {
    await page.goto(`/bench/cut?as=${kind}`);
    // past midnight yesterday's stands first, and is asked about
    const lots = page.getByRole('region', { name: 'To be cut to weight' }).getByRole('button', { name });
    await lots
      .filter({ hasNotText: /yesterday| ago/ })
      .first()
      .click();
  };
  await cut('portions', /Hake fillet/);
  await page.getByRole('radio').first().waitFor();
  for (let i = 0; i < 3; i += 1) {
    await page.keyboard.press('p');
    await page.waitForTimeout(1_500);
    await page.keyboard.press('Space');
    await page.waitForTimeout(800);
  }
  await shot(page, 'ruler');
});

const day = (n: number): string => new Date(Date.now() + n * 86_400_000).toISOString().slice(0, 10);

/** A call of the API as the page's own person, for what would take a night at the screen. */
const asked = async (page: Page, path: string, body?: unknown): Promise<Record<string, unknown>> => {
  const { status, answer } = await page.evaluate(
    async ([p, b]) => {
      const json = { 'content-type': 'application/json', 'idempotency-key': crypto.randomUUID() };
      const reply = await fetch(
        `/api/v1${p}`,
        b === undefined ? {} : { method: 'POST', headers: json, body: JSON.stringify(b) },
      );
      return { status: reply.status, answer: (await reply.json()) as Record<string, unknown> };
    },
    [path, body] as const,
  );
  if (status !== 200) throw new Error(`${path}: ${JSON.stringify(answer)}`);
  return answer;
};
const lotsOf = async (
  page: Page,
  query: string,
): Promise<readonly { id: string; code: string; massMg: number; useBy: string | null }[]> =>
  (await asked(page, `/lots?limit=50&${query}`))['lots'] as {
    id: string;
    code: string;
    massMg: number;
    useBy: string | null;
  }[];

interface Part {
  readonly title: string;
  readonly png: Buffer;
}

/** Several pictures on one sheet, so many beside each other. */
async function sheet(page: Page, name: string, beside: number, parts: readonly Part[]): Promise<void> {
  await page.setViewportSize({ width: 1280, height: 800 });
  const cells = parts
    .map(
      ({ title, png }) =>
        `<figure><figcaption>${title}</figcaption><img src="data:image/png;base64,${png.toString('base64')}"></figure>`,
    )
    .join('');
  await page.goto('about:blank');
  await page.setContent(
    `<style>body{margin:0;padding:16px;background:#e6ebea;font:16px sans-serif;display:grid;grid-template-columns:repeat(${beside},1fr);gap:16px;align-items:start}
     figure{margin:0}figcaption{padding:4px 0}img{max-width:100%;display:block}</style>${cells}`,
  );
  await page.screenshot({ path: `../docs/screenshots/${name}.png`, fullPage: true });
}

test('what can hurt a guest, on one sheet', async ({ page }) => {
  test.setTimeout(300_000);
  process.chdir(import.meta.dirname);
  const parts: Part[] = [];
  const take = async (title: string, region: Locator): Promise<void> => {
    await page.evaluate(() => document.fonts.ready);
    await page.waitForTimeout(500);
    parts.push({ title, png: await region.screenshot() });
  };
  await page.goto('/');
  await signInByTouch(page, 'Maren Ostle');

  // guinea fowl cooked to its core, read at 66 and 71 degrees: what each profile says of it
  const plan = (recipeId: string, lotId: string, more: object = {}) =>
    asked(page, '/batches', { recipeId, lotIds: [lotId], vesselId: null, onHandMg: {}, ...more });
  // the pictures before this one have frames on a stove: they are called off
  const { batches } = (await asked(page, '/batches?limit=50')) as { batches: readonly { id: string; state: string }[] };
  for (const batch of batches)
    if (batch.state === 'planned' || batch.state === 'on') await asked(page, `/batches/${batch.id}/cancel`, {});
  // some of it lies on a board or is promised to a pot by now: the first that can go in
  const begun = async (recipeId: string, categories: readonly string[], more: object = {}) => {
    for (const category of categories)
      for (const lot of await lotsOf(page, `category=${category}`)) {
        const batch = await plan(recipeId, lot.id, more).catch(() => undefined);
        if (batch !== undefined) return batch;
      }
    throw new Error(`nothing is left for ${recipeId}`);
  };
  const cooking = await begun('cooked-to-core', ['poultry-portion']);
  const steps = (
    (await asked(page, `/batches/${String(cooking['id'])}`))['recipe'] as { steps: { kind: string; kills?: boolean }[] }
  ).steps;
  const say = (batch: unknown, body: object, minutesAgo = 0) =>
    asked(page, `/batches/${String(batch)}/events`, {
      at: new Date(Date.now() - minutesAgo * 60_000).toISOString(),
      body,
    });
  await say(cooking['id'], { kind: 'start' }, 30);
  for (const [i, step] of steps.entries()) {
    if (step.kills === true) break;
    await say(cooking['id'], { kind: 'step', step: i, skipped: false }, 29);
  }
  for (const [minutesAgo, c] of [
    [3, 63.5],
    [2, 64],
    [1, 64.5],
  ] as const)
    await say(cooking['id'], { kind: 'probe', centiC: c * 100, source: 'typed' }, minutesAgo);
  for (const profileId of ['uk', 'us-food-code-2022', 'eu']) {
    await asked(page, '/limits', { profileId, changes: [], note: 'for the picture' });
    const limits = page.waitForResponse((r) => r.url().includes('/api/v1/limits'));
    await page.goto(`/pots/stove/${String(cooking['id'])}`);
    await limits;
    await take(
      `Core log of guinea fowl, ${profileId.slice(0, 2).toUpperCase()}`,
      page.getByRole('region', { name: 'Probe' }),
    );
  }
  await asked(page, '/limits', { profileId: 'uk', changes: [], note: 'as it was' });

  // read hot, and two hours later cold: nobody knows when it passed
  const at = (minutes: number): string => new Date(Date.now() - minutes * 60_000).toISOString();
  const coolingId = crypto.randomUUID();
  await asked(page, '/coolings', {
    id: coolingId,
    kind: 'cooling',
    lotId: null,
    name: 'Hogget stock, read twice',
    setup: {
      mediumId: 'cold-room',
      vesselName: 'Tall pot',
      vessel: { kind: 'round', diameterMm: 300, heightMm: 280 },
      count: 1,
      litres: 10,
      airC: null,
      setsAtC: null,
    },
    limitId: 'uk.cool.cookchill',
    at: at(140),
    centiC: 9_000,
    source: 'typed',
  });
  await asked(page, `/coolings/${coolingId}/readings`, { at: at(10), centiC: 280, source: 'typed' });
  await page.goto('/pots/cooling');
  await take('A cooling that is not shown', page.getByRole('article').filter({ hasText: 'read twice' }));

  // a hake of yesterday at the ruler
  const late = (await lotsOf(page, 'toWeight=cut&search=hake')).find((lot) => lot.useBy !== day(-1));
  if (late === undefined) throw new Error('no fillet to cut');
  await asked(page, `/lots/${late.id}/keep`, {
    kind: 'date',
    useBy: day(-1),
    reason: 'for the picture',
    confirmed: true,
  });
  await page.goto('/bench/cut');
  await page.getByRole('region', { name: 'To be cut to weight' }).getByRole('button', { name: late.code }).click();
  await page
    .getByText(/was yesterday/)
    .first()
    .waitFor();
  await take('A lot past its date, at the ruler', page.getByLabel('Past its date'));

  // bones sweated in butter: milk on the label of what they gave
  const fumet = await begun('fish-fumet', ['flatfish-frame', 'white-fish-frame'], { ways: ['sweat'] });
  await say(fumet['id'], { kind: 'start' }, 60);
  const made = await asked(page, `/batches/${String(fumet['id'])}/finish`, {
    outputMg: 120_000,
    spentMg: null,
    note: null,
  });
  await page.goto(`/larder/${String((made['outputLot'] as { id: string }).id)}`);
  await take('A fumet with butter', page.getByRole('complementary').last());

  // the pieces, and the liquor beside them
  const braise = await begun('braise-and-hold', ['lamb-portion', 'venison-portion', 'pork-portion']);
  await say(braise['id'], { kind: 'start' }, 200);
  await page.goto(`/pots/stove/${String(braise['id'])}`);
  await take('The end of a braise: pieces and liquor', page.getByRole('form', { name: 'Finish' }));

  await sheet(page, 'harm', 3, parts);
});

/** ./zabrik backup, on the kitchen that these pictures are taken in. */
function backup(folder: string, ...args: string[]): void {
  const root = new URL('..', import.meta.url).pathname;
  const env = { ...process.env, DB_HOME: `${root}.zabrik/pg-e2e` };
  const url = execFileSync(`${root}scripts/db.sh`, ['url'], { env, encoding: 'utf8' }).trim();
  execFileSync('node', [`${root}packages/server/dist/backup.js`, ...args], {
    cwd: root,
    env: {
      ...env,
      DATABASE_URL: url,
      ZABRIK_BACKUPS: `${folder}/backups`,
      ZABRIK_BACKUPS_SECOND: folder,
      ZABRIK_ROOT: root,
    },
    stdio: ['ignore', 'ignore', 'inherit'],
  });
}

test('what is kept: on the tablet, at the door, on the server, after a restore', async ({ page }) => {
  test.setTimeout(300_000);
  process.chdir(import.meta.dirname);
  const parts: Part[] = [];
  const take = async (title: string): Promise<void> => {
    await page.mouse.move(0, 400);
    await page.evaluate(() => document.fonts.ready);
    await page.waitForTimeout(600);
    parts.push({ title, png: await page.screenshot() });
  };
  const weigh = async (grams: number): Promise<void> => {
    await page.keyboard.press('m');
    await page.getByLabel('Weight, typed').fill(String(grams));
    await page.keyboard.press('Enter');
    await page.getByLabel('Weight, typed').waitFor({ state: 'hidden' });
  };
  await page.goto('/');
  await signInByTouch(page, 'Jory Pellam');
  await page
    .getByRole('complementary')
    .getByRole('link', { name: /weighed/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'Put the next piece on' }).waitFor();
  // one is refused, two do not arrive
  let n = 0;
  await page.route('**/weighings', (route) => {
    n += 1;
    return n === 1
      ? route.fulfill({
          status: 409,
          contentType: 'application/problem+json',
          body: JSON.stringify({
            type: 'urn:zabrik:problem:stage_closed',
            code: 'stage_closed',
            title: 'This stage is closed. Ask a chef to reopen it.',
            status: 409,
          }),
        })
      : route.abort();
  });
  await weigh(412);
  await page.getByTestId('saved').getByText('1 refused').waitFor();
  await weigh(61);
  await weigh(38);
  await page.getByTestId('saved').getByRole('link').click();
  await page.getByRole('heading', { name: 'Kept on this tablet' }).waitFor();
  await take('Waiting and refused');
  await page.getByRole('button', { name: 'Sign out' }).click();
  await page.getByText('Who is at work?').waitFor();
  await take('Signing in where work waits');
  await page.unroute('**/weighings');

  const folder = mkdtempSync(join(tmpdir(), 'zabrik-shots-'));
  execFileSync('chmod', ['711', folder]);
  backup(folder, 'now');
  await page.waitForTimeout(1_100);
  backup(folder, 'now');
  backup(folder, 'try');
  await signInByTouch(page, 'Maren Ostle');
  await page.goto('/server');
  await page.getByRole('heading', { name: 'Signed in' }).waitFor();
  await take('How old the backup is, and who is signed in');

  // as after a restore that knows nothing of the last two weights of this tablet
  await page.goto('/bench');
  await page
    .getByRole('complementary')
    .getByRole('link', { name: /weighed/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'Put the next piece on' }).waitFor();
  await weigh(77);
  await weigh(103);
  await page.waitForTimeout(2_000);
  await page
    .getByTestId('saved')
    .getByText(/all saved|refused/)
    .waitFor();
  const restored = { id: crypto.randomUUID(), stateAt: new Date(Date.now() - 3_600_000).toISOString() };
  await page.route('**/api/v1/session', async (route) => {
    if (route.request().method() !== 'GET') return route.continue();
    const reply = await route.fetch();
    return route.fulfill({ json: { ...((await reply.json()) as object), restored } });
  });
  await page.route('**/commands/known', (route) => {
    const { keys } = route.request().postDataJSON() as { keys: string[] };
    return route.fulfill({ json: { unknown: keys.slice(-2) } });
  });
  await page.reload();
  await page.getByText(/no longer in the records/).waitFor();
  await page.goto('/waiting');
  await page.getByRole('button', { name: /Send all/ }).waitFor();
  await take('After the records were brought back');
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto('/larder');
  await page.locator('[data-testid=lots] a').first().waitFor();
  await take('The larder on a phone');
  await page.goto('/house/things');
  await page.getByRole('region', { name: 'Pots and pans' }).waitFor();
  await take('The things of the house on a phone');
  await sheet(page, 'kept', 2, parts);
});
