import { waitFor } from '@testing-library/react';
import 'fake-indexeddb/auto';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { api } from './endpoints.ts';

interface Call {
  readonly url: string;
  readonly key: string | null;
  readonly person: string | null;
  readonly waited: number;
  readonly body: unknown;
}

/** A server that answers what the test says, and remembers what it was sent. */
function fakeServer(answer: (call: Call, n: number) => Response | Error): Call[] {
  const calls: Call[] = [];
  vi.stubGlobal('fetch', (url: string, init: RequestInit) => {
    const call = {
      url,
      key: new Headers(init.headers).get('idempotency-key'),
      person: new Headers(init.headers).get('zabrik-person'),
      waited: Number(new Headers(init.headers).get('zabrik-waited')),
      body: JSON.parse(String(init.body)) as unknown,
    };
    calls.push(call);
    const reply = answer(call, calls.length);
    return reply instanceof Error ? Promise.reject(reply) : Promise.resolve(reply);
  });
  return calls;
}

const json = (status: number, body: unknown): Response => new Response(JSON.stringify(body), { status });
/** The n-th command of a test: kept under its number. */
const keep = (n: number, more: object = {}) =>
  outbox.keep(
    api.bench.weigh,
    { params: { breakdownId: 'b1' }, body: { n, ...more } as never },
    { key: `key-${n}`, says: `weight ${n}` },
  );
/** The same from a screen that waits for what comes of it. */
const ask = (n: number, isThere = () => true) =>
  outbox.keepAndAsk(
    api.larder.takeOut,
    { params: { lotId: 'l1' }, body: { n } as never },
    { key: `key-${n}`, says: `taken ${n}` },
    isThere,
  );

let outbox: typeof import('./outbox.ts');
beforeEach(async () => {
  vi.resetModules();
  vi.stubGlobal('indexedDB', new IDBFactory());
  outbox = await import('./outbox.ts');
});
afterEach(() => {
  vi.unstubAllGlobals();
});

const settle = (calls: readonly unknown[], count: number): Promise<void> =>
  waitFor(() => expect(calls.length).toBe(count), { timeout: 4_000 });

describe('the outbox', () => {
  it('sends in the order things were kept, each under its own key', async () => {
    const calls = fakeServer(() => json(200, {}));
    await Promise.all([1, 2, 3].map((n) => keep(n)));
    await settle(calls, 3);
    expect(calls.map((c) => c.key)).toEqual(['key-1', 'key-2', 'key-3']);
  });

  it('shows a command before the disk answers, and sends it only after', async () => {
    let on = false;
    const calls = fakeServer(() => (on ? json(200, {}) : new TypeError('network')));
    await keep(1);
    await settle(calls, 1);
    const kept = keep(2);
    expect(outbox.waitingNow().map((w) => [w.key, w.onDisk])).toEqual([
      ['key-1', undefined],
      ['key-2', false],
    ]);
    expect(await kept).toBe(true);
    expect(outbox.waitingNow().map((w) => w.onDisk)).toEqual([undefined, undefined]);
    on = true;
    outbox.drain();
    await waitFor(() => expect(outbox.waitingNow()).toEqual([]));
    expect(calls.at(-1)?.key).toBe('key-2');
  });

  it('says so when the disk is full, keeps it in sight until it is read, and goes on', async () => {
    const calls = fakeServer(() => json(200, {}));
    await keep(1);
    await settle(calls, 1);
    const put = vi.spyOn(IDBObjectStore.prototype, 'put').mockImplementationOnce(() => {
      throw new DOMException('the quota is used up', 'QuotaExceededError');
    });
    expect(await keep(2)).toBe(false);
    put.mockRestore();
    await keep(3);
    await settle(calls, 2);
    expect(calls.map((c) => c.key)).toEqual(['key-1', 'key-3']);
    await waitFor(() => expect(outbox.waitingNow().map((w) => w.key)).toEqual(['key-2']));
    expect(outbox.waitingNow()[0]?.refused).toContain('storage is full');
    await outbox.dismiss('key-2');
    expect(outbox.waitingNow()).toEqual([]);
  });

  it('tries again under the same key when the answer is lost or the server is down, and nothing overtakes', async () => {
    const calls = fakeServer((_call, n) =>
      n === 1 ? new TypeError('network') : n === 2 ? json(503, {}) : json(200, {}),
    );
    await keep(1);
    await keep(2);
    await settle(calls, 4);
    expect(calls.map((c) => c.key)).toEqual(['key-1', 'key-1', 'key-1', 'key-2']);
  });

  it('hands the answer over before it lets go of the command', async () => {
    const calls = fakeServer(() => json(200, { id: 'stored' }));
    const sent = vi.fn();
    outbox.onSent(sent);
    await keep(1);
    await settle(calls, 1);
    await waitFor(() => expect(sent).toHaveBeenCalledWith(expect.objectContaining({ key: 'key-1' }), { id: 'stored' }));
  });

  it('keeps what is refused with the reason, and goes on with the next', async () => {
    const calls = fakeServer((_call, n) =>
      n === 1 ? json(409, { code: 'stage_closed', title: 'This stage is closed.', status: 409 }) : json(200, {}),
    );
    const sent: string[] = [];
    outbox.onSent((waiting) => sent.push(waiting.key));
    await keep(1);
    await keep(2);
    await settle(calls, 2);
    await waitFor(() => expect(sent).toEqual(['key-2']));
    outbox.drain();
    await new Promise((resolve) => setTimeout(resolve, 50));
    expect(calls.length).toBe(2); // a refused command is not sent again
  });

  it('waits, and does not count as refused, when someone has to sign in again', async () => {
    const calls = fakeServer((_call, n) =>
      n === 1 ? json(401, { code: 'not_signed_in', title: 'Sign in first.', status: 401 }) : json(200, {}),
    );
    await keep(1);
    await settle(calls, 2);
    expect(calls[1]?.key).toBe('key-1');
  });
});

