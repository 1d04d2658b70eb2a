/** Pictures of each main view from demo data, into docs/screenshots: npm run screenshots */
import { type Page, test } from '@playwright/test';
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

  // what came this morning: mussels that went back, and the claim
  await page.goto('/receive');
  await page.getByRole('link', { name: /claim £21/ }).click();
  await page.getByTestId('claim').waitFor();
  await shot(page, 'delivery');
  await page.goto('/limits');
  await page.getByText('selected by your house').waitFor();
  await shot(page, 'limits');

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
    .filter({ hasText: 'Brown crab: claws and legs' })
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
  await shot(page, 'bench-offline');
  await page.context().setOffline(false);
  await page.getByText('all saved').waitFor();

  await page.goto('/bench/plans');
  await page.getByRole('link', { name: /Four fillets/ }).waitFor();
  await shot(page, 'cut-plans');

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
  await page.goto('/larder?show=frozen');
  await page.getByTestId('lots').getByRole('checkbox').first().check();
  await page.getByRole('button', { name: 'Print labels' }).click();
  await page.getByRole('button', { name: 'Print', exact: true }).click();
  await page.getByText(/labels? printed/).waitFor();
  await page.goto('/larder?tray=portion');
  for (const n of [0, 1, 2]) await page.getByTestId('lots').getByRole('checkbox').nth(n).check();
  await page.getByRole('button', { name: 'Print labels' }).click();
  await page.getByRole('button', { name: 'Print', exact: true }).click();
  await page.getByText(/labels? printed/).waitFor();
  await page.goto('/larder/labels');
  await page.getByRole('img').first().waitFor();
  await shot(page, 'labels');

  await page.getByRole('link', { name: /^Pots/ }).click();
  await page.goto('/pots?use=fish-mousseline');
  await page.getByTestId('cold-clock').waitFor();
  await page.setViewportSize({ width: 1280, height: 1240 });
  await shot(page, 'filling');
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto('/pots?use=fish-fumet');
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
  await page.goto('/pots/reckon');
  await page.getByLabel('Salt in it now').fill('4');
  await shot(page, 'reckon');

  // cutting to weight: the ruler with its mixes and what was got, a roll, slices
  const cut = async (kind: string, name: RegExp): Promise<void> => {
    await page.goto(`/bench/cut?as=${kind}`);
    await page.getByRole('region', { name: 'To be cut to weight' }).getByRole('button', { name }).first().click();
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
  await cut('roll', /Guinea fowl breasts/);
  await page.getByRole('button', { name: 'Make rolls' }).click();
  await page.getByLabel('Wrapped in').selectOption('sheet');
  await page.getByLabel('Portion', { exact: true }).fill('110');
  await shot(page, 'roll');
  await cut('slices', /Roe deer barrel/);
  await page.getByLabel('Knife slants').fill('25');
  await page.getByRole('button', { name: 'Parts go different ways' }).click();
  await page.getByRole('img').scrollIntoViewIfNeeded();
  await shot(page, 'slices');
});
