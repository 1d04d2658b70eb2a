import { api } from '@zabrik/contract';
import { allEndpoints } from '@zabrik/contract/openapi';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { z } from 'zod';
import { openTestKitchen, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { closedHake, must } from '../testing/work.ts';
import { AMOUNT } from './hideCosts.ts';

let kitchen: TestKitchen;
let wren: Tablet;
let maren: Tablet;
beforeAll(async () => {
  kitchen = await openTestKitchen();
  wren = await kitchen.signIn(kitchen.personOf('Wren Haldane'));
  maren = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
});
afterAll(() => kitchen.stop());

/** Every amount of money in a JSON schema, by the names on the way to it. */
function amounts(schema: unknown, names: readonly string[] = []): string[][] {
  if (typeof schema !== 'object' || schema === null) return [];
  if (Array.isArray(schema)) return schema.flatMap((s) => amounts(s, names));
  const { properties, description, ...others } = schema as {
    properties?: Record<string, unknown>;
    description?: string;
  };
  if (description?.startsWith('money') === true) return [[...names]];
  return [
    ...Object.entries(properties ?? {}).flatMap(([name, inner]) => amounts(inner, [...names, name])),
    ...Object.values(others).flatMap((inner) => amounts(inner, names)),
  ];
}

it('every amount in every answer has a name that says so', () => {
  let found = 0;
  for (const e of allEndpoints)
    for (const names of amounts(z.toJSONSchema(e.answer, { unrepresentable: 'any', io: 'output' }))) {
      found += 1;
      expect(
        names.some((name) => AMOUNT.test(name)),
        `${e.id}: ${names.join('.')}`,
      ).toBe(true);
    }
  expect(found).toBeGreaterThan(30);
});

/** The figures under names of amounts, wherever they stand. */
function figures(value: unknown, isAmount = false): number[] {
  if (typeof value === 'number') return isAmount ? [value] : [];
  if (typeof value !== 'object' || value === null) return [];
  return Object.entries(value).flatMap(([name, inner]) => figures(inner, isAmount || AMOUNT.test(name)));
}

it('a viewer sees costs until the house keeps them to itself, and nobody else ever misses one', async () => {
  const { delivery, breakdown } = await closedHake(kitchen, maren);
  const reads = async (tablet: Tablet) => [
    await must(tablet, api.larder.list, { query: {} }),
    await must(tablet, api.larder.read, { params: { lotId: delivery.lotId } }),
    await must(tablet, api.receive.read, { params: { deliveryId: delivery.deliveryId } }),
    await must(tablet, api.ledger.sheet, { params: { breakdownId: breakdown.id } }),
    await must(tablet, api.house.read, {}),
  ];
  for (const answer of await reads(wren)) expect(figures(answer).some((n) => n > 0)).toBe(true);
  expect((await must(wren, api.house.read, {})).costs).toBe('shown');
  const inFull = await reads(maren);

  expect((await wren.ask(api.house.saveViewers, { body: { seeCosts: false } })).status).toBe(403);
  await must(maren, api.house.saveViewers, { body: { seeCosts: false } });
  const kept = await reads(wren);
  for (const answer of kept) expect(figures(answer).filter((n) => n !== 0)).toEqual([]);
  expect(kept[0]).toMatchObject({
    lots: expect.arrayContaining([expect.objectContaining({ code: expect.any(String) })]),
  });
  expect((await must(wren, api.house.read, {})).costs).toBe('hidden');
  for (const path of ['/api/v1/prices', '/api/v1/price-lists', `/api/v1/deliveries/${delivery.deliveryId}/claim.pdf`])
    expect((await wren.raw('get', path)).status, path).toBe(403);
  const [lots, lot, line, sheet] = await reads(maren);
  expect([lots, lot, line, sheet]).toEqual(inFull.slice(0, 4));
  await must(maren, api.house.saveViewers, { body: { seeCosts: true } });
  expect((await wren.raw('get', '/api/v1/prices')).status).toBe(200);
});
