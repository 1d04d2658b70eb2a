import { describe, expect, it } from 'vitest';
import { clockAhead, countWords, minutesWords, wholeSeconds } from './timers.ts';

describe('the clock of a device against the server’s', () => {
  it('is taken as right while it may be, however slow the answer was', () => {
    expect(clockAhead(1_000, 1_040, 1_020)).toBe(0);
    expect(clockAhead(1_000, 3_000, 1_100)).toBe(0);
    expect(clockAhead(1_000, 3_000, 2_900)).toBe(0);
  });
  it('is put right by the least that explains what the server said', () => {
    expect(clockAhead(0, 400, 5_150)).toBe(4_750);
    expect(clockAhead(10_000, 10_300, 4_100)).toBe(-5_900);
  });
});

describe('how long a timer is', () => {
  it('is said in seconds, minutes, hours, and never drifts', () => {
    expect([0.2, 1, 20, 119, 210].map(minutesWords)).toEqual(['12 s', '1 min', '20 min', '119 min', '3.5 h']);
    let minutes = 5 / 60;
    for (let i = 0; i < 11; i += 1) minutes = wholeSeconds(minutes + 1 / 12);
    expect(minutes).toBe(1);
    expect(wholeSeconds(-3)).toBe(5 / 60);
  });
});

describe('what is left of a timer', () => {
  it.each([
    [65_000, '1:05'],
    [3_720_000, '1:02:00'],
    [1, '0:01'],
    [0, '0:00'],
    [-12_400, '−0:12'],
  ])('%i ms is written %s', (ms, words) => {
    expect(countWords(ms)).toBe(words);
  });
});
