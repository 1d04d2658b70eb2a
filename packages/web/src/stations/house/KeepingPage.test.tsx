import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { Me } from '@zabrik/contract';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { me } from '../../testing/kitchen.ts';
import { open as openScreen } from '../../testing/open.tsx';
import KeepingPage from './KeepingPage.tsx';
import type { Keeping } from './keepingWords.ts';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const backup = (o: Partial<Keeping['backups'][number]>): Keeping['backups'][number] => ({
  name: 'a.dump',
  kind: 'dump',
  at: '2026-11-29T03:00:00.000Z',
  bytes: 2_400_000,
  second: 'kept',
  secondWhy: null,
  triedAt: null,
  triedWhy: null,
  ...o,
});
const keeping: Keeping = {
  backups: [
    backup({
      name: 'b.dump',
      at: '2026-11-30T03:00:00.000Z',
      bytes: 2_500_000,
      second: 'failed',
      secondWhy: 'not there',
    }),
    backup({ triedAt: '2026-11-29T03:10:00.000Z' }),
    backup({ name: 'c.base', kind: 'base', at: '2026-11-28T03:00:00.000Z', bytes: 90_000_000, second: null }),
  ],
  restored: [],
  rehearsedAt: '2026-11-29T03:10:00.000Z',
} as Keeping;
const other = '019a0000-0000-7000-8000-0000000000ff';

let posted: { readonly path: string; readonly body: unknown }[] = [];
const open = (role: Me['person']['role'], answers: Keeping = keeping): void => {
  posted = [];
  vi.stubGlobal('fetch', (path: string, init?: RequestInit) => {
    if (init?.method !== undefined && init.method !== 'GET') {
      posted.push({ path, body: init.body === undefined ? undefined : JSON.parse(String(init.body)) });
      return Promise.resolve(Response.json({}));
    }
    if (path.includes('/sessions'))
      return Promise.resolve(
        Response.json({
          sessions: [
            { person: me.person, since: '2026-11-30T07:00:00.000Z', until: '2026-11-30T08:00:00.000Z', here: true },
            {
              person: { id: other, name: 'Tobin Arkwell', role: 'butcher' },
              since: '2026-11-30T06:00:00.000Z',
              until: '2026-11-30T10:00:00.000Z',
              here: false,
            },
          ],
        }),
      );
    return Promise.resolve(Response.json(answers));
  });
  openScreen(<KeepingPage />, { me: { ...me, person: { ...me.person, role } } });
};
const rows = () =>
  screen
    .getAllByRole('row')
    .slice(1)
    .map((row) =>
      within(row)
        .getAllByRole('cell')
        .map((cell) => cell.textContent),
    );

describe('the kitchen’s server', () => {
  it('lists what was kept, where a second time, and whether it was ever brought back', async () => {
    open('head-chef');
    await screen.findByRole('table');
    expect(rows().map(([, what, size, second, tried]) => [what, size, second, tried])).toEqual([
      ['the records', '2.5 MB', 'failed: not there', ''],
      ['the records', '2.4 MB', 'kept', expect.stringMatching(/, all there$/)],
      ['ground for any moment since', '90.0 MB', '', ''],
    ]);
  });

  it('is sorted by what is touched: the largest is one touch and another away', async () => {
    open('head-chef');
    await screen.findByRole('table');
    const size = screen.getByRole('button', { name: 'Size' });
    fireEvent.click(size);
    expect(rows().map((r) => r[2])).toEqual(['2.4 MB', '2.5 MB', '90.0 MB']);
    fireEvent.click(size);
    expect(rows().map((r) => r[2])).toEqual(['90.0 MB', '2.5 MB', '2.4 MB']);
  });

  it('says what came of a rehearsal that failed', async () => {
    open('head-chef', {
      ...keeping,
      backups: [backup({ triedAt: '2026-11-29T03:10:00.000Z', triedWhy: 'no room' })],
    });
    await screen.findByRole('table');
    expect(rows()[0]?.[4]).toMatch(/, failed: no room$/);
  });

  it('has no table where nothing was ever kept, and says how to begin', async () => {
    open('head-chef', { ...keeping, backups: [], rehearsedAt: null });
    expect(await screen.findByText(/There is no backup of these records/)).toBeTruthy();
    expect(screen.queryByRole('table')).toBeNull();
  });

  it('signs a person out everywhere, and says which of them is oneself', async () => {
    open('head-chef');
    const list = await screen.findByRole('region', { name: 'Signed in' });
    expect(within(list).getByRole('button', { name: 'Sign me out everywhere' })).toBeTruthy();
    fireEvent.click(within(list).getByRole('button', { name: 'Sign out everywhere' }));
    await waitFor(() => expect(posted).toHaveLength(1));
    expect(posted[0]?.path).toContain(`/people/${other}/sessions`);
  });

  it('keeps costs from viewers when the head chef says so', async () => {
    open('head-chef');
    fireEvent.click(await screen.findByRole('button', { name: 'Keep costs from viewers' }));
    await waitFor(() => expect(posted.map((p) => p.body)).toEqual([{ seeCosts: false }]));
  });

  it('shows a viewer neither backups nor what is the head chef’s to decide', async () => {
    open('viewer');
    expect(await screen.findByText('Backups are the chefs’ business')).toBeTruthy();
    expect(screen.queryByRole('table')).toBeNull();
    expect(screen.queryByRole('button', { name: 'Keep costs from viewers' })).toBeNull();
  });
});
