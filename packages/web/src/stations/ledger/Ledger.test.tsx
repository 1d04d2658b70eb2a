import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import type { ClosedBatch, ClosedCutting } from '@zabrik/contract';
import { grams } from '@zabrik/core';
import { MemoryRouter, Route, Routes } from 'react-router';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { house, me } from '../../testing/kitchen.ts';
import Ledger from './Ledger.tsx';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const cutting: ClosedCutting = {
  id: '019a0000-0000-7000-8000-000000000001',
  kind: 'portions',
  name: 'Hake fillet, skin on, pin-boned',
  lotCodes: ['0408-Q'],
  by: 'Ines Calloway',
  closedAt: '2026-11-28T18:00:00.000Z',
  usedMg: grams(1_491),
  madeMg: grams(1_459),
  endMg: grams(20),
  wasteMg: grams(5),
  portions: 9,
  giveAwayMg: grams(19),
  costMinor: 1_745,
};
const batch: ClosedBatch = {
  batchId: '019a0000-0000-7000-8000-000000000002',
  title: 'Fish fumet',
  measure: 'litres',
  by: 'Ines Calloway',
  doneAt: '2026-11-28T19:00:00.000Z',
  baseMg: grams(2_000),
  outputMg: grams(1_200),
  expectedMg: { low: grams(1_500), mean: grams(1_800), high: grams(2_100) },
  costMinor: null,
  lotId: null,
  lotCode: null,
};

/** What the server answers to each list, by a piece of its address. */
function open(show: string, answers: Readonly<Record<string, () => Response>>): void {
  vi.stubGlobal('fetch', (url: string) => {
    const found = Object.entries(answers).find(([part]) => url.includes(part));
    return Promise.resolve(found?.[1]() ?? Response.json({ species: [], plans: [] }));
  });
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  client.setQueryData(['me'], me);
  client.setQueryData(['house'], house);
  render(
    <QueryClientProvider client={client}>
      <MemoryRouter initialEntries={[`/ledger${show === '' ? '' : `?show=${show}`}`]}>
        <Routes>
          <Route path="/ledger" element={<Ledger />} />
          <Route path="/bench/cut/:id" element={<p>the cutting</p>} />
          <Route path="/pots/stove/:id" element={<p>the batch</p>} />
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>,
  );
}
const problem = () =>
  Response.json(
    { code: 'database_away', title: 'The records cannot be reached just now.', status: 503 },
    { status: 503 },
  );

describe('the ledger’s lists', () => {
  it.each([
    ['', { '/ledger/breakdowns': () => Response.json({ breakdowns: [], next: null }) }, 'No yield yet'],
    [
      'cuttings',
      { '/ledger/cuttings': () => Response.json({ cuttings: [], next: null }) },
      'Nothing cut to weight yet',
    ],
    ['batches', { '/ledger/batches': () => Response.json({ batches: [], next: null }) }, 'No batch done yet'],
  ])('%s says what will stand there while it is empty', async (show, answers, title) => {
    open(show, answers as never);
    expect(await screen.findByText(title)).toBeTruthy();
  });

  it.each(['', 'cuttings', 'batches'])('%s says when it cannot be read, and reads again when asked', async (show) => {
    let away = true;
    const answer = () => (away ? problem() : Response.json({ breakdowns: [], cuttings: [], batches: [], next: null }));
    open(show, { '/ledger/': answer });
    expect(await screen.findByText(/The records cannot be reached just now/)).toBeTruthy();
    away = false;
    fireEvent.click(screen.getByRole('button', { name: 'Try again' }));
    expect(await screen.findByText(/^(No yield yet|Nothing cut to weight yet|No batch done yet)$/)).toBeTruthy();
  });

  it('a cutting by hand: 1,459 g of 1,491 g are 97.9 %, ends and waste together, and it opens', async () => {
    open('cuttings', { '/ledger/cuttings': () => Response.json({ cuttings: [cutting], next: null }) });
    const row = within(await screen.findByRole('row', { name: /Hake fillet/ }));
    for (const text of ['1,491 g', '97.9 %', '9', '19 g', '25 g', '£17.45']) expect(row.getByText(text)).toBeTruthy();
    fireEvent.click(row.getByText('97.9 %'));
    expect(await screen.findByText('the cutting')).toBeTruthy();
  });

  it('a batch below what was expected is marked, and one without a cost says none', async () => {
    open('batches', { '/ledger/batches': () => Response.json({ batches: [batch], next: null }) });
    const row = within(await screen.findByRole('row', { name: /Fish fumet/ }));
    expect(row.getByText('1.2 l').className).toContain('text-alarm');
    expect(row.getByText(/1\.5 l to 2\.1 l/)).toBeTruthy();
    expect(row.getByText('–')).toBeTruthy();
    fireEvent.click(row.getByText('–'));
    expect(await screen.findByText('the batch')).toBeTruthy();
  });

  it('goes on to earlier ones', async () => {
    const asked: string[] = [];
    vi.stubGlobal('scrollTo', () => undefined);
    open('cuttings', {
      '/ledger/cuttings': () => Response.json({ cuttings: [cutting], next: asked.length === 0 ? 'c1' : null }),
    });
    const more = await screen.findByRole('button', { name: 'Earlier ones' });
    asked.push('once');
    fireEvent.click(more);
    await waitFor(() => expect(screen.queryByRole('button', { name: 'Earlier ones' })).toBeNull());
  });
});
