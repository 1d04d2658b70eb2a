import { expect, it } from 'vitest';
import { trimBalance } from './trimBalance.ts';

it('what is neither ready nor kept was thrown away', () => {
  expect(trimBalance({ workedMg: 1_000_000, readyMg: 240_000, keptMg: 0 })).toEqual({
    wasteMg: 760_000,
    overMg: 0,
    readyShare: 0.24,
  });
  expect(trimBalance({ workedMg: 1_000, readyMg: 600, keptMg: 400 })).toMatchObject({ wasteMg: 0, overMg: 0 });
});

it('more than went on the board is said as such, and nothing worked on is no yield', () => {
  expect(trimBalance({ workedMg: 1_000, readyMg: 900, keptMg: 150 })).toMatchObject({ wasteMg: 0, overMg: 50 });
  expect(trimBalance({ workedMg: 0, readyMg: 0, keptMg: 0 }).readyShare).toBe(0);
});
