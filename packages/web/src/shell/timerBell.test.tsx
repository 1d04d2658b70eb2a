import 'fake-indexeddb/auto';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { MemoryRouter } from 'react-router';
import { afterEach, expect, it, vi } from 'vitest';
import { me } from '../testing/kitchen.ts';

const [BATCH, CRAB] = ['019a0000-0000-7000-8000-0000000000b1', '019a0000-0000-7000-8000-0000000000c1'];

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const timer = (
  id: string,
  of: { readonly batchId: string | null; readonly breakdownId: string | null },
  inMs: number,
) => ({
  id,
  label: `label of ${id}`,
  step: null,
  startedAt: new Date().toISOString(),
  dueAt: new Date(Date.now() + inMs).toISOString(),
  title: `title of ${id}`,
  ...of,
});

it('rings for the stove and for the bench, leads to each, and is stopped where it belongs; what is not over is silent', async () => {
  vi.stubGlobal('fetch', () => Promise.reject(new TypeError('no network')));
  const { startOutbox, waitingNow } = await import('../app/outbox.ts');
  await startOutbox();
  const { TimerBell } = await import('./TimerBell.tsx');
  const client = new QueryClient({
    defaultOptions: { queries: { retry: false, staleTime: Number.POSITIVE_INFINITY } },
  });
  client.setQueryData(['me'], { ...me, person: { ...me.person, role: 'sous-chef' } });
  client.setQueryData(['batches', 'timers'], {
    aheadMs: 0,
    timers: [
      timer('t1', { batchId: BATCH, breakdownId: null }, -1_000),
      timer('t2', { batchId: null, breakdownId: CRAB }, -2_000),
      timer('t3', { batchId: null, breakdownId: CRAB }, 60_000),
    ],
  });
  render(
    <QueryClientProvider client={client}>
      <MemoryRouter>
        <TimerBell />
      </MemoryRouter>
    </QueryClientProvider>,
  );
  const links = screen.getAllByRole('link').map((l) => l.getAttribute('href'));
  expect(links).toEqual([`/pots/stove/${BATCH}`, `/bench/${CRAB}`]);
  for (const name of ['Stop', 'Stop']) fireEvent.click(screen.getAllByRole('button', { name })[0] as HTMLElement);
  await waitFor(() => expect(screen.queryByTestId('ringing')).toBeNull());
  expect(waitingNow().map((w) => [w.endpoint, w.about])).toEqual([
    ['pots.event', BATCH],
    ['bench.event', CRAB],
  ]);
  expect(waitingNow()[1]?.body).toMatchObject({ kind: 'timer-off', timerId: 't2' });
});
