import fc from 'fast-check';
import { expect, it } from 'vitest';
import { addDays } from '../safety/judge.ts';
import { type DeliveryRounds, nextTurn, turnFor, weekday } from './deliveryRounds.ts';

/** Orders Monday, Wednesday, Friday until four; brings it Tuesday to Saturday, on the next day at the earliest. */
const quay: DeliveryRounds = { orderDays: [1, 3, 5], cutOff: '16:00', deliveryDays: [2, 3, 4, 5, 6], leadDays: 1 };
// 2026-11-30 is a Monday
const [mon, tue, wed, thu, fri, sat, sun] = Array.from({ length: 7 }, (_, i) => addDays('2026-11-30', i)) as [
  string,
  string,
  string,
  string,
  string,
  string,
  string,
];

it('knows the days of the week, Monday first', () => {
  expect([mon, tue, wed, thu, fri, sat, sun].map(weekday)).toEqual([1, 2, 3, 4, 5, 6, 7]);
});

it.each([
  [mon, '09:00', mon, tue],
  [mon, '16:00', mon, tue],
  // a minute late: the next order day
  [mon, '16:01', wed, thu],
  [tue, '08:00', wed, thu],
  [fri, '15:59', fri, sat],
  // over the weekend, into the next week
  [fri, '17:00', addDays(mon, 7), addDays(tue, 7)],
  [sun, '10:00', addDays(mon, 7), addDays(tue, 7)],
])('on %s at %s the next order is of %s and comes on %s', (today, time, orderOn, comesOn) => {
  expect(nextTurn(quay, today, time)).toEqual({ orderOn, by: '16:00', comesOn });
});

it('a lead of two days skips to the delivery day after them', () => {
  expect(nextTurn({ ...quay, leadDays: 2, deliveryDays: [2, 5] }, mon, '09:00').comesOn).toBe(fri);
  expect(nextTurn({ ...quay, leadDays: 0, deliveryDays: [] }, mon, '09:00').comesOn).toBe(mon);
});

it('what is wanted on a day is ordered on the last day that reaches it; on a day without a delivery nothing comes', () => {
  expect(turnFor(quay, thu)).toEqual({ orderOn: wed, by: '16:00', comesOn: thu });
  // Wednesday's is the Monday order: what is ordered on a Wednesday comes a day later
  expect(turnFor(quay, wed)).toMatchObject({ orderOn: mon });
  expect(turnFor(quay, mon)).toBeUndefined();
  expect(turnFor({ ...quay, orderDays: [7], leadDays: 3 }, sat)).toMatchObject({ orderOn: addDays(sun, -7) });
});

it('whatever the round: an order comes after its lead time on a delivery day, and what is ordered for the day it comes is ordered in time', () => {
  const days = fc.uniqueArray(fc.integer({ min: 1, max: 7 }), { maxLength: 7 });
  fc.assert(
    fc.property(
      fc.record({
        orderDays: days,
        deliveryDays: days,
        leadDays: fc.integer({ min: 0, max: 5 }),
        cutOff: fc.constantFrom(null, '11:30'),
      }),
      fc.integer({ min: 0, max: 400 }),
      fc.constantFrom('08:00', '11:30', '23:00'),
      (rounds, after, time) => {
        const today = addDays(mon, after);
        const turn = nextTurn(rounds, today, time);
        expect(turn.orderOn >= today).toBe(true);
        expect(rounds.orderDays.length === 0 || rounds.orderDays.includes(weekday(turn.orderOn))).toBe(true);
        expect(turn.comesOn >= addDays(turn.orderOn, rounds.leadDays)).toBe(true);
        expect(rounds.deliveryDays.length === 0 || rounds.deliveryDays.includes(weekday(turn.comesOn))).toBe(true);
        const back = turnFor(rounds, turn.comesOn);
        expect(back !== undefined && back.orderOn >= turn.orderOn && back.comesOn <= turn.comesOn).toBe(true);
      },
    ),
  );
});
