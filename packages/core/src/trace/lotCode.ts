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
 * @example lotCode(417) -> "0417-L"
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
 * square of a label says it (GS1 element 91, a house's own). Undefined where it is no code. A letter that does not fit is not judged: see `parseLotCode`.
 *
 * @example "927" -> "0927-"; "417l" -> "0417-L"; "]d2910417-L" -> "0417-L"; "hake 4" -> undefined
 */
export function codeTyped(text: string): string | undefined {
  const match = /^(\](?:d2|Q3|C1|e0))?(?:\(91\))?(\d{1,11})[\s-]*([A-Z]?)$/i.exec(text.trim());
  if (match === null) return undefined;
  const [scanner, typed = '', letter = ''] = [match[1], match[2], match[3]?.toUpperCase()];
  // 91 announces a code where what follows it is one; a house has to make nine hundred thousand lots before one of its own begins so
  const rest = /^91\d{4,9}$/.test(typed) && letter !== '' ? typed.slice(2) : undefined;
  const announced = rest !== undefined && (scanner !== undefined || fits(rest, letter));
  const digits = (announced ? rest : typed).replace(/^0+(?=\d)/, '');
  return `${digits.padStart(4, '0')}-${letter}`;
}
