/** What strangers, broken clocks and broken text meet at the door: refused as what they are, and nothing of it written. */
import { request as plainRequest } from 'node:http';
import { connect } from 'node:net';
import { api } from '@zabrik/contract';
import { v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { weigh } from '../stations/bench/weigh.ts';
import { openTestKitchen, pathOf, type Tablet, type TestKitchen } from '../testing/openTestKitchen.ts';
import { deliveryBody, must, startHake, takeBody } from '../testing/work.ts';

let kitchen: TestKitchen;
let ines: Tablet;
let maren: Tablet;
beforeAll(async () => {
  kitchen = await openTestKitchen();
  ines = await kitchen.signIn(kitchen.personOf('Ines Calloway'));
  maren = await kitchen.signIn(kitchen.personOf('Maren Ostle'));
});
afterAll(() => kitchen.stop());

const command = (): Record<string, string> => ({ 'idempotency-key': uuidv7() });
const weighingsOf = async (breakdownId: string) =>
  (await must(ines, api.bench.read, { params: { breakdownId } })).weighings;

describe('text that cannot be written down', () => {
  it.each([
    ['half an emoji', 'late \ud83d'],
    ['the other half', '\udc1f late'],
    ['a NUL', 'la\u0000te'],
  ])('%s is a bad request, named by its field', async (_, note) => {
    const body = JSON.stringify({ ...deliveryBody(kitchen), note });
    const reply = await ines.raw('post', pathOf(api.receive.accept, {}), body, command());
    expect(reply).toMatchObject({ status: 400, body: { code: 'invalid', field: 'note' } });
  });

  it('so is it in an address, on the weighing’s short road, and in a name nobody asked for', async () => {
    const { breakdown } = await startHake(kitchen, ines);
    expect(await ines.raw('get', '/api/v1/lots?search=%00')).toMatchObject({ status: 400 });
    const short = await ines.raw(
      'post',
      `/api/v1/breakdowns/${breakdown.id}/weighings`,
      JSON.stringify({ ...takeBody('head', 'stock', 536), pieceId: 'he\u0000ad' }),
      command(),
    );
    expect(short).toMatchObject({ status: 400, body: { field: 'pieceId' } });
    const named = await ines.raw(
      'post',
      `/api/v1/breakdowns/${breakdown.id}/weighings`,
      JSON.stringify({ ...takeBody('head', 'stock', 536), 'x\ud800': 1 }),
      command(),
    );
    expect(named.status).toBe(400);
    const deep = `${'['.repeat(5_000)}${']'.repeat(5_000)}`;
    expect((await ines.raw('post', pathOf(api.receive.accept, {}), deep, command())).status).toBe(400);
    expect(await weighingsOf(breakdown.id)).toEqual([]);
  });
});

it.each(['Bram\u202e yauQ', 'Bram\u200b Quay', '\ufeff'])(
  'a supplier is not named by marks nobody sees: %j',
  async (name) => {
    const reply = await maren.raw('post', pathOf(api.receive.addSupplier, {}), { name }, command());
    expect(reply).toMatchObject({ status: 400, body: { field: 'name' } });
  },
);

describe('clocks', () => {
  it.each(['0000-01-01T00:00:00Z', '0001-01-01T00:00:00Z', '1999-12-31T23:59:59Z', '9999-12-31T00:00:00Z'])(
    'a weight of %s is refused',
    async (at) => {
      const { breakdown } = await startHake(kitchen, ines);
      const reply = await ines.raw(
        'post',
        `/api/v1/breakdowns/${breakdown.id}/weighings`,
        { ...takeBody('head', 'stock', 536), at },
        command(),
      );
      expect(reply).toMatchObject({ status: 400, body: { field: 'at' } });
    },
  );

  it('a tablet years ahead weighs now', async () => {
    const { breakdown } = await startHake(kitchen, ines);
    const before = Date.now();
    const weighing = await must(ines, api.bench.weigh, {
      params: { breakdownId: breakdown.id },
      body: { ...takeBody('head', 'stock', 536), at: '2031-05-01T10:00:00.000Z' },
    });
    expect(Date.parse(weighing.at) - before).toBeLessThan(600_000);
  });

  it('one weight that the database cannot take leaves those beside it in the same commit alone', async () => {
    const { breakdown } = await startHake(kitchen, ines);
    const weigher = { houseId: kitchen.home?.houseId ?? '', personId: kitchen.personOf('Ines Calloway'), name: 'Ines' };
    const take = (count: number) =>
      weigh(kitchen.services, weigher, uuidv7(), breakdown.id, { ...takeBody('head', 'stock', 10), count } as never);
    // more than an integer column holds, past the contract's bounds
    const results = await Promise.allSettled([take(1), take(1), take(9_000_000_000), take(1), take(1), take(1)]);
    expect(results.map((r) => r.status)).toEqual([
      'fulfilled',
      'fulfilled',
      'rejected',
      'fulfilled',
      'fulfilled',
      'fulfilled',
    ]);
    expect(await weighingsOf(breakdown.id)).toHaveLength(5);
  });
});

describe('what was done while the server was away', () => {
  it('counts from when it was done; what nobody can have meant counts from now', async () => {
    const { lotId } = await must(ines, api.receive.accept, { body: deliveryBody(kitchen) });
    const serve = { massMg: 10_000, to: 'staff', reason: null, note: null };
    const road = pathOf(api.larder.takeOut, { lotId: lotId ?? '' });
    const age = async (waited: string): Promise<number> => {
      const reply = await ines.raw('post', road, serve, { ...command(), 'zabrik-waited': waited });
      expect(reply.status).toBe(200);
      const { entries } = await must(ines, api.larder.read, { params: { lotId: lotId ?? '' } });
      const entry = entries.find((e) => e.movementId === reply.body['movementId']);
      return Math.round((Date.now() - Date.parse(entry?.at ?? '')) / 60_000);
    };
    expect(await age('3600000')).toBe(60);
    for (const nonsense of ['-3600000', '1e9', 'an hour', `${15 * 86_400_000}`]) expect(await age(nonsense)).toBe(0);
  });
});

describe('whose work', () => {
  it('is not written under the next one’s name, on either road', async () => {
    const { breakdown } = await startHake(kitchen, ines);
    const mine = { 'zabrik-person': kitchen.personOf('Ines Calloway') };
    const road = `/api/v1/breakdowns/${breakdown.id}/weighings`;
    const body = takeBody('head', 'stock', 311);
    const refused = { status: 409, body: { code: 'other_person' } };
    expect(await maren.raw('post', road, body, { ...command(), ...mine })).toMatchObject(refused);
    expect(
      await maren.raw('post', pathOf(api.receive.accept, {}), deliveryBody(kitchen), { ...command(), ...mine }),
    ).toMatchObject(refused);
    expect(await weighingsOf(breakdown.id)).toEqual([]);
    expect(await ines.raw('post', road, body, { ...command(), ...mine })).toMatchObject({ status: 200 });
    expect(await weighingsOf(breakdown.id)).toMatchObject([{ by: 'Ines Calloway', massMg: 311_000 }]);
    // it had arrived and only the answer was lost: taken over under its key, it is not written twice
    const lost = command();
    await ines.raw('post', road, { ...body, massMg: 312_000 }, { ...lost, ...mine });
    const hers = { 'zabrik-person': kitchen.personOf('Maren Ostle') };
    expect(await maren.raw('post', road, { ...body, massMg: 312_000 }, { ...lost, ...hers })).toMatchObject({
      status: 200,
      body: { by: 'Ines Calloway' },
    });
    expect(await weighingsOf(breakdown.id)).toHaveLength(2);
  });
});

describe('strangers', () => {
  const port = (): number => Number(new URL(kitchen.base).port);
  const statusUnder = (host: string): Promise<number | undefined> =>
    new Promise((resolve, reject) => {
      plainRequest({ host: '127.0.0.1', port: port(), path: '/api/v1/houses', headers: { host } }, (response) => {
        response.resume();
        resolve(response.statusCode);
      })
        .on('error', reject)
        .end();
    });

  it('a page whose name was pointed at this machine reads nothing', async () => {
    expect(await statusUnder(`127.0.0.1:${port()}`)).toBe(200);
    expect(await statusUnder('localhost')).toBe(200);
    expect(await statusUnder('rebound.invalid')).toBe(421);
    expect(await statusUnder(`localhost.rebound.invalid:${port()}`)).toBe(421);
  });

  it('nobody who is not signed in is listened to for a weight', async () => {
    const { breakdown } = await startHake(kitchen, ines);
    const answered = await new Promise<string>((resolve, reject) => {
      const line = connect(port(), '127.0.0.1', () => {
        // a body of a gigabyte is announced and never sent
        line.write(
          `POST /api/v1/breakdowns/${breakdown.id}/weighings HTTP/1.1\r\nhost: 127.0.0.1:${port()}\r\norigin: ${kitchen.base}\r\ncontent-type: application/json\r\ncontent-length: 1000000000\r\n\r\n{`,
        );
      });
      let text = '';
      line.on('data', (part) => (text += part.toString()));
      line.on('close', () => resolve(text));
      line.on('error', reject);
    });
    expect(answered).toContain('401');
  });
});
