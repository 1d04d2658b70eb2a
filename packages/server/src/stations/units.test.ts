/** Each house reads and writes in its own units: words, labels and what is judged, side by side on one server. */
import { api } from '@zabrik/contract';
import { grams } from '@zabrik/core';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { openTestKitchen, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { must, received } from '../testing/work.ts';

const american = {
  mass: 'imperial',
  temperature: 'F',
  volume: 'us',
  clock: '12',
  dates: 'month-first',
  decimal: 'point',
} as const;

let kitchen: TestKitchen;
let ours: Tablet;
let theirs: Tablet;
beforeAll(async () => {
  kitchen = await openTestKitchen();
  ours = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
  theirs = await kitchen.signIn(kitchen.personOf('Maren Ostle', kitchen.other));
});
afterAll(() => kitchen.stop());

const units = async (tablet: Tablet, said: typeof american): Promise<void> => {
  const { version } = await must(tablet, api.house.read, {});
  await must(tablet, api.house.saveSettings, { body: { version, settings: { units: said } } });
};
const refusal = async (tablet: Tablet, lotId: string): Promise<string> => {
  const { body } = await tablet.ask(api.larder.split, {
    params: { lotId },
    body: { massMg: grams(9_000), pieces: null },
  });
  return String((body as { detail?: string }).detail);
};

it('what is refused is said in the house’s own units, at once after they changed, and in nobody else’s', async () => {
  const lot = await received(kitchen, ours);
  const other = await received(kitchen, theirs, {}, kitchen.other);
  expect(await refusal(ours, lot.lotId)).toMatch(/has [\d,]+ g/);
  await units(ours, american);
  // the word of it goes round after the commit
  while (!(await refusal(ours, lot.lotId)).includes('oz')) await new Promise((r) => setTimeout(r, 20));
  expect(await refusal(ours, lot.lotId)).toMatch(/has \d+ lb \d+\.\d oz/);
  expect(await refusal(theirs, other.lotId)).toMatch(/has [\d,]+ g/);
  // what is kept and sent is what it was
  expect((await must(ours, api.larder.read, { params: { lotId: lot.lotId } })).massMg).toBe(grams(2_860));
  expect(await must(ours, api.house.read, {})).toMatchObject({ units: american });
  expect(await must(theirs, api.house.read, {})).toMatchObject({ units: { mass: 'metric', temperature: 'C' } });
});
