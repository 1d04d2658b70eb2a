import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { addressOf, call, Refused, SIGNED_OUT, Unreachable, worthAskingAgain } from './api.ts';
import { api } from './endpoints.ts';
import { coveredBefore, coverFor, uncover } from './lock.ts';

afterEach(() => vi.unstubAllGlobals());

const answering = (status: number, body: string): ReturnType<typeof vi.fn> => {
  const fetching = vi.fn(() => Promise.resolve(new Response(body, { status })));
  vi.stubGlobal('fetch', fetching);
  return fetching;
};
const lot = '019a0000-0000-7000-8000-000000000000';

describe('calling the server', () => {
  it('puts names into the path and what is asked into the query, and leaves out what is not', () => {
    expect(addressOf(api.larder.read, { params: { lotId: 'a b' } })).toBe('/api/v1/lots/a%20b');
    expect(addressOf(api.larder.list, { query: { search: 'hake & co', cursor: undefined, limit: 5 } })).toBe(
      '/api/v1/lots?search=hake+%26+co&limit=5',
    );
  });

  it('gives a command a key of its own, or the one to repeat with, and a read none', async () => {
    const fetching = answering(200, '{}');
    await call(api.bench.cancel, { params: { breakdownId: lot }, body: {} });
    await call(api.bench.cancel, { params: { breakdownId: lot }, body: {} }, 'again');
    await call(api.house.read, {});
    const keys = fetching.mock.calls.map(([, init]) =>
      new Headers((init as RequestInit).headers).get('idempotency-key'),
    );
    expect(keys[0]).toMatch(/^[0-9a-f-]{36}$/);
    expect(keys.slice(1)).toEqual(['again', null]);
  });

  it('shows the sentence of a refusal with its field', async () => {
    answering(
      409,
      JSON.stringify({
        code: 'not_enough',
        title: 'There is less.',
        detail: 'Lot 0417-F has 20 g left.',
        status: 409,
        field: 'massMg',
      }),
    );
    const refused = await call(api.house.read, {}).catch((error: unknown) => error);
    expect(refused).toBeInstanceOf(Refused);
    expect(refused).toMatchObject({ message: 'Lot 0417-F has 20 g left.', field: 'massMg', status: 409 });
  });

  it('tells the shell when the session has ended', async () => {
    answering(401, JSON.stringify({ code: 'not_signed_in', title: 'Sign in first.', status: 401 }));
    const heard = vi.fn();
    addEventListener(SIGNED_OUT, heard, { once: true });
    await expect(call(api.house.read, {})).rejects.toThrow('Sign in first.');
    expect(heard).toHaveBeenCalledOnce();
  });

  it('asks again for what was not read because the server or its database was away, and not for what it refused', () => {
    const refused = (status: number) => new Refused({ code: 'broken', title: '', status });
    expect([new Unreachable(), refused(503), refused(500)].map(worthAskingAgain)).toEqual([true, true, true]);
    expect([400, 401, 404, 409, 429].map((status) => worthAskingAgain(refused(status)))).toEqual(Array(5).fill(false));
  });

  it('calls a broken gateway and a lost network the same thing: not reachable', async () => {
    answering(502, '<html>bad gateway</html>');
    await expect(call(api.house.read, {})).rejects.toThrow(Unreachable);
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('failed')));
    await expect(call(api.house.read, {})).rejects.toThrow(Unreachable);
  });
});

describe('a page that is covered', () => {
  const person = '019a0000-0000-7000-8000-00000000000a';
  const ended = (): Response =>
    Response.json({ code: 'not_signed_in', title: 'Sign in first.', status: 401 }, { status: 401 });
  const fine = (): Response => Response.json({});
  let answers: (() => Response)[];
  const fetching = vi.fn((_url: string, _init?: RequestInit) => Promise.resolve((answers.shift() ?? fine)()));
  const cover = (): void => coverFor(person);
  beforeEach(() => {
    fetching.mockClear();
    vi.stubGlobal('fetch', fetching);
    addEventListener(SIGNED_OUT, cover);
  });
  afterEach(() => {
    removeEventListener(SIGNED_OUT, cover);
    uncover(false);
  });
  const headers = (n: number): Headers => new Headers(fetching.mock.calls[n]?.[1]?.headers);
  const soon = () => new Promise((done) => setTimeout(done, 20));

  it('sends what met the end of the session again once its person is back: under the same key, and as theirs', async () => {
    answers = [ended, fine];
    const done = vi.fn();
    const sent = call(api.bench.cancel, { params: { breakdownId: lot }, body: {} }).then(done);
    await soon();
    expect(fetching).toHaveBeenCalledTimes(1);
    expect(done).not.toHaveBeenCalled();
    uncover(true);
    await sent;
    expect(done).toHaveBeenCalled();
    expect(headers(1).get('idempotency-key')).toBe(headers(0).get('idempotency-key'));
    expect([headers(0).get('zabrik-person'), headers(1).get('zabrik-person')]).toEqual([null, person]);
  });

  it('refuses it where someone else came, and asks no third time where the session ends again', async () => {
    answers = [ended];
    const gone = call(api.house.read, {});
    await soon();
    uncover(false);
    await expect(gone).rejects.toMatchObject({ code: 'not_signed_in' });
    answers = [ended, ended];
    const again = call(api.house.read, {});
    await soon();
    uncover(true);
    await expect(again).rejects.toMatchObject({ code: 'not_signed_in' });
    expect(fetching).toHaveBeenCalledTimes(3);
  });

  it('asks for nothing meanwhile but for who is signed in', async () => {
    cover();
    answers = [];
    const read = call(api.house.read, {});
    await call(api.access.houses, {});
    expect(fetching.mock.calls.map(([url]) => url)).toEqual(['/api/v1/houses']);
    uncover(true);
    await read;
    expect(fetching).toHaveBeenCalledTimes(2);
  });

  it('stays covered for its person in a page opened anew, until they or someone else come', () => {
    cover();
    expect(coveredBefore()).toBe(person);
    uncover(true);
    expect(coveredBefore()).toBeUndefined();
  });
});
