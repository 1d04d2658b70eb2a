import { expect, it } from 'vitest';
import { movedDue, runningTimers, type TimerSaid, timerStep } from './runningTimers.ts';

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

it('one that was changed rings at its new time and has run since it was first set; without the change it is as before', () => {
  const more = (id: string, replaces: string, minute: number) => ({
    id,
    at: '2026-11-24T10:09:00.000Z',
    body: { ...timer(id, minute, 2).body, label: 'soak', replaces },
  });
  const said = [timer('soak', 40, 2), more('b', 'soak', 45), more('c', 'b', 50)];
  expect(runningTimers(said, new Set())).toEqual([
    { id: 'c', label: 'soak', step: 2, startedAt: at, dueAt: '2026-11-24T10:50:00.000Z' },
  ]);
  expect(runningTimers(said.slice(0, 2), new Set())).toMatchObject([{ id: 'b', dueAt: '2026-11-24T10:45:00.000Z' }]);
  // two screens moved the same one: both ring, neither is lost
  expect(ids([timer('soak', 40), more('b', 'soak', 45), more('c', 'soak', 50)])).toEqual(['b', 'c']);
});

it('moves by what its length asks, goes on from now once it is over, and never rings in the past', () => {
  expect([0.2, 1, 12, 29, 30, 90, 120, 360].map(timerStep)).toEqual([1 / 12, 1, 1, 1, 5, 5, 15, 15]);
  const now = Date.parse('2026-11-24T10:00:00.000Z');
  expect(movedDue('2026-11-24T10:10:00.000Z', 5, now)).toBe('2026-11-24T10:15:00.000Z');
  expect(movedDue('2026-11-24T10:10:00.000Z', -5, now)).toBe('2026-11-24T10:05:00.000Z');
  expect(movedDue('2026-11-24T10:03:00.000Z', -5, now)).toBe('2026-11-24T10:00:00.000Z');
  expect(movedDue('2026-11-24T09:50:00.000Z', 1, now)).toBe('2026-11-24T10:01:00.000Z');
  expect(movedDue('2026-11-24T10:00:12.000Z', 1 / 12, now)).toBe('2026-11-24T10:00:17.000Z');
});
