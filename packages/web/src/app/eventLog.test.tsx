import 'fake-indexeddb/auto';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, renderHook, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { afterEach, expect, it, vi } from 'vitest';
import { me } from '../testing/kitchen.ts';
import { api } from './endpoints.ts';
import { useEventLog } from './eventLog.ts';
import { keep, type Waiting, waitingNow } from './outbox.ts';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const read = (w: Waiting, by: string) => [{ id: w.key, by, n: (w.body as { n: number }).n }];
const stored = [{ id: 'a', by: 'Tobin', n: 1 }];
const say = (key: string, n: number, batchId = 'r') =>
  keep(api.pots.event, { params: { batchId }, body: { n } as never }, { key, says: `event ${n}` });

it('is what the server has and behind it what waits, each once, with what was refused beside it', async () => {
  let refuse = false;
  vi.stubGlobal('fetch', () =>
    refuse
      ? Promise.resolve(Response.json({ code: 'run_done', title: 'Done.', status: 409 }, { status: 409 }))
      : Promise.reject(new TypeError('no network')),
  );
  const client = new QueryClient();
  client.setQueryData(['me'], me);
  const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={client}>{children}</QueryClientProvider>
  );
  const log = renderHook(
    ({ known }: { known: typeof stored | undefined }) => useEventLog('r', api.pots.event.id, known, read),
    { wrapper, initialProps: { known: stored as typeof stored | undefined } },
  );
  const now = () => log.result.current;
  await say('b', 2);
  await say('other', 9, 'another batch');
  await keep(api.pots.finish, { params: { batchId: 'r' }, body: {} as never }, { key: 'f', says: 'done' });
  log.rerender({ known: stored });
  expect(now().entries).toEqual([...stored, { id: 'b', by: me.person.name, n: 2 }]);
  expect([now().unsent.map((w) => w.key), now().waiting]).toEqual([['b'], 2]);
  expect([now().waits(api.pots.finish.id), now().waits(api.pots.cancel.id)]).toEqual([true, false]);
  // it has arrived, and the answer is still on its way
  const arrived = [...stored, { id: 'b', by: me.person.name, n: 2 }];
  log.rerender({ known: arrived });
  expect(now().entries).toEqual(arrived);
  expect(now().waiting).toBe(1);
  // nothing read yet: what was said here stands by itself
  log.rerender({ known: undefined });
  expect(now().entries.map((e) => e.id)).toEqual(['b']);
  refuse = true;
  await say('c', 3);
  await waitFor(() => expect(waitingNow().every((w) => w.refused === 'Done.')).toBe(true));
  log.rerender({ known: stored });
  expect(now().entries).toEqual(stored);
  expect(now().refused.map((w) => w.key)).toEqual(['b', 'f', 'c']);
});
