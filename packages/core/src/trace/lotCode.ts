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

const fits = (digits: string, letter: string): boolean => letter === checkLetter(digits.padStart(4, '0'));

/**
 * What somebody typed, spoke or scanned, as the beginning of a lot's code: with or without its letter, its hyphen or its leading noughts, or as the
 * square of a label says it (GS1 element 10, batch or lot). Undefined where it is no code. A letter that does not fit is not judged: see `parseLotCode`.
 *
 * @example "927" -> "0927-"; "417f" -> "0417-F"; "]d2100417-F" -> "0417-F"; "hake 4" -> undefined
 */
export function codeTyped(text: string): string | undefined {
  const match = /^(\](?:d2|Q3|C1|e0))?(?:\(10\))?(\d{1,11})[\s-]*([A-Z]?)$/i.exec(text.trim());
  if (match === null) return undefined;
  const [scanner, typed = '', letter = ''] = [match[1], match[2], match[3]?.toUpperCase()];
  // a lot of six digits may begin with the 10 that announces a code: the letter says which it is
  const announced = /^10\d{4,9}$/.test(typed) && letter !== '' && (scanner !== undefined || !fits(typed, letter));
  const digits = (
    announced && (scanner !== undefined || fits(typed.slice(2), letter)) ? typed.slice(2) : typed
  ).replace(/^0+(?=\d)/, '');
  return `${digits.padStart(4, '0')}-${letter}`;
}
