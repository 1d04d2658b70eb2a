import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { MemoryRouter, Route, Routes } from 'react-router';
import { afterEach, expect, it, vi } from 'vitest';
import { lotOf } from '../../testing/kitchen.ts';
import Larder from './Larder.tsx';

/** What the server would say to a page: the first, then whatever the test wants next. */
let nextPages: (() => Response)[] = [];
let asked = 0;
const page = (from: number, next: string | null): Response =>
  Response.json({ lots: Array.from({ length: 40 }, (_, i) => lotOf(from + i)), next, total: 80 });

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const open = async (): Promise<void> => {
  asked = 0;
  vi.stubGlobal('fetch', (input: string) => {
    if (input.includes('/lot-groups')) return Promise.resolve(Response.json({ groups: [] }));
    if (!input.includes('/lots')) return Promise.reject(new TypeError('no network'));
    if (!input.includes('cursor')) return Promise.resolve(page(0, 'more'));
    asked += 1;
    const answer = nextPages.shift();
    return answer === undefined ? Promise.reject(new TypeError('no network')) : Promise.resolve(answer());
  });
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  client.setQueryData(['me'], null);
  client.setQueryData(['catalogue'], { species: [], goods: [], plans: [] });
  render(
    <QueryClientProvider client={client}>
      <MemoryRouter initialEntries={['/larder']}>
        <Routes>
          <Route path="/larder" element={<Larder />} />
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>,
  );
  await screen.findByText('80 lots on hand');
};

it('asks once for a page that does not come, says how much is read, and goes on when told to', async () => {
  nextPages = [];
  await open();
  expect(await screen.findByText(/40 of 80 lots are read/)).toBeTruthy();
  await act(() => new Promise((later) => setTimeout(later, 100)));
  expect(asked).toBe(1);
  nextPages = [() => page(40, null)];
  fireEvent.click(screen.getByRole('button', { name: 'Try again' }));
  await waitFor(() => expect(screen.queryByText(/lots are read/)).toBeNull());
  expect(asked).toBe(2);
});
