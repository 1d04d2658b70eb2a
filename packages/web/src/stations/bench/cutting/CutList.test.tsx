import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { IDBFactory } from 'fake-indexeddb';
import { MemoryRouter, Route, Routes } from 'react-router';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { house, lotOf, me } from '../../../testing/kitchen.ts';

beforeEach(() => {
  vi.resetModules();
  vi.stubGlobal('indexedDB', new IDBFactory());
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

async function open(role: 'sous-chef' | 'viewer', useBy: string): Promise<void> {
  const lot = lotOf(1, { name: 'Hake fillet', useBy });
  vi.stubGlobal('fetch', (input: string, init?: { method?: string }) => {
    if (init?.method === 'POST') return Promise.reject(new TypeError('no network'));
    if (input.includes('/cuttings')) return Promise.resolve(Response.json({ open: [], resting: [] }));
    return Promise.resolve(Response.json({ lots: [lot], next: null, total: 1 }));
  });
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  client.setQueryData(['me'], { ...me, person: { ...me.person, role } });
  client.setQueryData(['house'], house);
  const { default: CutList } = await import('./CutList.tsx');
  const { startOutbox } = await import('../../../app/outbox.ts');
  await startOutbox();
  render(
    <QueryClientProvider client={client}>
      <MemoryRouter initialEntries={['/bench/cut']}>
        <Routes>
          <Route path="/bench/cut" element={<CutList />} />
          <Route path="/bench/cut/:cuttingId" element={<p>the board</p>} />
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>,
  );
  await screen.findByRole('button', { name: /Hake fillet/ });
}
const sent = async () => (await import('../../../app/outbox.ts')).waitingNow();
const asks = () => screen.queryByRole('alert', { name: 'Past its date' });

it('asks before a lot past its date comes under the knife, without the network too; leaving it sends nothing', async () => {
  await open('sous-chef', '2020-01-01');
  fireEvent.click(screen.getByRole('button', { name: /Hake fillet/ }));
  expect(asks()?.textContent).toContain('Hake fillet 1-K: use by');
  fireEvent.click(screen.getByRole('button', { name: 'Leave it' }));
  expect(asks()).toBeNull();
  expect(await sent()).toEqual([]);
  fireEvent.click(screen.getByRole('button', { name: /Hake fillet/ }));
  fireEvent.click(screen.getByRole('button', { name: 'Cut it all the same' }));
  expect(await screen.findByText('the board')).toBeTruthy();
  await waitFor(async () => expect(await sent()).toHaveLength(1));
  expect((await sent())[0]?.body).toMatchObject({ confirmed: true });
});

it('does not ask for one in its date', async () => {
  await open('sous-chef', '2099-01-01');
  fireEvent.click(screen.getByRole('button', { name: /Hake fillet/ }));
  expect(await screen.findByText('the board')).toBeTruthy();
  await waitFor(async () => expect((await sent())[0]?.body).toMatchObject({ confirmed: false }));
});

it('a viewer cuts nothing', async () => {
  await open('viewer', '2020-01-01');
  expect((screen.getByRole('button', { name: /Hake fillet/ }) as HTMLButtonElement).disabled).toBe(true);
});
