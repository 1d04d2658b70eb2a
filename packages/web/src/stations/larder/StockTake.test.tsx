import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { MemoryRouter } from 'react-router';
import { afterEach, expect, it, vi } from 'vitest';
import { house, lotOf, me } from '../../testing/kitchen.ts';
import { moreWords } from '../receive/Prices.tsx';
import StockTake from './StockTake.tsx';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

/** A place with so many lots, read two hundred at a time. */
const stub = (total: number): void => {
  vi.stubGlobal('fetch', (input: string) => {
    if (!input.includes('/lots')) return Promise.resolve(Response.json({ stockTakes: [], next: null }));
    const at = Number(new URL(input, 'http://x').searchParams.get('cursor') ?? '0');
    const lots = Array.from({ length: Math.min(200, total - at) }, (_, i) => lotOf(at + i));
    const next = at + lots.length < total ? String(at + lots.length) : null;
    return Promise.resolve(Response.json({ lots, next, total }));
  });
};

it('past a thousand lots a round says how many are not in it, and goes on to them', async () => {
  stub(1_043);
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  client.setQueryData(['me'], me);
  client.setQueryData(['house'], house);
  render(
    <QueryClientProvider client={client}>
      <MemoryRouter>
        <StockTake />
      </MemoryRouter>
    </QueryClientProvider>,
  );
  expect(await screen.findByText(/43 more lots stand here/)).toBeTruthy();
  expect(screen.getByTestId('round').textContent).toContain('0 of 1000 counted, 43 more not in this round');
  fireEvent.click(screen.getByRole('button', { name: 'Go on to them' }));
  expect(await screen.findByText('0 of 43 counted')).toBeTruthy();
  expect(screen.queryByText(/more lots stand here/)).toBeNull();
});

it('a list of prices says when there are more than it shows', () => {
  expect(moreWords(200, 5_015)).toBe('200 of 5,015 prices');
  expect(moreWords(200, 200)).toBe('200 prices count today');
  expect(moreWords(1, 1)).toBe('1 price counts today');
});
