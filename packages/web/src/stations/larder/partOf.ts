import { parseMass } from '@zabrik/core';

/** A part of a lot as it was typed: a weight, or a count of pieces where the lot is pieces. */
export interface Part {
  readonly massMg: number;
  /** How many pieces that is, where they were counted. */
  readonly pieces: number | null;
}

const PIECES = /^(\d{1,5})\s*(?:pc|pcs|pieces?|×|x)$/i;

/**
 * Reads a part of a lot: "160", "1.2 kg", or "2 pc" of its pieces, which weigh what a piece of it weighs on average.
 *
 * Errors  those of parseMass.
 * @example "2 pc" of 21 pieces of 3,360 g -> 320 g, 2 pieces; "21 pc" -> all of it
 */
export function partOf(text: string, lot: { readonly massMg: number; readonly pieces: number }): Part {
  const count = PIECES.exec(text.trim());
  if (count === null) return { massMg: parseMass(text), pieces: null };
  const pieces = Number(count[1]);
  const massMg = pieces === lot.pieces ? lot.massMg : Math.round((lot.massMg * pieces) / Math.max(1, lot.pieces));
  return { massMg, pieces };
}