describe('whose work', () => {
  const author = (personId: string) => ({ personId, name: personId, houseId: 'h' });
  const quiet = () => new Promise((resolve) => setTimeout(resolve, 50));

  it('goes out under its own person’s sign-in, and waits while someone else is at work', async () => {
    let on = false;
    const calls = fakeServer(() => (on ? json(200, {}) : new TypeError('network')));
    outbox.worksAs(author('ines'));
    await keep(1);
    await settle(calls, 1);
    outbox.worksAs(undefined);
    on = true;
    outbox.worksAs(author('tobin'));
    await keep(2);
    await settle(calls, 2);
    await quiet();
    outbox.drain();
    await quiet();
    expect(calls.map((c) => [c.key, c.person])).toEqual([
      ['key-1', 'ines'],
      ['key-2', 'tobin'],
    ]);
    expect(outbox.waitingNow().map((w) => [w.key, w.by?.name])).toEqual([['key-1', 'ines']]);
    outbox.worksAs(author('ines'));
    await settle(calls, 3);
    expect(calls[2]).toMatchObject({ key: 'key-1', person: 'ines' });
  });

  it('is no refusal where another tab has signed someone else in', async () => {
    const calls = fakeServer((_call, n) =>
      n === 1 ? json(409, { code: 'other_person', title: 'Someone else.', status: 409 }) : json(200, {}),
    );
    outbox.worksAs(author('ines'));
    await keep(1);
    await settle(calls, 2);
    await waitFor(() => expect(outbox.waitingNow()).toEqual([]));
  });

  it('can be taken over: it is written as the one who is here, under its own key, so that a lost answer doubles nothing', async () => {
    const calls = fakeServer((call) => (call.person === 'ines' ? new TypeError('network') : json(200, {})));
    outbox.worksAs(author('ines'));
    await keep(1);
    await settle(calls, 1);
    outbox.worksAs(author('tobin'));
    await outbox.writeAsMine('key-1');
    await waitFor(() => expect(outbox.waitingNow()).toEqual([]));
    expect(calls.at(-1)).toMatchObject({ key: 'key-1', person: 'tobin', body: { n: 1 } });
  });
});

