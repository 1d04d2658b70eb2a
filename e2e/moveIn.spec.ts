/** A bare machine becomes a kitchen: set up by its code, people, a pot, a fish, its yield and what it cost; nothing of the demo. */
import { once } from 'node:events';
import { connect } from 'node:net';
import { expect, type Page, test } from '@playwright/test';
import { startSimulatedPrinter, startSimulatedScale } from '@zabrik/devices';
import { axe, watchRequests } from './cook.ts';
import { SET_UP_CODE } from './kitchenProcess.ts';

const pinAt = async (page: Page, name: RegExp, pin: string): Promise<void> => {
  await page.getByRole('button', { name }).click();
  for (const digit of pin) await page.getByRole('button', { name: digit, exact: true }).click();
  await page.getByRole('button', { name: 'Sign in' }).click();
};
const station = (page: Page, name: RegExp) =>
  page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name });

/** Types a weight at the bench and takes it. */
async function typed(page: Page, grams: number, n: number): Promise<void> {
  await page.getByRole('button', { name: /^Type/ }).click();
  await page.getByLabel('Weight, typed').fill(String(grams));
  await page.getByLabel('Weight, typed').press('Enter');
  await expect(page.getByRole('tab', { name: `Weights, ${n}` })).toBeVisible();
}

test('an empty machine to a costed yield sheet by touch; people come and leave; a PIN and a password forgotten', async ({
  page,
  browser,
}) => {
  const stayedHome = watchRequests(page);
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Set up this kitchen' })).toBeVisible();
  await axe(page, 'set up');
  // nothing said: each is asked for, and nothing is lost
  await page.getByRole('button', { name: 'Set it up' }).click();
  await expect(page.getByText('What the kitchen is called')).toBeVisible();
  await page.getByLabel('Name of the kitchen').fill('Harbour Table');
  await page
    .getByRole('button', { name: /Change the country/ })
    .or(page.getByPlaceholder('Type a part of its name'))
    .first()
    .click();
  await page.getByPlaceholder('Type a part of its name').fill('portug');
  await page.getByRole('option', { name: /Portugal/ }).click();
  await page.getByLabel('Its clock').selectOption('Europe/Lisbon');
  await expect(page.getByText('Prices in EUR')).toBeVisible();
  await page.getByLabel('Head chef').fill('Alda Fonte');
  await page.reload();
  await expect(page.getByLabel('Name of the kitchen')).toHaveValue('Harbour Table');
  await expect(page.getByLabel('Its clock')).toHaveValue('Europe/Lisbon');
  await page.getByLabel('Code from the machine').fill('AAAA-AAAA');
  await page.getByLabel('PIN, for the tablets').fill('1234');
  await page.getByLabel('Password, for the office').fill('salt and smoke');
  await page.getByLabel('The password again').fill('salt and smoke');
  await page.getByRole('button', { name: 'Set it up' }).click();
  await expect(page.getByRole('alert')).toContainText('That is not the code');
  await page.getByLabel('Code from the machine').fill(SET_UP_CODE.toLowerCase());
  await page.getByRole('button', { name: 'Set it up' }).click();
  await expect(page.getByRole('alert')).toContainText('This PIN cannot be used');
  await page.getByLabel('PIN, for the tablets').fill('7302');
  await page.getByRole('button', { name: 'Set it up' }).click();
  await expect(page.getByRole('heading', { name: 'Harbour Table stands' })).toBeVisible();
  const recovery =
    (await page
      .getByRole('status')
      .filter({ hasText: /^([A-Z2-9]{4}-){5}/ })
      .textContent()) ?? '';
  await axe(page, 'recovery code');
  await page.getByRole('button', { name: /It is put away/ }).click();

  // the first fish, from somebody new, on scales that are not connected
  await page.getByPlaceholder(/Animal/).fill('plai');
  await page.getByRole('option', { name: /Plaice/ }).click();
  await page.getByRole('group', { name: 'How it came' }).getByText('gutted, head on').click();
  await page.getByRole('textbox', { name: 'Gross, with box' }).fill('960');
  await page.getByLabel('Invoice weight').fill('1000');
  await page.getByLabel('Invoice price, in all').fill('7,80');
  await expect(page.getByTestId('difference')).toContainText('40 g short, €0.31');
  await page.getByRole('button', { name: 'Someone new' }).click();
  await page.getByRole('textbox', { name: 'New supplier' }).fill('Cais Novo');
  await page.getByRole('textbox', { name: 'New supplier' }).press('Enter');
  await expect(page.getByLabel('Supplier', { exact: true })).toHaveText(/Cais Novo/);
  await page.keyboard.press('Escape');
  await page.getByLabel('Temperature', { exact: true }).fill('1.2');
  await page.getByRole('button', { name: 'Accept delivery' }).click();
  await expect(page.getByTestId('new-code')).toHaveText(/^\d{4}-[A-Z]$/);
  await page.getByRole('link', { name: 'Put it on the bench' }).click();
  await page.getByRole('button', { name: /Four fillets, skinless/ }).click();
  await expect(page.getByRole('heading', { name: 'Plaice, gutted, head on' })).toBeVisible();
  // 63 + 76 + 14 + 4 + 4 x 98 + 10 + 25 + 135 + 205 = 924 of 960 g
  const weights: readonly (readonly [RegExp, number])[] = [
    [/^fringe/, 63],
    [/^skin/, 76],
    [/^side trim/, 14],
    [/^blood line/, 4],
    [/^fillets/, 98],
    [/^fillets/, 98],
    [/^fillets/, 98],
    [/^fillets/, 98],
    [/^scraped/, 10],
    [/^gills/, 25],
    [/^head/, 135],
    [/^frame/, 205],
  ];
  for (const [i, [piece, grams]] of weights.entries()) {
    await page.getByRole('group', { name: 'Piece' }).getByRole('button', { name: piece }).click();
    await typed(page, grams, i + 1);
  }
  await page.getByRole('button', { name: /Close stage/ }).click();
  const unbalanced = page.getByRole('region', { name: 'The balance does not hold' });
  await expect(unbalanced.or(page.getByRole('table', { name: 'Pieces with their shares and costs' }))).toBeVisible();
  if (await unbalanced.isVisible()) {
    await unbalanced.getByRole('textbox').fill('the first one, in a hurry');
    await unbalanced.getByRole('button', { name: /Close/ }).click();
  }
  const sheet = page.getByRole('table', { name: 'Pieces with their shares and costs' });
  await expect(sheet).toContainText('€');
  // nobody has said what a frame is worth: the sheet says that, not nought
  await expect(sheet.getByRole('row').filter({ hasText: /^frame/ })).toContainText('no worth said');
  await expect(page.getByText('Alda Fonte').first()).toBeVisible();

  // the house: what it still has to say, an hour's cost, a pot, people
  await station(page, /^House/).click();
  const still = page.getByRole('region', { name: 'Still to be said' });
  await expect(still).toContainText('What an hour costs');
  await expect(still).not.toContainText('Who delivers');
  await page.getByLabel('An hour at the bench costs').fill('16,40');
  await page.getByLabel('Prices are typed').selectOption('without');
  await page.getByLabel('The tax is called').fill('IVA');
  await axe(page, 'house');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Saved.')).toBeVisible();
  await expect(still).not.toContainText('What an hour costs');
  await still.getByRole('link', { name: 'Your pots and pans' }).click();
  await page.getByRole('button', { name: 'Another pot' }).click();
  const pots = page.getByRole('region', { name: 'Pots and pans' });
  await pots.getByLabel('Name').fill('The big one');
  await pots.getByLabel('Holds').fill('20');
  await pots.getByLabel('Across, inside').fill('32');
  await pots.getByLabel('Deep').fill('25,5');
  await expect(pots).toContainText('brim 20.5 l');
  await axe(page, 'things');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Saved.')).toBeVisible();

  await page.getByRole('navigation', { name: 'House' }).getByRole('link', { name: 'People' }).click();
  const anew = page.getByRole('region', { name: 'Somebody new' });
  await anew.getByLabel('Name').fill('Odd Brekke');
  await anew.getByLabel('An hour costs').fill('14,20');
  // a name that is there is refused, and nothing typed is lost
  await anew.getByLabel('Name').fill('Alda Fonte');
  await anew.getByRole('button', { name: 'Add' }).click();
  await expect(anew.getByRole('alert')).toContainText('There is somebody of that name already');
  await expect(anew.getByLabel('An hour costs')).toHaveValue('14,20');
  await anew.getByLabel('Name').fill('Odd Brekke');
  await anew.getByRole('button', { name: 'Add' }).click();
  const odd = page.getByRole('list', { name: 'People' }).getByRole('listitem').filter({ hasText: 'Odd Brekke' });
  await expect(odd).toContainText('no PIN yet: cannot sign in');
  await odd.getByRole('button', { name: 'Give a PIN' }).click();
  await odd.getByLabel('A PIN for Odd Brekke').fill('7302');
  await odd.getByRole('button', { name: 'Give it' }).click();
  // the head chef has that one; whose it is, is not said
  await expect(odd.getByRole('alert')).toHaveText('This PIN cannot be used. Choose another.');
  await odd.getByLabel('A PIN for Odd Brekke').fill('90417');
  await odd.getByRole('button', { name: 'Give it' }).click();
  await expect(odd).toContainText('€14.20 an hour');
  await expect(odd).not.toContainText('no PIN yet');
  await axe(page, 'people');

  // on another tablet he is in, and out at once when he leaves
  const other = await browser.newPage();
  await other.goto('/');
  await pinAt(other, /Odd Brekke/, '90417');
  await expect(other.getByRole('heading', { name: 'On the bench now' })).toBeVisible();
  await expect(station(other, /^House/)).toHaveCount(0);
  await odd.getByRole('button', { name: 'Leaves' }).click();
  await odd.getByRole('button', { name: 'Odd Brekke has left' }).click();
  await expect(page.getByRole('region', { name: 'Have left' })).toContainText('Odd Brekke');
  await expect(other.getByRole('heading', { name: 'Still you?' })).toBeVisible();
  await other.goto('/sign-in');
  await expect(other.getByRole('button', { name: /Alda Fonte/ })).toBeVisible();
  await expect(other.getByRole('button', { name: /Odd Brekke/ })).toHaveCount(0);

  // a scale is put in by its address, tried, listened to, and checked with weights
  const scale = await startSimulatedScale({
    host: '127.0.0.1',
    port: 0,
    intervalMg: 2_000,
    maxMg: 6_000_000,
    lagMs: 20,
    restMs: 60,
    normal: () => 0,
  });
  const lay = async (grams: number): Promise<void> => {
    const hand = connect(scale.port, '127.0.0.1');
    hand.resume().end(`load ${grams * 1_000}\n`);
    await once(hand, 'close');
  };
  await page.getByRole('navigation', { name: 'House' }).getByRole('link', { name: 'Devices' }).click();
  const scales = page.getByRole('region', { name: 'Scales' });
  await expect(scales).toContainText('not connected: weights are typed');
  await scales.getByLabel('Where it answers').fill('127.0.0.1:1');
  await scales.getByRole('button', { name: 'Try it' }).click();
  await expect(scales.getByText('Nothing there answers as a scale')).toBeVisible();
  await scales.getByLabel('Where it answers').fill(`127.0.0.1:${scale.port}`);
  await scales.getByRole('button', { name: 'Try it' }).click();
  await expect(scales.getByText('Class III, in steps of 2 g to 6 kg')).toBeVisible();
  await expect(scales.getByLabel('Step, e')).toHaveValue('2');
  await axe(page, 'devices');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Saved.')).toBeVisible();
  await expect(scales.getByText('steady')).toBeVisible();
  await scales.getByRole('button', { name: 'Check with weights' }).click();
  for (const [i, grams] of [500, 5_000].entries()) {
    await lay(grams + 2 * i);
    await expect(scales.locator('output').first()).toHaveText(i === 0 ? '500 g' : '5,002 g');
    await scales.getByRole('button', { name: 'From the scale' }).nth(i).click();
  }
  await scales.getByRole('button', { name: 'Keep this check' }).click();
  await expect(scales).toContainText('by Alda Fonte: within what is allowed, up to 5,000 g');
  // and the bench weighs on it
  await lay(0);
  await station(page, /^Receive/).click();
  await expect(page.getByText('without IVA')).toBeVisible();
  await lay(1_236);
  await page.getByRole('button', { name: 'From the scale' }).first().click();
  await expect(page.getByRole('textbox', { name: 'Gross, with box' })).toHaveValue(/1[,.]?236/);
  await scale.stop();
  await station(page, /^House/).click();

  await page.getByRole('navigation', { name: 'House' }).getByRole('link', { name: 'Changes' }).click();
  const changes = page.getByRole('table');
  await expect(changes).toContainText('€16.40');
  await expect(changes).toContainText('prices without IVA');
  await expect(changes).toContainText('The big one');
  await expect(changes).toContainText('Odd Brekke, Butcher, €14.20 an hour, left');
  await axe(page, 'changes');

  // both forgotten: the paper
  await page.getByRole('button', { name: 'Sign out' }).click();
  await page.getByRole('button', { name: /Alda Fonte/ }).click();
  await page.getByRole('button', { name: 'Both forgotten?' }).click();
  await page.getByLabel('Recovery code').fill(recovery.toLowerCase());
  await page.getByLabel('A new PIN').fill('8046');
  await page.getByLabel('A new password').fill('smoke and salt');
  await axe(page, 'forgotten');
  await page.getByRole('button', { name: 'Set them' }).click();
  await expect(page.getByRole('heading', { name: 'PIN and password are set' })).toBeVisible();
  await page.getByRole('button', { name: /It is put away/ }).click();
  for (const digit of '8046') await page.getByRole('button', { name: digit, exact: true }).click();
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(station(page, /^House/)).toBeVisible();

  // from grams and Celsius to pounds and Fahrenheit: on every screen at once, and on another tablet
  const other2 = await browser.newPage();
  await other2.goto('/');
  await pinAt(other2, /Alda Fonte/, '8046');
  await expect(other2.getByRole('heading', { name: 'On the bench now' })).toBeVisible();
  await other2.goto('/larder');
  await expect(other2.getByText('392 g').first()).toBeVisible();
  await station(page, /^House/).click();
  const units = page.getByRole('region', { name: 'Units' });
  for (const [label, value] of [
    ['Weights in', 'imperial'],
    ['Temperatures in', 'F'],
    ['Volumes in', 'us'],
    ['The clock', '12'],
    ['A date', 'month-first'],
  ] as const)
    await units.getByLabel(label).selectOption(value);
  await axe(page, 'units');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Saved.')).toBeVisible();
  // four fillets of 98 g: 13.8 oz
  await expect(other2.getByText('13.8 oz').first()).toBeVisible();
  await expect(other2.getByText('392 g')).toHaveCount(0);
  // its label says so too, off a printer that was put in by its address
  const printer = await startSimulatedPrinter({ host: '127.0.0.1', port: 0 });
  await page.getByRole('navigation', { name: 'House' }).getByRole('link', { name: 'Devices' }).click();
  await page.getByLabel('Where the label printer answers').fill(`127.0.0.1:${printer.port}`);
  await page.getByRole('region', { name: 'Probe and printer' }).getByRole('button', { name: 'Try it' }).nth(1).click();
  await expect(page.getByText('It answers.')).toBeVisible();
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Saved.')).toBeVisible();
  await other2
    .getByRole('link', { name: /fillet/ })
    .first()
    .click();
  const lot = other2.getByLabel('Lot', { exact: true });
  await lot.getByRole('button', { name: 'Label', exact: true }).click();
  await lot.getByRole('button', { name: 'Print', exact: true }).click();
  await expect(lot).toContainText('1 label printed');
  await other2.goto('/larder/labels');
  await expect(other2.getByRole('img', { name: /^Label/ }).first()).toContainText('13.8 oz');
  await printer.stop();
  // a second fish, weighed in pounds and probed in Fahrenheit: 2 lb 3 oz are 992 g, 34.2 °F are 1.2 °C
  await station(page, /^Receive/).click();
  await page.getByPlaceholder(/Animal/).fill('plai');
  await page.getByRole('option', { name: /Plaice/ }).click();
  await page.getByRole('group', { name: 'How it came' }).getByText('gutted, head on').click();
  await page.getByRole('textbox', { name: 'Gross, with box' }).fill('2 lb 3');
  await page.getByLabel('Invoice weight').fill('35');
  await page.getByLabel('Invoice price, in all').fill('7,80');
  await page.getByLabel('Supplier', { exact: true }).selectOption({ label: 'Cais Novo' });
  await page.getByLabel('Temperature', { exact: true }).fill('34.2');
  await page.getByRole('button', { name: 'Accept delivery' }).click();
  await expect(page.getByTestId('new-code')).toHaveText(/^\d{4}-[A-Z]$/);
  await expect(page.getByText('2 lb 3.0 oz').first()).toBeVisible();
  await page.getByRole('link', { name: 'Put it on the bench' }).click();
  await page.getByRole('button', { name: /Four fillets, skinless/ }).click();
  await expect(page.getByTestId('balance')).toContainText('Weighed 0.0 oz');
  await page.getByRole('group', { name: 'Piece' }).getByRole('button', { name: /^head/ }).click();
  await typed(page, 5, 1);
  await expect(page.getByTestId('balance')).toContainText('5.0 oz');
  await expect(page.getByTestId('balance')).toContainText('2 lb 3.0 oz');
  await axe(page, 'bench in pounds');
  await station(page, /^Pots/).click();
  await page.goto('/house/things');
  await expect(page.getByRole('region', { name: 'Pots and pans' })).toContainText('brim 5.4 gal');

  // what lay there before the records: flour off the shelf without a date, a tub of fillets with one
  await page.goto('/larder/count');
  await page.getByLabel('Which place is counted').selectOption({ label: 'Dry store' });
  await page.getByRole('button', { name: 'Take on what lies here' }).click();
  const there = page.getByRole('form', { name: 'What lies there' });
  await there.getByRole('button', { name: 'Take it on' }).click();
  await expect(there.getByText('What it weighs')).toBeVisible();
  await there.getByPlaceholder('Type a part of its name').fill('flou');
  await page.getByRole('option', { name: /Plain flour/ }).click();
  await there.getByLabel('Weighs').fill('4 lb');
  await axe(page, 'what lies there');
  await there.getByRole('button', { name: 'Take it on' }).click();
  await expect(there.getByText(/: Plain flour, 4 lb 0.0 oz/)).toBeVisible();
  await there.getByText('A piece, bones or trim').click();
  await there.getByPlaceholder('Type a part of its name').first().fill('hak');
  await page.getByRole('option', { name: /^Hake/ }).click();
  await there.getByPlaceholder('Type a part of its name').last().fill('white fish portion');
  await page.getByRole('option', { name: /white fish portion/ }).click();
  await there.getByLabel('It is called').fill('fillet');
  await there.getByLabel('Weighs').fill('22.5');
  await there.getByLabel('Use by').fill('2099-12-03');
  await there.getByRole('button', { name: 'Take it on' }).click();
  // raw fish on a shelf: asked, and refused to be where it would spoil unless somebody means it
  await there.getByRole('button', { name: 'Take it on all the same' }).click();
  await expect(there.getByText(/: Hake fillet, .*1 lb 6.5 oz/)).toBeVisible();
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await expect(page.getByRole('list', { name: /^What should be here/ })).toContainText('Hake fillet');
  stayedHome();
});
