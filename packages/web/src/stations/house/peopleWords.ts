import type { Shift, Skill } from '@zabrik/contract';
import { clockTimeOf, weekdays } from '../../app/dates.ts';

export const skillNames: Readonly<Record<Skill, string>> = {
  fish: 'fish',
  shellfish: 'shellfish',
  poultry: 'poultry',
  game: 'game',
  meat: 'meat',
  stove: 'the stove',
  receiving: 'the door',
};

/** "Mon to Fri 07:00 to 15:30", "Sat Sun 18:00 to 01:00 the next day". */
export function shiftWords({ days, from, until }: Shift): string {
  const sorted = [...new Set(days)].sort((a, b) => a - b);
  const [first = 1, last = first] = [sorted[0], sorted.at(-1)];
  const name = (d: number): string => weekdays[d - 1] ?? '';
  const inARow = sorted.length > 2 && last - first === sorted.length - 1;
  const on = inARow ? `${name(first)} to ${name(last)}` : sorted.map(name).join(' ');
  return `${on} ${clockTimeOf(from)} to ${clockTimeOf(until)}${until <= from ? ' the next day' : ''}`;
}
