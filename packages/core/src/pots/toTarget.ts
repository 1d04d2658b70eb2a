import type { Composition, FillingPart } from './fillingBalance.ts';

/** What a mix should come to, as shares of the whole mix, 0..1. */
export interface MixTarget {
  readonly fat?: number;
  readonly salt?: number;
}

export interface ToTarget {
  /** What is to go in of the fat and of the salt, milligrams. */
  readonly fatMg: number;
  readonly saltMg: number;
}

/** Why a mix does not come to what is wanted. */
export type OffTarget = 'too_fat_already' | 'fat_too_lean' | 'too_salt_already' | 'nobody_knows';

const grams = (of: Composition | undefined, what: 'fat' | 'salt'): number => (of === undefined ? 0 : of[what] / 100);

/**
 * Fat and salt for a forcemeat or a sausage that should come to so much fat and so much salt of the whole mix.
 *
 * Shapes  others: everything else that goes in. fat: what is added as fat; salt: salt itself. Without a target what is given for it stays.
 * Units   milligrams; shares of the finished mix.
 * Errors  a reason: the pieces are fatter or saltier than wanted already; the fat is leaner than what is wanted; nobody knows what a piece is made
 *         of (then no share of the whole can be said).
 * Source  two balances of mass (Pearson's square, for two parts and one target).
 * @example 1 kg of shoulder of 10 % fat and back fat of 90 %, to 25 % fat: 1000 x (25 - 10) / (90 - 25) = 231 g; salt of 1.8 % of the mix besides
 */
export function toTarget(
  others: readonly FillingPart[],
  fat: { readonly of: Composition | undefined; readonly massMg: number },
  saltMg: number,
  target: MixTarget,
): ToTarget | OffTarget {
  if (others.some((p) => p.massMg > 0 && p.of === undefined)) return 'nobody_knows';
  if (fat.of === undefined && (target.fat !== undefined || fat.massMg > 0)) return 'nobody_knows';
  const sum = (by: (p: FillingPart) => number): number => others.reduce((total, p) => total + by(p), 0);
  const mass = sum((p) => p.massMg);
  const fatIn = sum((p) => p.massMg * grams(p.of, 'fat'));
  const saltIn = sum((p) => p.massMg * grams(p.of, 'salt'));
  const f = grams(fat.of, 'fat');
  const s = grams(fat.of, 'salt');
  const wantedFat = target.fat;
  const wantedSalt = target.salt;
  if (wantedFat !== undefined && f <= wantedFat) return 'fat_too_lean';
  // of the salt: s x + y + saltIn = ts (mass + x + y); of the fat: f x + fatIn = tf (mass + x + y)
  const saltFor = (x: number): number =>
    wantedSalt === undefined ? saltMg : (wantedSalt * (mass + x) - saltIn - s * x) / (1 - wantedSalt);
  const fatFor = (y: number): number =>
    wantedFat === undefined ? fat.massMg : (wantedFat * (mass + y) - fatIn) / (f - wantedFat);
  let x = fat.massMg;
  let y = saltMg;
  // each moves the other by hundredths: it settles within a few rounds
  for (let i = 0; i < 60; i += 1) {
    x = fatFor(y);
    y = saltFor(x);
  }
  if (x < 0) return 'too_fat_already';
  if (y < 0) return 'too_salt_already';
  return { fatMg: Math.round(x), saltMg: Math.round(y) };
}
