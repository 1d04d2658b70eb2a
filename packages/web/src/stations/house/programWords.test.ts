import type { Hook, Token } from '@zabrik/contract';
import { expect, it } from 'vitest';
import { shiftWords } from './peopleWords.ts';
import { callsWords, tokenWords } from './programWords.ts';

const token: Token = {
  id: '019a0000-0000-7000-8000-000000000001',
  name: 'The accountant',
  scope: 'read',
  by: 'Maren Ostle',
  mine: true,
  madeAt: '2026-12-01T09:00:00.000Z',
  until: '2027-12-01T09:00:00.000Z',
  usedAt: null,
  endedAt: null,
};
const hook: Hook = {
  id: '019a0000-0000-7000-8000-000000000002',
  name: 'Stock room',
  url: 'https://stock.example/told',
  topics: ['movement'],
  by: 'Maren Ostle',
  madeAt: '2026-12-01T09:00:00.000Z',
  waiting: 0,
  givenUp: 0,
  lastOkAt: null,
  lastWhy: null,
};

it('a token says whose it is, until when with its year, and when it is over', () => {
  const now = new Date('2026-12-02T09:00:00Z');
  expect(tokenWords(token, now)).toBe('read · Maren Ostle · until Wed 1 Dec 2027 · never used');
  expect(tokenWords(token, new Date('2027-12-01T09:00:00Z'))).toContain('ran out Wed 1 Dec 2027');
  expect(tokenWords({ ...token, endedAt: '2026-12-01T10:00:00.000Z' }, now)).toContain('taken back Tue 1 Dec');
});

it('calls are never said to go better than the last one went', () => {
  expect(callsWords(hook)).toBe('Not called yet.');
  const went = { ...hook, lastOkAt: '2026-12-01T09:30:00.000Z' };
  expect(callsWords(went)).toMatch(/^Got through Tue 1 Dec/);
  expect(callsWords({ ...went, lastWhy: 'It answered 500.', waiting: 2 })).toBe(
    'The last call did not get through. It answered 500. 2 wait to be sent.',
  );
  expect(callsWords({ ...went, givenUp: 1 })).toContain('1 given up in the last week.');
});

it('shifts are days in a row, or one by one, and say when they end on the next day', () => {
  expect(shiftWords({ days: [5, 1, 2, 3, 4], from: '07:00', until: '15:30' })).toBe('Mon to Fri 07:00 to 15:30');
  expect(shiftWords({ days: [6, 7], from: '18:00', until: '01:00' })).toBe('Sat Sun 18:00 to 01:00 the next day');
  expect(shiftWords({ days: [1, 3, 5], from: '10:00', until: '12:00' })).toBe('Mon Wed Fri 10:00 to 12:00');
});
