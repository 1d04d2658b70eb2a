import { recipeById } from '@zabrik/catalogue';
import { api } from '@zabrik/contract';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { openTestKitchen, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { closedHake, must, startHake } from '../testing/work.ts';
import { select } from './select.ts';

let kitchen: TestKitchen;
let ines: Tablet;
beforeAll(async () => {
  kitchen = await openTestKitchen();
  ines = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
});
afterAll(() => kitchen.stop());

const count = async (table: string): Promise<number> =>
  (await select<{ n: number }>(kitchen.services.db, `select count(*)::int as n from ${table}`, []))[0]?.n ?? 0;

it('keeps a plan once for all that is worked by it', async () => {
  const [first, second] = [await startHake(kitchen, ines), await startHake(kitchen, ines)];
  expect(second.breakdown.plan).toEqual(first.breakdown.plan);
  expect([await count('breakdown'), await count('plan_version')]).toEqual([2, 1]);
});

it('keeps a recipe once for the batches made by it, and another where it is made in another way', async () => {
  const planned = async (ways?: string[]): Promise<void> => {
    const { closed } = await closedHake(kitchen, ines);
    const frame = closed.lots.find((lot) => /frame/i.test(lot.name))?.lotId ?? '';
    await must(ines, api.pots.plan, {
      body: {
        recipeId: 'fish-fumet',
        lotIds: [frame],
        vesselId: null,
        onHandMg: {},
        ...(ways === undefined ? {} : { ways }),
      },
    });
  };
  await planned();
  await planned();
  expect([await count('batch'), await count('recipe_version')]).toEqual([2, 1]);
  const [, other] = recipeById.get('fish-fumet')?.questions[0]?.ways ?? [];
  await planned([other?.id ?? '']);
  expect([await count('batch'), await count('recipe_version')]).toEqual([3, 2]);
});

it.each(['plan_version', 'recipe_version'])('never changes a %s', async (table) => {
  const { db } = kitchen.services;
  await expect(db.query(`update ${table} set id = id`)).rejects.toThrow(/never changed/);
  await expect(db.query(`delete from ${table}`)).rejects.toThrow(/never changed/);
  await expect(db.query(`truncate ${table} cascade`)).rejects.toThrow(/never changed/);
});