describe('a command the server breaks over', () => {
  const broken = () => json(500, { code: 'broken', title: 'Something broke on our side.', status: 500 });

  it('is put aside with the reason after four times, and what comes after it goes on', async () => {
    let mended = false;
    const calls = fakeServer((call) => (call.key === 'key-1' && !mended ? broken() : json(200, {})));
    await keep(1);
    await keep(2);
    await waitFor(() => expect(calls.map((c) => c.key)).toContain('key-2'), { timeout: 60_000 });
    expect(calls.filter((c) => c.key === 'key-1')).toHaveLength(4);
    await waitFor(() =>
      expect(outbox.waitingNow().map((w) => [w.key, w.refused])).toEqual([['key-1', 'Something broke on our side.']]),
    );
    mended = true;
    await outbox.sendAgain('key-1');
    await waitFor(() => expect(outbox.waitingNow()).toEqual([]));
    expect(calls.at(-1)?.key).toBe('key-1');
  });

  it('keeps back the correction of a weight that has not gone itself', async () => {
    const calls = fakeServer((call) =>
      call.key === 'key-1' ? json(409, { code: 'stage_closed', title: 'Closed.', status: 409 }) : json(200, {}),
    );
    await keep(1);
    await keep(2, { replaces: 'key-1' });
    await keep(3);
    await waitFor(() => expect(calls.map((c) => c.key)).toEqual(['key-1', 'key-3']));
    expect(outbox.waitingNow().map((w) => w.key)).toEqual(['key-1', 'key-2']);
    await outbox.dismiss('key-1');
    outbox.drain();
    await settle(calls, 3);
  });
});

