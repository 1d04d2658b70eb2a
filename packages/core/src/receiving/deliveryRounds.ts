/** When a supplier must be asked so that it comes in time: order days with an hour, lead time, delivery days. */
import { addDays } from '../safety/judge.ts';

/** A supplier's round. Days of the week from Monday, 1, to Sunday, 7; none named means any day. */
export interface DeliveryRounds {
  readonly orderDays: readonly number[];
  /** By when on such a day, HH:MM of the house's clock; null: until the day ends. */
  readonly cutOff: string | null;
  readonly deliveryDays: readonly number[];
  /** Days that lie at least between order and delivery: 1, on the next day at the earliest. */
  readonly leadDays: number;
}

/** An order and what becomes of it: until when, YYYY-MM-DD and HH:MM, and on which day it comes. */
export interface OrderTurn {
  readonly orderOn: string;
  readonly by: string | null;
  readonly comesOn: string;
}

/** 1 for Monday to 7 for Sunday. */
export const weekday = (day: string): number => ((new Date(`${day}T00:00:00Z`).getUTCDay() + 6) % 7) + 1;

const named = (days: readonly number[], day: string): boolean => days.length === 0 || days.includes(weekday(day));

const within = (from: string, days: number, fits: (day: string) => boolean): string | undefined => {
  for (let i = 0; i <= days; i += 1) {
    const day = addDays(from, i);
    if (fits(day)) return day;
  }
  return undefined;
};

/** On which day an order given on this day comes: the first delivery day after the lead time. Lead times over two weeks are no round. */
const comesOn = (rounds: DeliveryRounds, orderOn: string): string =>
  within(addDays(orderOn, rounds.leadDays), 7, (day) => named(rounds.deliveryDays, day)) ??
  addDays(orderOn, rounds.leadDays);

/** Whether an order can still be given on a day at a time of it; on the hour itself it can. */
const stillOn = (rounds: DeliveryRounds, day: string, time: string | undefined): boolean =>
  named(rounds.orderDays, day) && (time === undefined || rounds.cutOff === null || time <= rounds.cutOff);

/**
 * The next order that can be given, from now on, and when it comes.
 *
 * Shapes  today YYYY-MM-DD and time HH:MM, both by the house's clock.
 * @example orders Mon, Wed, Fri until 16:00, lead 1, delivers Tue to Sat; on a Monday at 17:00 -> order on Wednesday by 16:00, comes on Thursday
 */
export function nextTurn(rounds: DeliveryRounds, today: string, time: string): OrderTurn {
  const orderOn = within(today, 7, (day) => stillOn(rounds, day, day === today ? time : undefined)) ?? today;
  return { orderOn, by: rounds.cutOff, comesOn: comesOn(rounds, orderOn) };
}

/**
 * The last order that comes on a wanted day or before it: undefined where nothing comes on that day, so that another has to be chosen.
 *
 * @example the same round, wanted on a Thursday -> order on Wednesday by 16:00; wanted on a Monday -> undefined, they do not deliver on Mondays
 */
export function turnFor(rounds: DeliveryRounds, wanted: string): OrderTurn | undefined {
  if (!named(rounds.deliveryDays, wanted)) return undefined;
  for (let back = rounds.leadDays; back <= rounds.leadDays + 14; back += 1) {
    const orderOn = addDays(wanted, -back);
    if (named(rounds.orderDays, orderOn) && comesOn(rounds, orderOn) <= wanted)
      return { orderOn, by: rounds.cutOff, comesOn: comesOn(rounds, orderOn) };
  }
  return undefined;
}
