/** From what is bought to what is served, through every stage and pot between: worked by touch and pedal, its touches counted. */
import { expect, type Page, test } from '@playwright/test';
import { close, goOn, guard, says, start, weighAll } from './atBench.ts';
import { allSteps, oneStep, pick, plan } from './atStove.ts';
import { closeCooked, comes, lots, most } from './comes.ts';
import { axe, goOffline, pieceButton, signInByTouch } from './cook.ts';
import { countTouches } from './touches.ts';

const hunted = { shotBy: 'E. Harrow', killPlace: 'Hollin wood', killedOn: new Date().toISOString().slice(0, 10) };

/** Weighs what came out of a batch and calls it done. */
async function done(page: Page): Promise<void> {
  // the middle of what is expected of it
  const usual = /eight times in ten ([\d.,]+) (g|l|kg) to ([\d.,]+) (?:g|l|kg)/.exec(
    (await page.getByRole('form', { name: 'Finish' }).textContent()) ?? '',
  );
  const [low = 0, high = 0] = [usual?.[1], usual?.[3]].map((n) => Number(n?.replace(',', '')));
  await page.getByLabel(/^(Came out|Strained)/).fill(`${Math.round((low + high) * 500) / 1_000} ${usual?.[2]}`);
  await page.getByRole('button', { name: 'Batch done' }).click();
  await expect(page.getByTestId('cost-per')).toBeVisible();
}
/** Thirteen hours on, by the tablet's clock, or as many as are asked for. */
const nextMorning = (page: Page, hours = 13): Promise<void> => page.clock.setSystemTime(Date.now() + hours * 3_600_000);
async function holds(what: string, touches: () => Promise<number>, pieces: number): Promise<void> {
  const used = await touches();
  console.log(`touches, ${what}: ${used} for ${pieces} pieces, at most ${most(pieces)}`);
  expect(used, what).toBeLessThanOrEqual(most(pieces));
}
/** Leaves out what lies ready by itself. */
async function none(page: Page): Promise<void> {
  const on = page.getByRole('region', { name: /^Lots for/ }).getByRole('checkbox', { checked: true });
  while ((await on.count()) > 0) await on.first().uncheck();
}
const take = async (page: Page, name: RegExp): Promise<void> => page.getByRole('checkbox', { name }).first().check();
/** Puts the next true piece on the board's pan, and weighs it. */
async function weighOnBoard(page: Page, button: RegExp): Promise<void> {
  const strip = page.getByTestId('pan-strip');
  const before = await strip.getAttribute('data-settled');
  await page.getByRole('button', { name: 'Put the next piece on' }).click();
  await expect(strip).not.toHaveAttribute('data-settled', before ?? '');
  await expect(strip).toHaveAttribute('data-state', 'steady');
  await page.getByRole('button', { name: button }).first().click();
}
/** Works the steps before the one of these words. */
async function stepsTo(page: Page, words: RegExp): Promise<void> {
  const step = page.getByRole('region', { name: 'Next step' }).locator('p').nth(1);
  for (let i = 0; i < 20 && !words.test((await step.textContent()) ?? ''); i += 1)
    await oneStep(page, () => page.getByRole('button', { name: /^Done/ }).click());
  await expect(step).toContainText(words);
}
async function finishCutting(page: Page): Promise<void> {
  await page.getByRole('button', { name: /^Finish/ }).click();
  const strange = page.getByRole('region', { name: 'Not all is weighed' });
  const cut = page.getByRole('region', { name: 'Cut', exact: true });
  await expect(strange.or(cut)).toBeVisible();
  if (await strange.isVisible()) await strange.getByRole('button', { name: 'The rest goes back uncut' }).click();
  await expect(cut).toBeVisible();
}