describe('a screen that waits for what comes of a command', () => {
  const refusal = () => json(409, { code: 'not_enough', title: 'There is not so much.', status: 409 });
  const key = (w: { readonly key: string | null }): string | null => w.key;

  it('is given the answer, and nothing stays behind', async () => {
    const calls = fakeServer((call) => json(200, { is: call.key }));
    expect(await ask(1)).toEqual({ kept: false, answer: { is: 'key-1' } });
    await waitFor(() => expect(outbox.waitingNow()).toEqual([]));
    expect(calls).toMatchObject([{ url: '/api/v1/lots/l1/take-out', key: 'key-1', body: { n: 1 } }]);
  });

  it('is given the refusal, which is gone from here; one nobody sees stays to be read', async () => {
    fakeServer(refusal);
    await expect(ask(1)).rejects.toMatchObject({ code: 'not_enough', message: 'There is not so much.' });
    await waitFor(() => expect(outbox.waitingNow()).toEqual([]));
    void ask(2, () => false).catch(() => undefined);
    await waitFor(() => expect(outbox.waitingNow()).toMatchObject([{ key: 'key-2', code: 'not_enough' }]));
  });

  it('is told that it is kept when the server is away; it goes out once, under its key, when the server is back', async () => {
    let on = false;
    const calls = fakeServer(() => (on ? json(200, {}) : new TypeError('network')));
    expect(await ask(1)).toEqual({ kept: true });
    // behind one that waits, without being tried itself
    expect(await ask(2)).toEqual({ kept: true });
    expect(calls.map(key)).toEqual(['key-1', 'key-1']);
    on = true;
    const now = Date.now();
    vi.useFakeTimers({ toFake: ['Date'], now: now + 3_600_000 });
    outbox.drain();
    await waitFor(() => expect(outbox.waitingNow()).toEqual([]));
    vi.useRealTimers();
    expect(calls.slice(2).map(key)).toEqual(['key-1', 'key-2']);
    // what waited says for how long; what goes at once does not
    expect(calls.slice(2).map((c) => Math.round(c.waited / 60_000))).toEqual([60, 60]);
    expect(calls[0]?.waited).toBe(0);
  });

  it('whose page is opened anew in the middle leaves the command to be sent, once', async () => {
    let on = false;
    const calls = fakeServer(() => (on ? json(200, {}) : new TypeError('network')));
    void ask(1);
    await settle(calls, 1);
    vi.resetModules();
    outbox = await import('./outbox.ts');
    on = true;
    await outbox.startOutbox();
    await waitFor(() => expect(outbox.waitingNow()).toEqual([]));
    expect(new Set(calls.map(key))).toEqual(new Set(['key-1']));
  });

  it('hears it from the tab that sends', async () => {
    const calls = fakeServer((call) => (call.key === 'key-1' ? json(200, { is: 1 }) : refusal()));
    await outbox.startOutbox();
    vi.resetModules();
    const other: typeof outbox = await import('./outbox.ts');
    // this one is kept from sending: the other does
    vi.stubGlobal('navigator', {
      locks: { request: (_: string, __: object, work: (lock: null) => unknown) => Promise.resolve(work(null)) },
    });
    const [first, second] = [ask(1), ask(2).catch((why: unknown) => why)];
    await waitFor(() => expect(outbox.waitingNow().map((w) => w.onDisk)).toEqual([undefined, undefined]));
    vi.stubGlobal('navigator', {});
    other.drain();
    expect(await first).toEqual({ kept: false, answer: { is: 1 } });
    expect(await second).toMatchObject({ code: 'not_enough' });
    expect(calls.map(key)).toEqual(['key-1', 'key-2']);
    await waitFor(() => expect(outbox.waitingNow()).toEqual([]));
  });

  it('is told when the disk took nothing, and nothing was sent', async () => {
    const calls = fakeServer(() => json(200, {}));
    const put = vi.spyOn(IDBObjectStore.prototype, 'put').mockImplementationOnce(() => {
      throw new DOMException('the quota is used up', 'QuotaExceededError');
    });
    await expect(ask(1)).rejects.toMatchObject({ name: 'NotKept' });
    put.mockRestore();
    expect([calls, outbox.waitingNow()]).toEqual([[], []]);
  });

  it('only asked to read something first: read, it goes out with that said', async () => {
    const calls = fakeServer((call) =>
      (call.body as { confirmed?: boolean }).confirmed === true
        ? json(200, {})
        : json(409, { code: 'needs_confirmation', title: 'Read this.', status: 409 }),
    );
    await keep(1);
    await waitFor(() =>
      expect(outbox.waitingNow()).toMatchObject([{ code: 'needs_confirmation', refused: 'Read this.' }]),
    );
    await outbox.sendConfirmed('key-1');
    await waitFor(() => expect(outbox.waitingNow()).toEqual([]));
    expect(calls.at(-1)).toMatchObject({ key: 'key-1', body: { n: 1, confirmed: true } });
  });
});

it('what a version before has kept, by its address, is sent as it was meant', async () => {
  const calls = fakeServer(() => json(200, {}));
  const old = {
    key: 'key-1',
    madeAt: 1,
    url: '/api/v1/runs/r%201/events',
    body: { n: 1 },
    about: 'r 1',
    says: 'Stirred',
    tries: 3,
  };
  const { createStore, set } = await import('idb-keyval');
  const store = createStore('zabrik-outbox', 'commands');
  await set('key-1', old, store);
  await set('key-2', { ...old, key: 'key-2', url: '/api/v1/nothing/of/ours' }, store);
  const { url: _, ...named } = { ...old, madeAt: 2 };
  const [finish, plan] = [
    { endpoint: 'pots.finish', params: { runId: 'r 1' } },
    { endpoint: 'pots.plan', params: {} },
  ];
  await set('key-3', { ...named, ...finish, key: 'key-3' }, store);
  await set('key-4', { ...named, ...plan, key: 'key-4', madeAt: 3, body: { useId: 'fish-fumet', lotIds: [] } }, store);
  await outbox.startOutbox();
  await settle(calls, 3);
  expect(calls).toMatchObject([
    { url: '/api/v1/batches/r%201/events', key: 'key-1', body: { n: 1 } },
    { url: '/api/v1/batches/r%201/finish', key: 'key-3', body: { n: 1 } },
    { url: '/api/v1/batches', key: 'key-4', body: { recipeId: 'fish-fumet', lotIds: [] } },
  ]);
});
