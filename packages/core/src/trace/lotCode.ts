import { Refusal } from '../refusal.ts';

/** Letters that survive being read across a kitchen on paper: no I, O or Q beside 1 and 0. A prime number of them. */
const CHECK_LETTERS = 'ABCDEFGHJKLMNPRSTUVWXYZ';

const checkLetter = (digits: string): string => {
  let sum = 0;
  for (let i = 0; i < digits.length; i += 1) sum += Number(digits[digits.length - 1 - i]) * (i + 2);
  return CHECK_LETTERS.charAt(sum % CHECK_LETTERS.length);
};

/**
 * A lot's short code: the house's running number, at least four digits, and a check letter.
 *
 * Keeps   any one digit misheard, and any two neighbours swapped, gives another letter (the modulus is prime and the weights
 *         differ; tried out in the test for every number to 9,999).
 * Errors  RangeError for what is no whole number from nought.
 * @example lotCode(417) -> "0417-F"
 */
export function lotCode(serial: number): string {
  if (!Number.isSafeInteger(serial) || serial < 0) throw new RangeError(`${serial} is no running number`);
  const digits = String(serial).padStart(4, '0');
  return `${digits}-${checkLetter(digits)}`;
}

/**
 * Reads a code as typed or spoken: spaces and the hyphen do not matter, nor does case.
 *
 * Errors  `not_a_lot_code`: not digits and a letter, or the letter does not fit the digits.
 */
export function parseLotCode(text: string): { readonly serial: number; readonly code: string } {
  const match = /^(\d{4,9})([A-Z])$/.exec(text.toUpperCase().replace(/[\s-]/g, ''));
  const digits = match?.[1];
  if (digits === undefined || match?.[2] !== checkLetter(digits)) throw new Refusal('not_a_lot_code', { text });
  return { serial: Number(digits), code: lotCode(Number(digits)) };
}
