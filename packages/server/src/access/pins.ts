/** What a PIN may be, and codes that are said by one person to another. */
import { randomInt } from 'node:crypto';
import type { Sequelize } from 'sequelize';
import { PersonTable } from '../db/models/person.ts';
import { type HouseScope, rowsOf } from '../db/rows.ts';
import { Problem } from '../http/problem.ts';
import { hashSecret, secretFits } from './secrets.ts';

/**
 * Whether anybody would try it first: one figure again and again, two by turns, a pair or three again, up or down by one.
 *
 * @example 1111, 1212, 123123, 4567, 987654 -> true; 2468, 7302 -> false
 */
export function isTrivial(pin: string): boolean {
  const repeats = [1, 2, 3].some((n) => pin.length > n && pin === pin.slice(0, n).repeat(7).slice(0, pin.length));
  const steps = new Set([...pin].slice(1).map((digit, i) => Number(digit) - Number(pin[i])));
  return repeats || (steps.size === 1 && (steps.has(1) || steps.has(-1)));
}

/**
 * The hash of a new PIN of somebody.
 *
 * Errors  `bad_pin`: trivial, or somebody else of the house has it; which of both is not said, and whose least of all.
 */
export async function newPinHash(db: Sequelize, scope: HouseScope, personId: string, pin: string): Promise<string> {
  if (isTrivial(pin)) throw new Problem('bad_pin');
  const people = await rowsOf(db, PersonTable, scope).all({ leftAt: null });
  const others = people.flatMap((p) => (p.id === personId || p.pinHash === null ? [] : [p.pinHash]));
  const taken = await Promise.all(others.map((hash) => secretFits(hash, pin)));
  if (taken.includes(true)) throw new Problem('bad_pin');
  return hashSecret(pin);
}

/** Letters and figures that are not taken for one another when they are read off paper. */
const SIGNS = 'ABCDEFGHJKLMNPQRSTUVWXYZ23456789';

/** A code of so many groups of four: 20 bits a group. */
export const newCode = (groups: number): string =>
  Array.from({ length: groups }, () => Array.from({ length: 4 }, () => SIGNS[randomInt(SIGNS.length)]).join('')).join(
    '-',
  );

/** As it was printed, however it is typed: small letters, blanks, without its dashes. */
export const codeAsPrinted = (typed: string): string =>
  (
    typed
      .toUpperCase()
      .replace(/[^A-Z0-9]/g, '')
      .match(/.{1,4}/g) ?? []
  ).join('-');