test('a skinless tuna loin: ends to a dish of 3 oz, the barrel rested, portions of 8 oz, both yields on one sheet', async ({
  page,
}) => {
  await signInByTouch(page, 'Maren Ostle');
  await comes(page, { species: 'tuna', form: 'loin-skinless' }, 5_200);
  const touches = await countTouches(page);
  await start(page, /Tuna, quarter loin, skinless, blood/, /shaped to a barrel/);
  await expect(pieceButton(page, /^skin$/)).toHaveCount(0); // it came without
  let pieces = await weighAll(page);
  await close(page);
  const sheet = page.url();
  // the barrel rests over night, and says so until it has
  await expect(page.getByRole('button', { name: /Go on: cut the barrel/ })).toContainText(/resting, ready in/);
  await nextMorning(page);
  await page.reload();
  await expect(page.getByRole('button', { name: /Go on: cut the barrel/ })).toContainText(/rested, within its window/);
  await page.getByRole('link', { name: 'Cut to weight' }).click();
  await page
    .getByRole('button', { name: /Tuna barrel/ })
    .first()
    .click();
  await expect(page.getByTestId('ruler')).toBeVisible();
  await page.getByRole('tab', { name: 'Sizes' }).click();
  await page.getByLabel('Weighs').first().fill('8 oz');
  await page.getByRole('tab', { name: 'Got' }).click();
  await expect(page.getByRole('radio', { name: /× 227 g/ }).first()).toBeVisible();
  for (let i = 0; i < 5; i += 1) {
    await weighOnBoard(page, /weigh it|^Weigh the end/);
    pieces += 1;
  }
  await finishCutting(page);
  await holds('tuna loin to a barrel to 8 oz', touches, pieces);
  await page.goto(sheet);
  await expect(page.getByText('Cut to weight').first()).toBeVisible();
  // ends to a dish of 3 oz
  await page.goto('/pots/plates');
  await page.getByRole('button', { name: 'A new plate' }).click();
  await page.getByLabel('The plate').fill('Tuna, chopped');
  await page.getByLabel('What', { exact: true }).selectOption('oily-fish-trim');
  await page.getByLabel('Of', { exact: true }).selectOption('tuna');
  await page.getByLabel('How many').fill('');
  await page.getByLabel(/^g or ml/).fill('85');
  await page.getByRole('button', { name: 'Save the plate' }).click();
  await expect(page.getByRole('article', { name: 'Tuna, chopped' }).getByTestId('covers')).toContainText(/\d+ plates/);
  await axe(page, 'plates');
});

test('brill to a mould with shellfish in its heart: steamed, chilled by a log, portioned', async ({ page }) => {
  await signInByTouch(page, 'Ines Calloway');
  await comes(page, { species: 'scallop', form: 'meat-roe' }, 300, 10);
  await start(page, /Scallop, shucked/, /trimmed, dried/, /By kind/);
  await weighAll(page);
  await close(page);
  await comes(page, { species: 'brill', form: 'gutted' }, 1_640);
  const touches = await countTouches(page);
  await start(page, /Brill, gutted/, /Four fillets/);
  const pieces = await weighAll(page);
  await close(page);
  await holds('brill to four fillets', touches, pieces);
  await pick(page, /^Farce for steaming/);
  await page.getByRole('group', { name: 'Only these' }).getByRole('button', { name: 'Brill', exact: true }).click();
  await plan(page);
  await done(page);
  await pick(page, /^Farce steamed in a mould/);
  for (const name of [/Farce for steaming/, /Brill fillets/, /Scallop white meat/]) await take(page, name);
  await expect(page.getByText(/as shellfish or lobster for the heart/).first()).toBeVisible();
  await axe(page, 'a mould put together');
  await plan(page);
  // steamed to its core, which is read; the log of its cooling begins in its step
  await stepsTo(page, /steam/i);
  await page.getByLabel('Temperature as read').fill('72');
  await page.getByRole('button', { name: 'Write it down' }).click();
  await expect(page.getByRole('region', { name: 'Probe' })).toContainText('72.0 °C');
  await stepsTo(page, /chill|cool|set/i);
  const stoveAt = page.url();
  await page.getByRole('link', { name: 'Begin its cooling log now' }).click();
  await expect(page.getByRole('heading', { name: /^Cool Farce steamed/ })).toBeVisible();
  await page.getByLabel(/^It is at/).fill('70');
  await page.getByRole('button', { name: /^Begin the log at/ }).click();
  await expect(page.getByRole('article', { name: /^Log of Farce steamed/ }).first()).toBeVisible();
  await page.goto(stoveAt);
  await expect(page.getByRole('region', { name: 'Next step' })).toContainText(/Cools since/);
  await allSteps(page);
  await done(page);
  const [mould] = await lots(page, 'Farce steamed in a mould');
  expect(mould?.allergens).toEqual(expect.arrayContaining(['fish/brill', 'molluscs/scallop', 'eggs', 'milk']));
  await page.goto(`/larder/${mould?.id}`);
  await expect(page.getByText(/^Cooling now/)).toBeVisible();
  // cut by course, cold
  await page.goto('/bench/cut?as=portions');
  await page
    .getByRole('region', { name: 'To be cut to weight' })
    .getByRole('button', { name: /Farce steamed in a mould/ })
    .first()
    .click();
  await page.getByRole('tab', { name: 'Sizes' }).click();
  await page.getByLabel('Weighs').first().fill('75');
  await page.getByRole('tab', { name: 'Got' }).click();
  await expect(page.getByRole('radio', { name: /× 75 g/ }).first()).toBeVisible();
  for (let i = 0; i < 2; i += 1) await weighOnBoard(page, /weigh it|^Weigh the end/);
  await finishCutting(page);
});

