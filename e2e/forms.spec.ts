/** What is bought, in the form it comes in, to what is served: worked by touch and pedal, its touches counted. */
import { expect, test } from '@playwright/test';
import { close, goOn, onSheet, start, weighAll, weighNext } from './atBench.ts';
import { allSteps, pick, plan } from './atStove.ts';
import { closeCooked, comes, lots, most } from './comes.ts';
import { axe, pieceButton, signInByTouch } from './cook.ts';
import { countTouches } from './touches.ts';

/** One white pixel. */
const onePixel = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mP8z8BQDwAEhQGAhKmMIQAAAABJRU5ErkJggg==';

test('live crab: boiled by the clock, one claw missing, picked by part with its pace', async ({ page }) => {
  await signInByTouch(page, 'Ines Calloway');
  await comes(page, { species: 'brown-crab', form: 'whole', came: 'live' }, 1_780, 2);
  const touches = await countTouches(page);
  await start(page, /Brown crab, live/, /Boiled, picked/); // by kind, as the plan has it
  await page.getByRole('button', { name: /^Timer, 40 min/ }).click();
  await expect(page.getByTestId('bench-timer')).toContainText(/^(40:00|39:5\d)$/);
  await page.getByRole('button', { name: 'Done', exact: true }).click();
  await weighAll(page);
  await closeCooked(page);
  await goOn(page, /Go on: pull apart/);
  // four claws are looked for, and there are three
  await expect(pieceButton(page, /^claws/)).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('o');
  await page.getByRole('button', { name: 'One of 4 less' }).click();
  await expect(page.getByText('came without 1 of 4 claws')).toBeVisible();
  await axe(page, 'not as planned');
  await weighAll(page);
  let pieces = 1 + 8;
  let reasons = await close(page);
  await expect(page.getByText(/Came without 1 of 4 claws/)).toBeVisible();
  await goOn(page, /Go on: claws/);
  await weighNext(page); // the shell, and then the meat as it is picked
  for (let i = 0; i < 4; i += 1) await weighNext(page);
  await expect(page.getByRole('region', { name: 'Picking' })).toContainText('4 weights');
  await pieceButton(page, /^shelly scraps/).click();
  await weighAll(page);
  pieces += 6;
  await page.keyboard.press('c');
  await page.getByRole('button', { name: 'All passes were made' }).click();
  reasons += await onSheet(page);
  await expect(page.getByText('a pass counted').first()).toBeVisible();
  const used = await touches();
  console.log(`touches, live crab to picked claws: ${used} for ${pieces} pieces, ${reasons} of them for reasons`);
  // an animal that lost more than usual asks for its reason: that is no part of the run
  expect(used - reasons).toBeLessThanOrEqual(most(pieces));
  expect((await lots(page, 'Brown crab white meat')).length).toBeGreaterThan(0);
});

test('cooked lobster to slices, meat, trim, antennae and shells', async ({ page }) => {
  await signInByTouch(page, 'Ines Calloway');
  await comes(page, { species: 'lobster', form: 'cooked' }, 1_150, 2);
  const touches = await countTouches(page);
  await start(page, /Lobster, whole cooked/, /Blanched, broken down/, /By kind/);
  await weighAll(page);
  await close(page);
  await goOn(page, /Go on: shell the meat/);
  await weighAll(page);
  await close(page);
  await goOn(page, /Go on: slice the tail/);
  await weighAll(page);
  await close(page);
  const pieces = 7 + 6 + 2;
  const used = await touches();
  console.log(`touches, cooked lobster to slices: ${used} for ${pieces} pieces`);
  expect(used).toBeLessThanOrEqual(most(pieces));
  await expect(page.getByRole('region', { name: 'Stages and time' }).getByRole('link')).toHaveCount(3);
  for (const name of ['antennae', 'claw meat', 'knuckle meat', 'slices', 'shells', 'legs'])
    expect((await lots(page, `Lobster ${name}`)).length, name).toBeGreaterThan(0);
});

