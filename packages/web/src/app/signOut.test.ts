import { QueryClient } from '@tanstack/react-query';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { me } from '../testing/kitchen.ts';
import { meQuery } from './queries.ts';
import { signedInAnew, signOut } from './signOut.ts';

const actor = () => meQuery.queryFn({ client: new QueryClient() });
const asked: string[] = [];
let network = true;
let open = true;
beforeEach(() => {
  localStorage.clear();
  asked.length = 0;
  network = true;
  open = true;
  vi.stubGlobal('fetch', (url: string, init: RequestInit) => {
    asked.push(`${init.method ?? 'GET'} ${url}`);
    if (!network) return Promise.reject(new TypeError('no network'));
    if (init.method === 'GET')
      return Promise.resolve(
        open
          ? Response.json(me)
          : Response.json({ code: 'not_signed_in', title: 'Sign in first.', status: 401 }, { status: 401 }),
      );
    open = false;
    return Promise.resolve(Response.json({ done: true }));
  });
});
afterEach(() => vi.unstubAllGlobals());

describe('signing out', () => {
  it('without the network lets nobody in by the session that still stands, and ends it once the network is back', async () => {
    network = false;
    await signOut();
    expect(await actor()).toBeNull();
    network = true;
    expect(await actor()).toBeNull();
    expect(open).toBe(false);
    expect(await actor()).toBeNull();
    expect(asked.at(-1)).toMatch(/^GET/);
  });

  it('with the network owes nothing', async () => {
    await signOut();
    expect(open).toBe(false);
    open = true;
    expect(await actor()).toEqual(me);
  });

  it('is not owed any more once someone has signed in anew', async () => {
    network = false;
    await signOut();
    signedInAnew();
    network = true;
    expect(await actor()).toEqual(me);
  });
});
