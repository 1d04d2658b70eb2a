import { expect, it } from 'vitest';
import { poolSize } from './poolSize.ts';

it('several processes find room in the database together, and are told when they do not', () => {
  expect(poolSize(60, 1)).toBe(20);
  for (const [max, processes] of [
    [60, 2],
    [60, 4],
    [200, 8],
    [100, 3],
  ] as const) {
    const pool = poolSize(max, processes);
    expect(pool).toBeGreaterThanOrEqual(4);
    // the pool, four for sessions, two for long reads, one that listens
    expect(processes * (pool + 7)).toBeLessThanOrEqual(max - 8);
  }
  expect(() => poolSize(60, 5)).toThrow('5 server processes need 63');
});