test('a duck whose wishbone was forgotten: joined, fat rendered, legs to confit to rillettes', async ({ page }) => {
  await signInByTouch(page, 'Ines Calloway');
  await comes(page, { species: 'duck', form: 'whole' }, 2_600);
  const touches = await countTouches(page);
  await start(page, /Duck, oven-ready/, /Legs, breasts, winglets/);
  // straight to the wings: the wishbone is still in
  await pieceButton(page, /^breasts/).click();
  while (!/Wishbone/.test((await guard(page).textContent()) ?? '')) await page.keyboard.press('g');
  await expect(guard(page)).toContainText('Wishbone still in');
  await guard(page).getByRole('button', { name: /Skip/ }).click();
  let pieces = await weighAll(page);
  await page.getByRole('button', { name: /Wishbone out/ }).click();
  await page.getByRole('button', { name: 'Done late' }).click();
  await close(page);
  await expect(page.getByText(/done late/i).first()).toBeVisible();
  await goOn(page, /Go on: render fat/);
  pieces += await weighAll(page);
  await closeCooked(page);
  await holds('duck to pieces and rendered fat', touches, pieces);
  // fat in a dish with its day on it
  const [fat] = await lots(page, 'Duck rendered');
  expect(fat?.useBy).toMatch(/^\d{4}-\d\d-\d\d$/);

  await pick(page, /^Confit legs/);
  await take(page, /Duck legs/);
  await take(page, /Duck .*fat/);
  await plan(page);
  await done(page);
  await pick(page, /^Rillettes/);
  await none(page);
  await take(page, /Duck legs.*confit/);
  await plan(page);
  await done(page);
  // the carcass to a stock, the winglets join it while it is on; and the stock is used up in a jus
  await pick(page, /^Duck stock and jus/);
  await none(page);
  await take(page, /Duck carcass/);
  await plan(page);
  await page.getByRole('button', { name: 'Something joins it' }).click();
  const joins = page.getByLabel('What joins it');
  await joins.selectOption(
    (await joins
      .getByRole('option', { name: /Duck winglets/ })
      .first()
      .getAttribute('value')) ?? '',
  );
  await axe(page, 'something joins a pot');
  await page.getByRole('button', { name: 'It joins' }).click();
  await expect(page.getByRole('region', { name: 'What goes in' })).toContainText(/Duck winglets/);
  await done(page);
  // a day on it is yesterday's, and is used up
  await nextMorning(page, 24);
  const yesterday = new Date(Date.now()).toISOString().slice(0, 10);
  const [stock] = await lots(page, 'Duck stock and jus');
  expect(stock?.madeAt.slice(0, 10)).toBe(yesterday);
  await pick(page, /^Reduced jus/);
  await none(page);
  await take(page, /Duck stock and jus/);
  await plan(page);
  await done(page);
  expect((await lots(page, 'Duck stock and jus')).filter((l) => l.name === 'Duck stock and jus')).toEqual([]);
});

test('a goose boned out whole and stuffed to its form', async ({ page }) => {
  await signInByTouch(page, 'Ines Calloway');
  await comes(page, { species: 'goose', form: 'whole' }, 4_600);
  const touches = await countTouches(page);
  await start(page, /Goose, oven-ready/, /Boned out whole/);
  const pieces = await weighAll(page);
  await close(page);
  await holds('goose boned out whole', touches, pieces);
  await pick(page, /^Stuffing for a boned bird/);
  await page.getByRole('group', { name: 'Only these' }).getByRole('button', { name: 'Goose', exact: true }).click();
  await page
    .getByRole('button', { name: /^Fill .* Goose boned whole/ })
    .last()
    .click();
  await plan(page);
  await done(page);
  await pick(page, /^Boned bird stuffed to its form/);
  await take(page, /Goose boned whole/);
  await take(page, /Stuffing for a boned bird/);
  await plan(page);
  await stepsTo(page, /roast|oven|cook/i);
  await page.getByLabel('Temperature as read').fill('75');
  await page.getByRole('button', { name: 'Write it down' }).click();
  await expect(page.getByTestId('core')).toContainText(/75|at /);
  await done(page);
  expect((await lots(page, 'Boned bird stuffed'))[0]?.allergens).toEqual(
    expect.arrayContaining(['eggs', 'gluten/wheat']),
  );
});

test('trotters boned, stuffed, poached, their bones to the sauce', async ({ page }) => {
  await signInByTouch(page, 'Ines Calloway');
  await comes(page, { species: 'pork', form: 'trotter' }, 2_400, 4);
  const touches = await countTouches(page);
  await start(page, /Pork, trotter/, /Boned out, then braised/, /By kind/);
  const pieces = await weighAll(page);
  await close(page);
  await holds('trotters boned out', touches, pieces);
  await pick(page, /^Stuffed trotter/);
  await take(page, /Pork boned trotter/);
  await plan(page);
  await allSteps(page);
  await expect(page.getByRole('list', { name: 'Steps' })).toContainText(/Poached half an hour.*Quartered cold/s);
  await done(page);
  // bones to the sauce
  await pick(page, /^Pork stock/);
  await take(page, /Pork .*bones/);
  await plan(page);
  await done(page);
});

