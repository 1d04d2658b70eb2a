import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import type { Job } from '@zabrik/contract';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { me } from '../../testing/kitchen.ts';
import { Files, standWords, timeWords } from './Files.tsx';

const job = (o: Partial<Job> = {}): Job => ({
  id: '019a0000-0000-7000-8000-00000000000a',
  asked: { kind: 'movements-csv', cells: 'spreadsheet' },
  state: 'waiting',
  doneRatio: null,
  bytes: 0,
  by: 'Maren Ostle',
  at: '2026-11-30T09:00:00.000Z',
  endedAt: null,
  why: null,
  file: null,
  ...o,
});
const done = job({
  state: 'done',
  doneRatio: 1,
  bytes: 216_000,
  endedAt: '2026-11-30T09:01:00.000Z',
  file: { name: 'movements-home.csv', until: '2026-12-01T09:01:00.000Z' },
});

let jobs: Job[];
let sent: { readonly path: string; readonly body: unknown }[];
let answer: () => Response;
const clicked = vi.fn();
beforeEach(() => {
  jobs = [];
  sent = [];
  answer = () => Response.json(job());
  vi.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(function (this: HTMLAnchorElement) {
    clicked(this.getAttribute('href'), this.download);
  });
  vi.stubGlobal('fetch', (url: string, init?: RequestInit) => {
    if (init?.method !== undefined && init.method.toUpperCase() === 'POST') {
      sent.push({ path: url, body: JSON.parse(String(init.body)) });
      return Promise.resolve(answer());
    }
    return Promise.resolve(Response.json({ jobs }));
  });
});
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
  vi.unstubAllGlobals();
  clicked.mockReset();
});

let client: QueryClient;
function open(role: 'head-chef' | 'sous-chef' = 'head-chef'): void {
  client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  client.setQueryData(['me'], { ...me, person: { ...me.person, role } });
  render(
    <QueryClientProvider client={client}>
      <Files />
    </QueryClientProvider>,
  );
}
const button = (name: string | RegExp) => screen.getByRole<HTMLButtonElement>('button', { name });

describe('files to take along', () => {
  it('are asked for of a time, and fetched by themselves once they are there, no second time', async () => {
    open();
    await screen.findByText('No file was asked for');
    fireEvent.change(screen.getByLabelText('From'), { target: { value: '2026-11-01' } });
    fireEvent.change(screen.getByLabelText('Until'), { target: { value: '2026-11-30' } });
    jobs = [job()];
    fireEvent.click(button('Movements, CSV'));
    await screen.findByText('waits its turn');
    expect(sent[0]?.body).toEqual({ kind: 'movements-csv', from: '2026-11-01', until: '2026-11-30' });
    expect(clicked).not.toHaveBeenCalled();
    jobs = [done];
    await client.invalidateQueries({ queryKey: ['jobs'] });
    await waitFor(() => expect(clicked).toHaveBeenCalledTimes(1));
    expect(clicked).toHaveBeenCalledWith(`/api/v1/jobs/${done.id}/file`, 'movements-home.csv');
    // the list changes again, by someone else's file
    jobs = [job({ id: '019a0000-0000-7000-8000-00000000000b' }), done];
    await client.invalidateQueries({ queryKey: ['jobs'] });
    await screen.findByText('waits its turn');
    expect(clicked).toHaveBeenCalledTimes(1);
  });

  it('that someone else asked for, or that were there before, wait to be fetched', async () => {
    jobs = [done];
    open();
    const fetch = await screen.findByRole('link', { name: 'Fetch' });
    expect(fetch.getAttribute('href')).toBe(`/api/v1/jobs/${done.id}/file`);
    expect(clicked).not.toHaveBeenCalled();
  });

  it('the whole house is asked for by the head chef alone, and of no time', async () => {
    open('sous-chef');
    await screen.findByText('No file was asked for');
    expect(screen.queryByRole('button', { name: 'The whole house' })).toBeNull();
    cleanup();
    open();
    fireEvent.change(screen.getByLabelText('From'), { target: { value: '2026-11-01' } });
    fireEvent.click(button('The whole house'));
    await waitFor(() => expect(sent[0]?.body).toEqual({ kind: 'house-file' }));
  });

  it('a time that ends before it begins is said and not asked for', async () => {
    open();
    fireEvent.change(screen.getByLabelText('From'), { target: { value: '2026-11-30' } });
    fireEvent.change(screen.getByLabelText('Until'), { target: { value: '2026-11-01' } });
    expect(screen.getByText('Before the day it begins with.')).toBeDefined();
    expect(button('Movements, CSV').disabled).toBe(true);
    expect(button('The whole house').disabled).toBe(false);
  });

  it('one being made shows how far it is and is called off', async () => {
    jobs = [job({ state: 'working', doneRatio: 0.426, bytes: 52_000 })];
    open();
    const row = (await screen.findByText('being made, 42 %, 52 kB so far')).closest('li') as HTMLElement;
    expect(within(row).getByRole('progressbar').getAttribute('aria-valuenow')).toBe('42');
    expect(within(row).queryByRole('link')).toBeNull();
    fireEvent.click(button('Call off: Movements, CSV'));
    await waitFor(() => expect(sent[0]?.path).toContain(`/jobs/${job().id}/call-off`));
  });

  it('says why one cannot be asked for', async () => {
    answer = () =>
      Response.json(
        { type: 'x', code: 'too_many_jobs', status: 409, title: 'Five files are being made already.' },
        { status: 409 },
      );
    open();
    fireEvent.click(button('Movements, CSV'));
    expect((await screen.findByRole('alert')).textContent).toContain('Five files are being made already.');
  });
});

describe('words', () => {
  it.each([
    [job({ state: 'working' }), 'being made'],
    [job({ state: 'failed', why: 'Choose a shorter time.' }), 'not made. Choose a shorter time.'],
    [job({ state: 'called-off' }), 'called off'],
    [job({ state: 'called-off', doneRatio: 0.3 }), 'called off'],
    [{ ...done, state: 'called-off' as const, file: null }, 'thrown away'],
    [{ ...done, file: null }, 'not kept any more'],
  ])('%#: %s', (of, words) => expect(standWords(of)).toBe(words));
  it.each([
    [{ kind: 'house-file' } as const, ''],
    [{ kind: 'movements-epcis' } as const, ''],
    [{ kind: 'movements-epcis', from: '2026-11-24' } as const, 'from Tue 24 Nov'],
    [{ kind: 'movements-epcis', until: '2026-11-24' } as const, 'until Tue 24 Nov'],
    [{ kind: 'movements-epcis', from: '2026-11-24', until: '2026-11-30' } as const, 'Tue 24 Nov to Mon 30 Nov'],
  ])('%#: %s', (asked, words) => expect(timeWords(asked)).toBe(words));
});
