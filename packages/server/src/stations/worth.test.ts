/** What bones and trim are worth: by category, of one species apart, from the day it is said; a sheet keeps what held when its stage was closed. */
import { api } from '@zabrik/contract';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { openTestKitchen, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { closedHake, hakePieces, must, startHake, weighedAndClosed } from '../testing/work.ts';

let kitchen: TestKitchen;
let maren: Tablet;
let ines: Tablet;
beforeAll(async () => {
  kitchen = await openTestKitchen();
  maren = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
  ines = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
});
afterAll(() => kitchen.stop());

const house = () => must(maren, api.house.read, {});
const say = async (creditMinorPerKg: Readonly<Record<string, number>>): Promise<void> => {
  const { version } = await house();
  await must(maren, api.house.saveSettings, {
    body: { version, settings: { creditMinorPerKg, school: 'by-product-credit' } },
  });
};
/** What the frame of a sheet is worth and costs, and what was booked for it. */
const frameOf = async (breakdownId: string) => {
  const sheet = await must(ines, api.ledger.sheet, { params: { breakdownId } });
  const row = sheet.rows.find((r) => r.pieceId === 'frame');
  const lots = await must(ines, api.larder.list, { query: { search: row?.lotCode ?? '' } });
  return {
    worth: row?.creditMinorPerKg,
    said: row?.worthSaid,
    minor: row?.costMinor['by-product-credit'],
    booked: lots.lots[0]?.costMinor,
  };
};

it('what is said of a species goes before its category, and a sheet keeps what held', async () => {
  await say({ 'white-fish-frame': 100 });
  const first = await closedHake(kitchen, ines);
  // 468 g of frame at 100 a kilogram
  const before = { worth: 100, said: true, minor: 47, booked: 47 };
  expect(await frameOf(first.breakdown.id)).toEqual(before);
  await say({ 'white-fish-frame': 100, 'white-fish-frame/hake': 300 });
  const second = await closedHake(kitchen, ines);
  expect(await frameOf(second.breakdown.id)).toEqual({ worth: 300, said: true, minor: 140, booked: 140 });
  await say({ 'white-fish-frame': 900, 'white-fish-frame/cod': 5 });
  expect(await frameOf(first.breakdown.id)).toEqual(before);
  expect(await frameOf(second.breakdown.id)).toMatchObject({ worth: 300, minor: 140 });
  const third = await closedHake(kitchen, ines);
  expect(await frameOf(third.breakdown.id)).toMatchObject({ worth: 900 });
  await say({});
  expect(await frameOf(third.breakdown.id)).toMatchObject({ worth: 900, said: true });
  const fourth = await closedHake(kitchen, ines);
  expect(await frameOf(fourth.breakdown.id)).toMatchObject({ worth: 0, said: false, booked: 0 });
  // what is said to be worth nothing is nought; what nobody has priced is said so
  await say({ 'white-fish-frame': 0 });
  const fifth = await closedHake(kitchen, ines);
  expect(await frameOf(fifth.breakdown.id)).toMatchObject({ worth: 0, said: true, booked: 0 });
});

it('says when each was said: the same again stays of its day', async () => {
  kitchen.setClock(new Date('2026-12-05T10:00:00.000Z'));
  await say({ 'white-fish-frame': 60, 'white-fish-head': 50 });
  kitchen.setClock(new Date('2026-12-09T10:00:00.000Z'));
  await say({ 'white-fish-frame': 70, 'white-fish-head': 50 });
  expect((await house()).creditSaid).toEqual({ 'white-fish-frame': '2026-12-09', 'white-fish-head': '2026-12-05' });
});

it('an hour costs on a sheet what it cost when its stage was closed, whoever worked and whatever they are called now', async () => {
  const rate = async (labourMinorPerHour: number | null): Promise<void> => {
    const { version } = await house();
    await must(maren, api.house.saveSettings, { body: { version, settings: { labourMinorPerHour } } });
  };
  const pay = async (name: string, hourlyMinor: number | null): Promise<void> => {
    const { people } = await must(maren, api.house.people, {});
    const her = people.find((p) => p.id === kitchen.personOf('Ines Calloway'));
    if (her === undefined) throw new Error('she is not there');
    await must(maren, api.house.changePerson, {
      params: { personId: her.id },
      body: { name, role: her.role, hourlyMinor, version: her.version },
    });
  };
  const labour = async (breakdownId: string): Promise<number | null> => {
    const { time } = await must(ines, api.ledger.sheet, { params: { breakdownId } });
    return time.labourMinor;
  };
  // an hour at the bench, by the clock
  const anHour = async () => {
    kitchen.setClock(new Date('2026-12-10T10:00:00.000Z'));
    const { breakdown } = await startHake(kitchen, ines);
    kitchen.setClock(new Date('2026-12-10T11:00:00.000Z'));
    await weighedAndClosed(ines, breakdown.id, hakePieces);
    kitchen.setClock(new Date('2026-12-10T12:00:00.000Z'));
    return breakdown.id;
  };
  await rate(1_600);
  const first = await anHour();
  expect(await labour(first)).toBe(1_600);
  kitchen.setClock(new Date('2026-12-11T10:00:00.000Z'));
  await pay('Ines Calloway', 2_000);
  await rate(1_800);
  expect(await labour(first)).toBe(1_600);
  await pay('Ines C. Holm', 2_200);
  await rate(null);
  expect(await labour(first)).toBe(1_600);
  kitchen.setClock(new Date('2026-12-12T10:00:00.000Z'));
  await pay('Ines Calloway', null);
});
