import { formatMass } from '@zabrik/core';

/** Short or over, in grams and money; nothing to say when the scale agrees. */
export function differenceWords(
  differenceMg: number,
  differenceMinor: number,
  money: (minor: number) => string,
): string {
  if (differenceMg === 0) return 'The scale agrees with the invoice.';
  const amount = differenceMinor === 0 ? '' : `, ${money(Math.abs(differenceMinor))}`;
  return `${formatMass(Math.abs(differenceMg))} ${differenceMg < 0 ? 'short' : 'over'}${amount}`;
}
