import { api } from '@zabrik/contract';
import { v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { openTestKitchen, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { deliveryBody } from '../testing/work.ts';
import { select } from './select.ts';
import { thinAnswers } from './thinAnswers.ts';

let kitchen: TestKitchen;
let ines: Tablet;
beforeAll(async () => {
  kitchen = await openTestKitchen();
  ines = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
});
afterAll(() => kitchen.stop());

it('forgets what was answered over thirty days ago, and does it no second time', async () => {
  const { db } = kitchen.services;
  const [old, recent] = [uuidv7(), uuidv7()];
  const body = deliveryBody(kitchen);
  const accept = (key: string) => ines.ask(api.receive.accept, { body }, key);
  const first = await accept(old);
  await accept(recent);
  const lots = () => select(db, 'select id from lot', []);
  const before = (await lots()).length;
  const now = new Date();
  const day = 86_400_000;
  await db.query(`update command set at = $2 where id = $1`, { bind: [old, new Date(now.getTime() - 31 * day)] });
  await db.query(`update command set at = $2 where id = $1`, { bind: [recent, new Date(now.getTime() - 29 * day)] });
  expect(await thinAnswers(db, now)).toBe(1);
  expect(await thinAnswers(db, now)).toBe(0);
  expect(await accept(old)).toMatchObject({ status: 409, body: { code: 'done_before' } });
  expect(await accept(recent)).toMatchObject({ status: 200 });
  expect(first.status).toBe(200);
  expect(await lots()).toHaveLength(before);
  // asked and answered in words of before, as a move of the database's names leaves it: that it was done is known all the same
  await db.query(`update command set answer = null, fingerprint = '' where id = $1`, { bind: [recent] });
  expect(await accept(recent)).toMatchObject({ status: 409, body: { code: 'done_before' } });
  expect(await lots()).toHaveLength(before);
});
