import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { planById } from '@zabrik/catalogue';
import { IDBFactory } from 'fake-indexeddb';
import { MemoryRouter, Route, Routes } from 'react-router';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { house, lotOf, me } from '../../testing/kitchen.ts';

beforeEach(() => {
  vi.resetModules();
  vi.stubGlobal('indexedDB', new IDBFactory());
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const hake = lotOf(1, { name: 'Hake, gutted', species: 'hake', form: 'gutted', pieces: 1 });
const bass = lotOf(2, { name: 'Bass, whole', species: 'bass', form: 'whole', pieces: 1 });

/** The bench's list with these lots whole, opened at this address; a start is answered as asked for. */
async function open(at: string, lots: readonly unknown[], start?: () => Promise<Response>): Promise<QueryClient> {
  vi.stubGlobal('fetch', (_: string, init?: { method?: string }) =>
    init?.method === 'POST' && start !== undefined ? start() : Promise.reject(new TypeError('no network')),
  );
  const client = new QueryClient({
    defaultOptions: { queries: { retry: false, staleTime: Number.POSITIVE_INFINITY } },
  });
  client.setQueryData(['me'], me);
  client.setQueryData(['house'], house);
  const plan = planById.get('round-fish-two-fillets');
  const stages = plan?.stages.map((stage) => ({ ...stage, steps: stage.steps.length, minutes: { low: 5, high: 8 } }));
  client.setQueryData(['catalogue'], { plans: [{ ...plan, stages, retired: false, own: false }], categories: [] });
  client.setQueryData(['breakdowns', 'list'], { breakdowns: [] });
  client.setQueryData(['lots', 'waiting'], { waiting: [] });
  client.setQueryData(['cuttings', 'list'], { open: [], resting: [] });
  client.setQueryData(['lots', 'whole'], { lots, next: null, total: lots.length });
  const { default: BenchList } = await import('./BenchList.tsx');
  render(
    <QueryClientProvider client={client}>
      <MemoryRouter initialEntries={[at]}>
        <Routes>
          <Route path="/bench" element={<BenchList />} />
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>,
  );
  return client;
}
const gone = (client: QueryClient): void => {
  client.setQueryData(['lots', 'whole'], { lots: [bass], next: null, total: 1 });
};

it('a lot that somebody else takes while it stands chosen stays on the screen, and says so; nothing starts from it', async () => {
  const client = await open(`/bench?lot=${hake.id}`, [hake, bass]);
  await screen.findByRole('heading', { name: 'Hake, gutted' });
  const plans = (): HTMLButtonElement[] => screen.getAllByRole<HTMLButtonElement>('button', { name: /steps first/ });
  expect(plans().every((b) => !b.disabled)).toBe(true);
  gone(client);
  expect(await screen.findByText(/1-K is not here to be cut any more/)).toBeTruthy();
  expect(plans().every((b) => b.disabled)).toBe(true);
  fireEvent.click(screen.getByRole('button', { name: 'Another lot' }));
  expect(await screen.findByRole('button', { name: /Bass, whole/ })).toBeTruthy();
  expect(screen.queryByText(/not here to be cut any more/)).toBeNull();
});

it('two press at once: the one who is refused reads why, though the lot is off the list by then', async () => {
  const client = await open(`/bench?lot=${hake.id}`, [hake, bass], () =>
    Promise.resolve(
      Response.json(
        { type: 'about:blank', title: 'x', status: 409, code: 'not_enough', detail: '1-K has 0 g free.' },
        { status: 409, headers: { 'content-type': 'application/problem+json' } },
      ),
    ),
  );
  const [plan] = await screen.findAllByRole('button', { name: /steps first/ });
  fireEvent.click(plan as HTMLElement);
  gone(client);
  expect(await screen.findByText('1-K has 0 g free.')).toBeTruthy();
  expect(screen.getByText(/somebody has put it on the bench/)).toBeTruthy();
});

it('an address kept from before, of a lot that is cut since, says that it is', async () => {
  await open(`/bench?lot=${hake.id}`, [bass]);
  expect(screen.getByText(/The lot you asked for is not here to be cut any more/)).toBeTruthy();
  expect(screen.getByRole('button', { name: /Bass, whole/ })).toBeTruthy();
});

it('of two with one on a bench already, the other is offered: by itself, at its own weight and cost', async () => {
  const sent: unknown[] = [];
  const two = lotOf(3, {
    name: 'Hake, gutted',
    species: 'hake',
    form: 'gutted',
    pieces: 2,
    massMg: 5_740_000,
    costMinor: 5_740,
    freeMg: 2_880_000,
    freePieces: 1,
  });
  await open(`/bench?lot=${two.id}`, [two], () => new Promise(() => undefined));
  const real = fetch;
  vi.stubGlobal('fetch', (url: string, init?: RequestInit) => {
    if (init?.method === 'POST') sent.push(JSON.parse(String(init.body)));
    return real(url, init);
  });
  await screen.findByRole('heading', { name: 'Hake, gutted' });
  expect(screen.getByText(/one · 2,880 g · .*28\.80/)).toBeTruthy();
  expect(screen.queryByText(/How much of it/)).toBeNull();
  fireEvent.click(screen.getAllByRole('button', { name: /steps first/ })[0] as HTMLElement);
  await waitFor(() => expect(sent).toMatchObject([{ lotId: two.id, animals: 1, massMg: null }]));
});

it('somebody takes one of two while some are asked for: what is left is the last one, and no weight is wanted of it', async () => {
  const two = lotOf(3, { name: 'Hake, gutted', species: 'hake', form: 'gutted', pieces: 2, massMg: 5_740_000 });
  const client = await open(`/bench?lot=${two.id}`, [two]);
  fireEvent.click(await screen.findByRole('button', { name: 'Some' }));
  fireEvent.change(screen.getByLabelText('How many'), { target: { value: '3' } });
  fireEvent.change(screen.getByLabelText(/Weight at the start/), { target: { value: '2860' } });
  fireEvent.click(screen.getAllByRole('button', { name: /steps first/ })[0] as HTMLElement);
  expect(await screen.findByText('There are 2')).toBeTruthy();
  client.setQueryData(['lots', 'whole'], {
    lots: [{ ...two, freeMg: 2_880_000, freePieces: 1 }],
    next: null,
    total: 1,
  });
  await waitFor(() => expect(screen.queryByLabelText('How many')).toBeNull());
  expect(screen.getByText(/one · 2,880 g/)).toBeTruthy();
  expect(screen.getAllByRole<HTMLButtonElement>('button', { name: /steps first/ }).every((b) => !b.disabled)).toBe(
    true,
  );
});