test('a salmon side to its block, the trim to a farce, and both into a case', async ({ page }) => {
  await signInByTouch(page, 'Ines Calloway');
  await comes(page, { species: 'salmon', form: 'side-skin-on' }, 1_420);
  const touches = await countTouches(page);
  await start(page, /Salmon, side, skin on/, /squared block/);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Salmon');
  await expect(pieceButton(page, /^skin(?!l)/)).not.toContainText('/2'); // one side has one skin
  await weighAll(page);
  await close(page);
  await goOn(page, /Go on: square up/);
  await weighAll(page);
  await close(page);
  const pieces = 5 + 5;
  const used = await touches();
  console.log(`touches, salmon side to block: ${used} for ${pieces} pieces`);
  expect(used).toBeLessThanOrEqual(most(pieces));
  await pick(page, /^Farce for steaming/);
  await page.getByRole('checkbox', { name: /Salmon tail pieces/ }).check();
  await plan(page);
  await page.getByLabel('Came out').fill('600');
  await allSteps(page);
  await page.getByRole('button', { name: 'Batch done' }).click();
  await expect(page.getByTestId('cost-per')).toBeVisible();
  await pick(page, /^Fish or fillet in a pastry case/);
  await page.getByRole('checkbox', { name: /Salmon squared block/ }).check();
  await page.getByRole('checkbox', { name: /Farce for steaming/ }).check();
  await axe(page, 'assembling');
  await plan(page);
  await allSteps(page);
  await page.getByLabel('Came out').fill('1 kg');
  await page.getByRole('button', { name: 'Batch done' }).click();
  await expect(page.getByTestId('cost-per')).toBeVisible();
  const [made] = await lots(page, 'Fish or fillet in a pastry');
  expect(made?.allergens).toEqual(expect.arrayContaining(['fish/salmon', 'gluten/wheat', 'milk', 'eggs']));
});

test('artichokes are trimmed, and a gravy of the house’s own is written from nothing', async ({ page }) => {
  await signInByTouch(page, 'Maren Ostle');
  await comes(page, { goods: 'artichoke' }, 2_000);
  await page.goto('/larder');
  await page.getByLabel('Search by name, code or supplier').fill('artichoke');
  await page.getByTestId('lots').getByRole('link').first().click();
  await page.getByRole('button', { name: 'Trim', exact: true }).click();
  await page.getByLabel('Ready').fill('480');
  await expect(page.getByTestId('trimmed')).toContainText('1,520 g thrown away; 24.0 % is ready');
  await axe(page, 'trimming');
  await page.getByRole('button', { name: 'Trimmed' }).click();
  await expect.poll(async () => (await lots(page, 'artichokes, trimmed')).length).toBe(1);

  await page.goto('/pots');
  await page.getByRole('button', { name: 'A new one' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Harbour gravy');
  await page.getByLabel('Called', { exact: true }).fill('bones');
  await page.getByLabel('Look for kinds of pieces').fill('lamb bones');
  await page.getByLabel('lamb bones').check();
  await page.getByLabel('Another ingredient').fill('roux');
  await page.getByRole('button', { name: 'Add it' }).click();
  await page.getByRole('button', { name: 'Save as version 1' }).click();
  await expect(page.getByRole('alert')).toContainText('Nobody has said which allergens roux has.');
  await page.getByRole('button', { name: 'wheat', exact: true }).click();
  await page.getByRole('button', { name: 'milk', exact: true }).click();
  await page.getByLabel('Step 1', { exact: true }).fill('Roast, wet, bind.');
  // how it looks when it is right
  await page.getByRole('button', { name: 'Time and heat of step 1' }).click();
  await page
    .getByLabel('Photograph of step 1', { exact: true })
    .setInputFiles({ name: 'step.png', mimeType: 'image/png', buffer: Buffer.from(onePixel, 'base64') });
  await expect(page.getByRole('button', { name: 'Photograph: step 1' })).toBeVisible();
  await page.getByLabel('What changed, and why').fill('as the house makes it');
  await axe(page, 'recipe from nothing');
  await page.getByRole('button', { name: 'Save as version 1' }).click();
  await expect(page.getByRole('heading', { level: 2, name: 'Harbour gravy' })).toBeVisible();
  await page.getByRole('tab', { name: 'How it is made' }).click();
  const photo = page.getByRole('button', { name: 'Photograph: Roast, wet, bind.' });
  await photo.click();
  await expect(photo).toHaveAttribute('aria-pressed', 'true');
  await axe(page, 'a step with its photograph');
  await page.goto('/pots/recipes/harbour-gravy');
  await expect(page.getByText('as the house makes it')).toBeVisible();
});
