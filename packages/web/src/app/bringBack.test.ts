import { waitFor } from '@testing-library/react';
import 'fake-indexeddb/auto';
import type { Me } from '@zabrik/contract';
import { v7 as uuidv7 } from 'uuid';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { me as sous } from '../testing/kitchen.ts';
import { api } from './endpoints.ts';

const houseId = sous.house.id;
const mine = { personId: sous.person.id, name: sous.person.name, houseId };
const other = { personId: uuidv7(), name: 'Ines Calloway', houseId };

let known: Set<string>;
let sent: { readonly key: string | null; readonly url: string }[];
let outbox: typeof import('./outbox.ts');
let done: typeof import('./done.ts');
let bring: typeof import('./bringBack.ts');
beforeEach(async () => {
  vi.resetModules();
  vi.stubGlobal('indexedDB', new IDBFactory());
  localStorage.clear();
  known = new Set();
  sent = [];
  vi.stubGlobal('fetch', (url: string, init: RequestInit) => {
    const body = JSON.parse(String(init.body ?? 'null')) as { keys: string[] };
    if (url.endsWith('/commands/known'))
      return Promise.resolve(new Response(JSON.stringify({ unknown: body.keys.filter((k) => !known.has(k)) })));
    sent.push({ key: new Headers(init.headers).get('idempotency-key'), url });
    return Promise.resolve(new Response('{}'));
  });
  outbox = await import('./outbox.ts');
  done = await import('./done.ts');
  bring = await import('./bringBack.ts');
});
afterEach(() => vi.unstubAllGlobals());

const restored = (stateAt = new Date(Date.now() - 60_000)): Me => ({
  ...sous,
  restored: { id: uuidv7(), stateAt: stateAt.toISOString() },
});
const did = (by: typeof mine, says: string): string => {
  const key = uuidv7();
  done.noteDone({ key, endpoint: 'larder.takeOut', params: { lotId: 'l' }, body: { says }, about: 'l', says }, by);
  return key;
};
const kept = async (n: number) => waitFor(async () => expect(await done.doneSince(0)).toHaveLength(n));

it('what was acknowledged and is gone is offered back, in its order, and sent again under its own key', async () => {
  const keys = [did(mine, 'larder.takeOut')];
  await kept(1);
  keys.push(did(mine, 'head, 500 g'));
  await kept(2);
  const theirs = did(other, 'frame');
  const stands = did(mine, 'still there');
  const elsewhere = did({ ...mine, houseId: uuidv7() }, 'another house');
  await kept(5);
  known.add(stands);
  outbox.worksAs(mine);
  const now = restored();
  expect(await bring.bringBack(now)).toBe(3);
  expect(outbox.waitingNow().map((w) => [w.key, w.says, w.by?.name])).toEqual([
    [keys[0], 'something taken out', sous.person.name],
    [keys[1], 'head, 500 g', sous.person.name],
    [theirs, 'frame', 'Ines Calloway'],
  ]);
  expect(outbox.waitingNow().map((w) => w.key)).not.toContain(elsewhere);
  expect(sent).toEqual([]);
  await outbox.sendLostAgain();
  await waitFor(() => expect(outbox.waitingNow().map((w) => w.key)).toEqual([theirs]));
  expect(sent.map((s) => s.key)).toEqual(keys);
  // once for each time they were brought back
  expect(await bring.bringBack(now)).toBe(0);
  expect(await bring.bringBack({ ...sous, restored: null })).toBe(0);
});

it('what was done before the moment the records stand as of is not asked for', async () => {
  did(mine, 'old');
  await kept(1);
  expect(await bring.bringBack(restored(new Date(Date.now() + 2 * 3_600_000)))).toBe(0);
});

it('a sent weight is kept for a fortnight, a photograph is not', async () => {
  outbox.worksAs(mine);
  await outbox.keep(api.bench.weigh, { params: { breakdownId: 'b' }, body: { massMg: 1 } as never }, { says: 'head' });
  await waitFor(() => expect(outbox.waitingNow()).toEqual([]));
  done.noteDone({
    key: uuidv7(),
    endpoint: 'receive.photograph',
    params: {},
    body: 'x'.repeat(200_000),
    about: '',
    says: 'photo',
  });
  await kept(1);
  vi.useFakeTimers({ toFake: ['Date'], now: Date.now() + 15 * 86_400_000 });
  expect(await done.doneSince(0)).toEqual([]);
  vi.useRealTimers();
  expect(await done.doneSince(0)).toEqual([]);
});
