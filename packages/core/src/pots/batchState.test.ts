import { expect, it } from 'vitest';
import { type BatchEventBody, readBatch } from './batchState.ts';

const at = (minute: number): string => new Date(Date.UTC(2026, 10, 24, 10, minute)).toISOString();
const said = (id: string, minute: number, body: BatchEventBody) => ({ id, at: at(minute), by: 'Ines', body });
const join = (id: string, minute: number) =>
  said(id, minute, { kind: 'join', lotId: 'l', name: 'thighs', massMg: 500_000 });

it('says since when a lot has joined, and not of one that was taken back', () => {
  const events = [join('a', 5), join('b', 20), said('c', 21, { kind: 'back', eventId: 'b' })];
  expect(readBatch([], events.slice(0, 2)).joinedAt).toBe(at(20));
  expect(readBatch([], events).joinedAt).toBe(at(5));
  expect(readBatch([], []).joinedAt).toBeUndefined();
});

it('a step left out is a step gone by, and one taken back is the next again', () => {
  const steps = [
    { kind: 'prepare', text: 'a' },
    { kind: 'cook', text: 'b' },
  ] as const;
  const done = said('a', 1, { kind: 'step', step: 0, skipped: true });
  expect(readBatch(steps, [done]).next).toBe(1);
  expect(readBatch(steps, [done, said('b', 2, { kind: 'back', eventId: 'a' })]).next).toBe(0);
});
