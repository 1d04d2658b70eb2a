import { api } from '@zabrik/contract';
import { v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openTestKitchen, pathOf, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { deliveryBody } from '../testing/work.ts';

let kitchen: TestKitchen;
let ines: Tablet;
beforeAll(async () => {
  kitchen = await openTestKitchen();
  ines = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
});
afterAll(() => kitchen.stop());

const command = (): Record<string, string> => ({ 'idempotency-key': uuidv7() });

describe('a tablet that has not taken the new app yet', () => {
  it.each([
    ['post', '/runs'],
    ['post', `/runs/${uuidv7()}/events`],
    ['get', '/run-timers'],
    ['get', '/uses'],
    ['post', '/uses'],
  ] as const)('%s %s: not now, so that it keeps what it has to say', async (method, path) => {
    const reply = await ines.raw(method, `/api/v1${path}`, method === 'post' ? '{}' : undefined, command());
    expect(reply).toMatchObject({ status: 503, body: { code: 'busy' } });
  });

  it('what never was an address is still nothing', async () => {
    expect(await ines.raw('get', '/api/v1/runsaway')).toMatchObject({ status: 404 });
  });

  it('says yes in the word of before, and is understood', async () => {
    const { confirmed: _, ...body } = deliveryBody(kitchen) as Record<string, unknown>;
    const said = (o: object) =>
      ines.raw('post', pathOf(api.receive.accept, {}), JSON.stringify({ ...body, ...o }), command());
    expect((await said({ nod: true })).status).toBe(200);
    expect((await said({ nod: 'perhaps' })).status).toBe(400);
    // a name that every object has is none of ours, and is said as it was written
    expect(await said({ constructor: true })).toMatchObject({ status: 400, body: { code: 'invalid' } });
    expect(JSON.stringify((await said({ constructor: true })).body)).not.toContain('native code');
    // both at once is nobody's app
    expect((await said({ nod: true, confirmed: false })).status).toBe(400);
  });
});
