/** How long something takes by itself. */
export interface MinutesRange {
  readonly low: number;
  readonly typical: number;
  readonly high: number;
}

/** What pieces up to so many grams take. */
export interface MinutesUpTo {
  readonly upToG: number;
  readonly minutes: MinutesRange;
}

/** A step that takes its time, by the size of the piece where that is what decides. */
export interface TimedStep {
  readonly minutes?: MinutesRange;
  /** The smallest first. What `minutes` says is for no size in particular. */
  readonly bySize?: readonly MinutesUpTo[];
}

/**
 * What a step takes for a piece of this mass.
 *
 * Shapes  pieceMg: of one piece; undefined or nothing where nobody knows it: then what is said for no size in particular.
 * Units   milligrams, minutes; what is past the table is in whole minutes.
 * Keeps   never less for a heavier piece. Past the last row time grows with the square of the thickness, and that with the two-thirds power of
 *         the mass: heat reaches the middle of a body of one shape so.
 * Source  similarity in Fourier's equation of conduction (any text on heat transfer).
 * @example up to 800 g 12 minutes, up to 1,200 g 15: a crab of 900 g takes 15, one of 2,400 g 15 x 2^(2/3) = 24
 */
export function minutesFor(step: TimedStep, pieceMg: number | undefined): MinutesRange | undefined {
  const { bySize = [] } = step;
  const last = bySize.at(-1);
  if (pieceMg === undefined || pieceMg <= 0 || last === undefined) return step.minutes;
  const grams = pieceMg / 1_000;
  const row = bySize.find((r) => grams <= r.upToG);
  if (row !== undefined) return row.minutes;
  const longer = (grams / last.upToG) ** (2 / 3);
  const of = (minutes: number): number => Math.ceil(minutes * longer - 1e-9);
  return { low: of(last.minutes.low), typical: of(last.minutes.typical), high: of(last.minutes.high) };
}

/**
 * What is wrong with a table of minutes by size, in words; undefined while it is sound.
 *
 * Keeps   sizes grow from row to row, no row takes less than the one before, and each goes from, usual, to.
 */
export function sizesFault({ bySize = [] }: TimedStep): string | undefined {
  for (const [i, { upToG, minutes }] of bySize.entries()) {
    if (minutes.low > minutes.typical || minutes.typical > minutes.high)
      return `up to ${upToG} g: minutes from, usual, to: each no less than the one before`;
    const before = bySize[i - 1];
    if (before === undefined) continue;
    if (upToG <= before.upToG) return `up to ${upToG} g does not follow up to ${before.upToG} g`;
    if (minutes.typical < before.minutes.typical) return `up to ${upToG} g takes less than up to ${before.upToG} g`;
  }
  return undefined;
}

/** Pieces this far from each other in mass are not of one size: what one took says nothing of the other. */
const APART = 0.25;

/** Whether what a piece of one mass took may be held beside what one of another takes. */
export const alikeInSize = (aMg: number | undefined, bMg: number | undefined): boolean =>
  aMg !== undefined && bMg !== undefined && aMg > 0 && bMg > 0 && Math.abs(aMg - bMg) <= APART * Math.max(aMg, bMg);
