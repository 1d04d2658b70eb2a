import { roles, usualIdleMinutes } from '@zabrik/contract/roles';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { WORKED, watchHands } from './hands.ts';

beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
});
afterEach(() => vi.useRealTimers());

const MINUTE = 60_000;
const touch = (): void => void dispatchEvent(new Event('pointerdown'));

it.each(roles)('a %s is asked again after their own idle time, and not a minute before', (role) => {
  const leave = vi.fn();
  const stop = watchHands({
    idleMinutes: usualIdleMinutes[role],
    tell: () => Promise.resolve(),
    leave,
    connected: () => true,
  });
  vi.advanceTimersByTime(usualIdleMinutes[role] * MINUTE - MINUTE);
  expect(leave).not.toHaveBeenCalled();
  touch();
  vi.advanceTimersByTime(usualIdleMinutes[role] * MINUTE - MINUTE);
  expect(leave).not.toHaveBeenCalled();
  vi.advanceTimersByTime(2 * MINUTE);
  expect(leave).toHaveBeenCalled();
  stop();
});

it('a weight that takes itself is hands at work', () => {
  const leave = vi.fn();
  const stop = watchHands({ idleMinutes: 240, tell: () => Promise.resolve(), leave, connected: () => true });
  for (let hours = 0; hours < 9; hours += 1) {
    vi.advanceTimersByTime(60 * MINUTE);
    dispatchEvent(new Event(WORKED));
  }
  expect(leave).not.toHaveBeenCalled();
  stop();
});

it('tells the server now and then while hands are there, and again at once when it did not hear', async () => {
  let hears = false;
  const tell = vi.fn(() => (hears ? Promise.resolve() : Promise.reject(new Error('away'))));
  const stop = watchHands({ idleMinutes: 30, tell, leave: vi.fn(), connected: () => true });
  touch();
  expect(tell).not.toHaveBeenCalled();
  vi.advanceTimersByTime(6 * MINUTE);
  expect(tell).not.toHaveBeenCalled(); // nobody there
  touch();
  expect(tell).toHaveBeenCalledTimes(1);
  await vi.advanceTimersByTimeAsync(1);
  hears = true;
  touch();
  expect(tell).toHaveBeenCalledTimes(2);
  await vi.advanceTimersByTimeAsync(1);
  touch();
  expect(tell).toHaveBeenCalledTimes(2);
  stop();
  vi.advanceTimersByTime(20 * MINUTE);
  touch();
  expect(tell).toHaveBeenCalledTimes(2);
});

it('sends nobody out while nobody could come in again, nor while another tab of the tablet is worked on', () => {
  let connected = false;
  const leave = vi.fn();
  const stop = watchHands({ idleMinutes: 30, tell: () => Promise.resolve(), leave, connected: () => connected });
  vi.advanceTimersByTime(60 * MINUTE);
  expect(leave).not.toHaveBeenCalled();
  localStorage.setItem('zabrik-touched', String(Date.now()));
  connected = true;
  vi.advanceTimersByTime(29 * MINUTE);
  expect(leave).not.toHaveBeenCalled();
  vi.advanceTimersByTime(2 * MINUTE);
  expect(leave).toHaveBeenCalled();
  stop();
});
