import { act, cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { noteProgress } from '../../app/progress.ts';
import { open } from '../../testing/open.tsx';
import { PrintLabels } from './PrintLabels.tsx';

/** What went out, how it may be answered, and whether it was given up. */
let sent: { readonly key: string; readonly signal: AbortSignal; readonly answer: (response: Response) => void }[] = [];

beforeEach(() => {
  vi.useFakeTimers({ shouldAdvanceTime: true });
  sent = [];
  vi.stubGlobal(
    'fetch',
    (_: string, init: RequestInit) =>
      new Promise<Response>((answer, failed) => {
        const signal = init.signal as AbortSignal;
        signal.addEventListener('abort', () => failed(new DOMException('given up', 'AbortError')));
        sent.push({ key: new Headers(init.headers).get('idempotency-key') ?? '', signal, answer });
      }),
  );
  open(
    <PrintLabels lots={['a', 'b', 'c'].map((id) => ({ id: `019a0000-0000-7000-8000-00000000000${id}`, labels: 0 }))} />,
  );
});
afterEach(() => {
  cleanup();
  localStorage.clear();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const print = async (): Promise<string> => {
  fireEvent.click(screen.getByRole('button', { name: 'Print' }));
  const before = sent.length;
  await waitFor(() => expect(sent.length).toBeGreaterThan(before));
  return sent.at(-1)?.key ?? '';
};

it('shows how far the labels are, and of its own command alone', async () => {
  const key = await print();
  expect(screen.getByText('Asking for the labels.')).toBeTruthy();
  act(() => noteProgress({ command: 'another', done: 9, of: 9 }));
  expect(screen.getByText('Asking for the labels.')).toBeTruthy();
  act(() => noteProgress({ command: key, done: 1, of: 3 }));
  expect(screen.getByText('1 of 3 labels drawn. You can go on working meanwhile.')).toBeTruthy();
  expect(screen.getByRole('progressbar').getAttribute('aria-valuenow')).toBe('33');
  act(() => noteProgress({ command: key, done: 3, of: 3 }));
  expect(screen.getByText('All 3 drawn. The printer has them.')).toBeTruthy();
  sent[0]?.answer(Response.json({ job: 'job-1', labels: 3, reprints: 0 }));
  expect(await screen.findByText(/3 labels printed/)).toBeTruthy();
  expect(screen.queryByLabelText('How far the labels are')).toBeNull();
});

it('gives up after a quarter of a minute without a word, and asks again under the same key', async () => {
  const key = await print();
  await act(() => vi.advanceTimersByTimeAsync(14_000));
  act(() => noteProgress({ command: key, done: 1, of: 3 }));
  await act(() => vi.advanceTimersByTimeAsync(14_000));
  expect(sent[0]?.signal.aborted).toBe(false);
  await act(() => vi.advanceTimersByTimeAsync(2_000));
  expect(sent[0]?.signal.aborted).toBe(true);
  expect(await screen.findByText(/No connection/)).toBeTruthy();
  expect(await print()).toBe(key);
});
