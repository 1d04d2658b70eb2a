import { api as contract, type Endpoint } from '@zabrik/contract';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { addressOf, call, Refused, Unreachable } from './api.ts';
import { actsFor } from './intents.ts';

const commands: readonly Endpoint[] = Object.values(contract)
  .flatMap((station) => Object.values(station) as Endpoint[])
  .filter((endpoint) => endpoint.command);

const answer = (status: number, body: unknown = { done: true }) =>
  new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } });
const refusal = (status: number, code: string) => answer(status, { code, title: code, status });
const keys: string[] = [];
let next: () => Response = () => answer(200);

beforeEach(() => {
  localStorage.clear();
  keys.length = 0;
  actsFor('someone');
  vi.stubGlobal('fetch', async (_: string, init: RequestInit) => {
    keys.push(new Headers(init.headers).get('idempotency-key') ?? '');
    return next();
  });
});
afterEach(() => vi.unstubAllGlobals());

const press = async (endpoint: Endpoint, body: unknown, gives: () => Response): Promise<unknown> => {
  next = gives;
  const params = Object.fromEntries([...endpoint.path.matchAll(/:(\w+)/g)].map(([, name]) => [name, 'x']));
  return call(endpoint as never, { params, body } as never).catch((error: unknown) => error);
};
const lost = (): Response => {
  throw new TypeError('network');
};

describe('a command', () => {
  it('is there to be walked', () => expect(commands.length).toBeGreaterThan(40));

  it.each(commands.map((c) => [c.id, c] as const))(
    '%s keeps its key while nobody knows, and gets another once it was answered',
    async (_, endpoint) => {
      const body = { massMg: 100 };
      expect(await press(endpoint, body, lost)).toBeInstanceOf(Unreachable);
      await press(endpoint, body, () => answer(503, undefined));
      await press(endpoint, body, () => refusal(500, 'broken'));
      await press(endpoint, body, () => refusal(401, 'not_signed_in'));
      await press(endpoint, body, () => refusal(429, 'too_many'));
      await press(endpoint, body, () => answer(200));
      expect(new Set(keys).size, 'one intent, one key').toBe(1);
      await press(endpoint, body, () => refusal(409, 'not_enough'));
      await press(endpoint, body, () => answer(200));
      expect(new Set(keys).size, 'done and refused are ends').toBe(3);
    },
  );

  it('is another one with other content, or of another person', async () => {
    const takeOut = contract.larder.takeOut;
    await press(takeOut, { massMg: 100 }, lost);
    await press(takeOut, { massMg: 200 }, lost);
    actsFor('somebody else');
    await press(takeOut, { massMg: 100 }, lost);
    expect(new Set(keys).size).toBe(3);
    actsFor('someone');
    await press(takeOut, { massMg: 100 }, lost);
    expect(keys[3]).toBe(keys[0]);
  });

  it('keeps its key over a reload', async () => {
    await press(contract.larder.takeOut, { massMg: 100 }, lost);
    vi.resetModules();
    const [anew, intents] = [await import('./api.ts'), await import('./intents.ts')];
    intents.actsFor('someone');
    next = () => answer(200);
    await anew.call(contract.larder.takeOut as never, { params: { lotId: 'x' }, body: { massMg: 100 } } as never);
    expect(keys[1]).toBe(keys[0]);
  });

  it('says what the server said', async () => {
    expect(await press(contract.larder.takeOut, {}, () => refusal(409, 'not_enough'))).toBeInstanceOf(Refused);
  });
});

it('asks for the first page when what was kept on the device comes back with nothing where the place was', () => {
  expect(addressOf(contract.larder.list, { query: { cursor: null, limit: 200 } })).toBe('/api/v1/lots?limit=200');
  expect(addressOf(contract.larder.list, { query: { cursor: undefined, search: '' } })).toBe('/api/v1/lots');
});
