import { expect, it } from 'vitest';
import { runningTimers, type TimerSaid } from './runningTimers.ts';

const at = '2026-11-24T10:00:00.000Z';
const timer = (id: string, minute: number, step: number | null = null) => ({
  id,
  at,
  body: { kind: 'timer', step, label: id, dueAt: `2026-11-24T10:${minute}:00.000Z` } satisfies TimerSaid,
});
const ids = (said: Parameters<typeof runningTimers>[0], done: readonly number[] = []) =>
  runningTimers(said, new Set(done)).map((t) => t.id);

it('the first to ring stands first, among other things said', () => {
  expect(ids([timer('soak', 40), { id: 'x', at, body: { kind: 'pause' } }, timer('drain', 10)])).toEqual([
    'drain',
    'soak',
  ]);
});

it('one that was stopped, and one whose step is done, run no more', () => {
  const off = { id: 'o', at, body: { kind: 'timer-off', timerId: 'drain' } satisfies TimerSaid };
  expect(ids([timer('soak', 40, 2), timer('drain', 10), off])).toEqual(['soak']);
  expect(ids([timer('soak', 40, 2), timer('drain', 10, 1)], [2])).toEqual(['drain']);
});
