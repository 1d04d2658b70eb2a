/** One search over everything of a house, and nothing of another's. */
import { api } from '@zabrik/contract';
import { grams } from '@zabrik/core';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { openTestKitchen, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { closedHake, must, received, startHake } from '../testing/work.ts';

let kitchen: TestKitchen;
let ines: Tablet;
let maren: Tablet;

beforeAll(async () => {
  kitchen = await openTestKitchen();
  ines = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
  maren = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
});
afterAll(() => kitchen.close());

const found = async (q: string, tablet = ines) => (await must(tablet, api.find.search, { query: { q } })).found;

it('finds a lot by its code, with and without its letter, and as its label says it, before whatever else has those figures', async () => {
  const { lotId, code } = await received(kitchen, ines);
  const digits = code.slice(0, -2);
  for (const q of [code, code.toLowerCase(), code.replace('-', ''), digits, String(Number(digits)), `91${code}`])
    expect((await found(q))[0], q).toMatchObject({
      kind: 'lot',
      id: lotId,
      code,
      massMg: grams(2_860),
      of: 'Bram Quay Fish',
      open: true,
    });
});

it('every word must stand in it, in whatever order; a mark of a pattern is a letter like others', async () => {
  const { lotId } = await received(kitchen, ines, { species: 'gurnard', form: 'whole' });
  await must(ines, api.larder.keep, {
    params: { lotId },
    body: { kind: 'reserve', reservedFor: '100% of table nine', massMg: null, pieces: null },
  });
  const lots = (await found('quay gurnard')).filter((f) => f.kind === 'lot');
  expect(lots.length).toBe(1);
  expect(await found('gurnard hake')).toEqual([]);
  expect((await found('100%')).map((f) => f.kind)).toEqual(['lot']);
  expect(await found('10_% nine')).toEqual([]);
  expect(await found('%')).toEqual([]);
});

it('work under way comes before what is closed, each where it is worked on', async () => {
  const { breakdown: before } = await closedHake(kitchen, ines);
  const { breakdown } = await startHake(kitchen, ines);
  const animals = (await found('hake fillets')).filter((f) => f.kind === 'breakdown');
  expect(animals.map((a) => [a.id, a.open])).toEqual([
    [breakdown.id, true],
    [before.id, false],
  ]);
  // what was used up is found as well, after what is there
  const lots = (await found('hake, gutted')).filter((f) => f.kind === 'lot');
  expect(lots.map((l) => l.open)).toEqual([...lots.map((l) => l.open)].sort((a, b) => Number(b) - Number(a)));
  expect(lots.some((l) => !l.open && l.massMg === 0)).toBe(true);
});

it('plans, recipes, suppliers and deliveries by name; people for chefs alone', async () => {
  expect((await found('two fillets')).some((f) => f.kind === 'plan' && f.id === 'round-fish-two-fillets')).toBe(true);
  expect((await found('fumet')).some((f) => f.kind === 'recipe')).toBe(true);
  expect((await found('bram quay')).map((f) => f.kind)).toEqual(expect.arrayContaining(['supplier', 'delivery']));
  expect((await found('calloway')).some((f) => f.kind === 'person')).toBe(false);
  expect(await found('calloway', maren)).toEqual(
    expect.arrayContaining([expect.objectContaining({ kind: 'person', name: 'Ines Calloway', open: true })]),
  );
});

it('nothing of another house', async () => {
  const theirs = await kitchen.signIn(kitchen.personOf('Ines Calloway', kitchen.other));
  const { lotId, code } = await received(kitchen, theirs, { species: 'brill', form: 'gutted' }, kitchen.other);
  expect((await found('brill', theirs)).map((f) => f.id)).toContain(lotId);
  expect((await found('brill')).filter((f) => f.kind === 'lot')).toEqual([]);
  expect((await found(code)).some((f) => f.id === lotId)).toBe(false);
  const chef = await kitchen.signIn(kitchen.personOf('Maren Ostle', kitchen.other));
  const here = (await found('calloway', maren)).map((f) => f.id);
  expect((await found('calloway', chef)).filter((f) => here.includes(f.id))).toEqual([]);
});
