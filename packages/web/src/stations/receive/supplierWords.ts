/** What is agreed with a supplier, in words. */
import type { SupplierTerms } from '@zabrik/contract';
import { formatMass, nextTurn, type OrderTurn, turnFor } from '@zabrik/core';
import { clockTimeOf, dayName } from '../../app/dates.ts';

const longDays = ['Mondays', 'Tuesdays', 'Wednesdays', 'Thursdays', 'Fridays', 'Saturdays', 'Sundays'] as const;

/** A time of the house: its day and its hour, HH:MM. */
export interface HouseTime {
  readonly day: string;
  readonly time: string;
}

/** Nobody has said when they take orders or bring them: nothing can be told of it. */
export const hasRounds = (terms: SupplierTerms): boolean =>
  terms.orderDays.length > 0 || terms.deliveryDays.length > 0 || terms.cutOff !== null;

const untilWords = ({ orderOn, by }: OrderTurn, now: HouseTime): string =>
  `${orderOn === now.day ? 'today' : dayName(orderOn)}${by === null ? '' : ` by ${clockTimeOf(by)}`}`;

/** The next order: until when, and when it comes. */
export const turnWords = (terms: SupplierTerms, now: HouseTime): string => {
  if (!hasRounds(terms)) return 'no order days said';
  const turn = nextTurn(terms, now.day, now.time);
  return `order ${untilWords(turn, now)}, comes ${dayName(turn.comesOn)}`;
};

/** Whether what is wanted on a day can still come, and until when it must be ordered. Undefined where nobody has said their days. */
export function wantedWords(
  terms: SupplierTerms,
  wanted: string,
  now: HouseTime,
): { readonly fits: boolean; readonly says: string } | undefined {
  if (!hasRounds(terms)) return undefined;
  const next = nextTurn(terms, now.day, now.time);
  const then = `The next that comes is ordered ${untilWords(next, now)}, for ${dayName(next.comesOn)}.`;
  const turn = turnFor(terms, wanted);
  if (turn === undefined) {
    const day = longDays[(new Date(`${wanted}T00:00:00Z`).getUTCDay() + 6) % 7];
    return { fits: false, says: `They bring nothing on ${day}. ${then}` };
  }
  const late = turn.orderOn < now.day || (turn.orderOn === now.day && turn.by !== null && now.time > turn.by);
  return late
    ? { fits: false, says: `Too late for ${dayName(wanted)}: it had to be ordered ${untilWords(turn, now)}. ${then}` }
    : { fits: true, says: `To be ordered ${untilWords(turn, now)}.` };
}

/** Minimum and carriage, in words; empty where nothing is said. */
export const moneyWords = (terms: SupplierTerms, money: (minor: number) => string): string =>
  [
    terms.minimumMinor === null ? '' : `an order comes to ${money(terms.minimumMinor)} at least`,
    terms.carriageMinor === null || terms.carriageMinor === 0
      ? ''
      : `bringing it costs ${money(terms.carriageMinor)}${
          terms.carriageFreeMinor === null ? '' : `, nothing from ${money(terms.carriageFreeMinor)}`
        }`,
  ]
    .filter((t) => t !== '')
    .join('; ');

/** How many packs a mass is: whole ones, and by how much they are more. */
export const packsWords = (massMg: number, packMg: number): string => {
  const packs = Math.max(1, Math.ceil(massMg / packMg));
  const over = packs * packMg - massMg;
  return `${packs} ${packs === 1 ? 'pack' : 'packs'}${over === 0 ? '' : `, ${formatMass(over)} more than that`}`;
};