test('rabbit to a roll in bacon, its bones to a sauce in three wettings', async ({ page, context }) => {
  await signInByTouch(page, 'Ines Calloway');
  await comes(page, { species: 'rabbit', form: 'whole' }, 1_400);
  const touches = await countTouches(page);
  await start(page, /Rabbit, dressed/, /then a roll/);
  let pieces = await weighAll(page);
  await close(page);
  await goOn(page, /Go on: bone the saddle/);
  pieces += await weighAll(page);
  await close(page);
  await goOn(page, /Go on: roll/);
  // bacon round it, bought in, said without network: it is weighed with the roll and is no yield of the rabbit
  await goOffline(page);
  await pieceButton(page, /^roll/).click();
  await page.keyboard.press('o');
  const joins = page.getByRole('region', { name: 'Joined to a piece' });
  await joins.getByLabel('What is joined, by name or lot').fill('streaky bacon');
  await joins.getByLabel('How much').fill('60 g');
  await joins.getByRole('button', { name: 'Join it' }).click();
  await expect(says(page)).toContainText(/Say the allergens of streaky bacon/);
  await joins.getByRole('button', { name: /none/i }).click();
  await axe(page, 'joining');
  await joins.getByRole('button', { name: 'Join it' }).click();
  await expect(joins).toContainText('60 g of streaky bacon to roll');
  await context.setOffline(false);
  pieces += await weighAll(page);
  await close(page);
  await holds('rabbit to a roll', touches, pieces);
  await pick(page, /^Roll in bacon/);
  await take(page, /Rabbit roll/);
  await plan(page);
  await done(page);
  await pick(page, /^Quick sauce/);
  await page.getByRole('group', { name: 'Only these' }).getByRole('button', { name: 'Rabbit', exact: true }).click();
  await page.getByLabel('Pan', { exact: true }).selectOption({ label: '24 cm sauce pan' });
  await plan(page);
  await allSteps(page);
  await expect(page.getByRole('list', { name: 'Steps' })).toContainText('Third wetting');
  await done(page);
});

test('a deer loin bought bone-in: boned, rolled, rested, cut to medallions', async ({ page }) => {
  await signInByTouch(page, 'Ines Calloway');
  await comes(page, { species: 'red-fallow-deer', form: 'loin-bone-in', details: hunted }, 4_800);
  const touches = await countTouches(page);
  await start(page, /deer, bone-in loin/, /shaped to a barrel/);
  let pieces = await weighAll(page);
  await close(page);
  await goOn(page, /Go on: shape the barrel/);
  pieces += await weighAll(page);
  await close(page);
  await expect(page.getByRole('button', { name: /Go on: portion/ })).toContainText(/resting, ready in/);
  await nextMorning(page);
  await page.reload();
  await expect(page.getByRole('button', { name: /Go on: portion/ })).toContainText(/rested, within its window/);
  await goOn(page, /Go on: portion/);
  pieces += await weighAll(page);
  await close(page);
  await holds('deer loin to medallions', touches, pieces);
  await expect(page.getByRole('region', { name: 'Stages and time' }).getByRole('link')).toHaveCount(3);
  // and the larder says when they come out before service
  const [medallions] = (await lots(page, 'deer')).filter((l) => l.category === 'venison-portion');
  await page.goto(`/larder/${medallions?.id}`);
  await expect(page.getByTestId('before-pan')).toContainText('60 to 90 min before the pan');
  // the long name of what it was made from is cut, and widens nothing
  expect(await page.getByRole('complementary', { name: 'Lot' }).evaluate((e) => e.scrollWidth - e.clientWidth)).toBe(0);
});

test('a block as bought, to slices two ways', async ({ page }) => {
  await signInByTouch(page, 'Ines Calloway');
  await comes(page, { species: 'tuna', form: 'saku' }, 620);
  await page.goto('/bench/cut?as=slices');
  const touches = await countTouches(page);
  await page
    .getByRole('region', { name: 'To be cut to weight' })
    .getByRole('button', { name: /Tuna, block/ })
    .first()
    .click();
  await page.getByLabel('Slice thick').fill('10');
  await page.getByRole('button', { name: 'Parts go different ways' }).click();
  for (let i = 0; i < 2; i += 1) await weighOnBoard(page, /^Weigh \d+ slices/);
  await finishCutting(page);
  await holds('a block to slices two ways', touches, 2);
});
