import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { IDBFactory } from 'fake-indexeddb';
import { MemoryRouter } from 'react-router';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { api } from '../../app/endpoints.ts';
import { me } from '../../testing/kitchen.ts';

const ines = { personId: me.person.id, name: me.person.name, houseId: me.house.id };
const tobin = { personId: '019a0000-0000-7000-8000-0000000000ff', name: 'Tobin Arkwell', houseId: me.house.id };

beforeEach(() => {
  vi.resetModules();
  vi.stubGlobal('indexedDB', new IDBFactory());
  localStorage.clear();
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const outbox = () => import('../../app/outbox.ts');
const weight = async (key: string, g: number) =>
  (await outbox()).keep(
    api.bench.weigh,
    { params: { breakdownId: 'b1' }, body: { kind: 'take', massMg: g * 1_000 } as never },
    { key, says: `frame of hake ${key}` },
  );

/** The server says no to whatever is named, and is away for the rest. */
function serverSays(refuses: ReadonlySet<string>, sent: { key: string; person: string }[]): void {
  vi.stubGlobal('fetch', (_url: string, init: RequestInit) => {
    const headers = new Headers(init.headers);
    const key = headers.get('idempotency-key') ?? '';
    if (refuses.has(key))
      return Promise.resolve(
        Response.json({ code: 'stage_closed', title: 'This stage is closed.', status: 409 }, { status: 409 }),
      );
    if (refuses.size > 0) return Promise.reject(new TypeError('no network'));
    sent.push({ key, person: headers.get('zabrik-person') ?? '' });
    return Promise.resolve(Response.json({}));
  });
}

async function open(role: 'butcher' | 'viewer' = 'butcher') {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  client.setQueryData(['me'], { ...me, person: { ...me.person, role } });
  const { default: WaitingPage } = await import('./Waiting.tsx');
  render(
    <QueryClientProvider client={client}>
      <MemoryRouter>
        <WaitingPage />
      </MemoryRouter>
    </QueryClientProvider>,
  );
}

it('shows what was refused with its grams, whose it is and why, sends it again, and lets it go with a reason', async () => {
  const { waitingNow, worksAs } = await outbox();
  const refuses = new Set(['one', 'two']);
  const sent: { key: string; person: string }[] = [];
  serverSays(refuses, sent);
  worksAs(ines);
  await weight('one', 311);
  await weight('two', 40);
  await waitFor(() => expect(waitingNow().every((w) => w.refused !== undefined)).toBe(true));
  await open();
  const refused = within(screen.getByRole('region', { name: 'Refused' }));
  const first = within(refused.getByRole('listitem', { name: 'frame of hake one' }));
  expect(first.getByText('311 g')).toBeTruthy();
  expect(first.getByText(/Ines Calloway ·/)).toBeTruthy();
  expect(first.getByText('This stage is closed.')).toBeTruthy();
  expect(first.getByRole('link', { name: 'on the bench' }).getAttribute('href')).toBe('/bench/b1');
  refuses.clear();
  fireEvent.click(first.getByRole('button', { name: 'Send again' }));
  await waitFor(() => expect(sent).toEqual([{ key: 'one', person: ines.personId }]));
  const second = within(await screen.findByRole('listitem', { name: 'frame of hake two' }));
  fireEvent.click(second.getByRole('button', { name: 'Let it go' }));
  const go = second.getByRole('button', { name: 'Let it go' }) as HTMLButtonElement;
  expect(go.disabled).toBe(true);
  fireEvent.change(second.getByLabelText('Let it go because'), { target: { value: 'weighed twice' } });
  fireEvent.click(go);
  expect(await screen.findByText('All of it is in the records')).toBeTruthy();
  expect(screen.getByRole('region', { name: 'Let go' }).textContent).toContain(
    'frame of hake two, because weighed twice',
  );
});

it('another’s weight waits for them, or is written as mine when I say so; a viewer writes nothing', async () => {
  const { waitingNow, worksAs } = await outbox();
  const sent: { key: string; person: string }[] = [];
  const away = new Set(['nothing']);
  serverSays(away, sent);
  worksAs(tobin);
  await weight('his', 311);
  worksAs(ines);
  away.clear();
  await open('viewer');
  expect(screen.getByText('Is sent when Tobin Arkwell signs in on this tablet.')).toBeTruthy();
  expect(screen.queryByRole('button', { name: /Write it as/ })).toBeNull();
  cleanup();
  await open();
  fireEvent.click(screen.getByRole('button', { name: 'Write it as Ines Calloway' }));
  await waitFor(() => expect(sent).toMatchObject([{ person: ines.personId }]));
  await waitFor(() => expect(waitingNow()).toEqual([]));
});

it('says that nothing waits', async () => {
  await open();
  expect(screen.getByText('All of it is in the records')).toBeTruthy();
});
