import { figureWords, formatMass } from '@zabrik/core';
import { z } from 'zod';
import { partOf } from '../partOf.ts';

/** What there is of a lot, and what of that is free. */
export interface Of {
  readonly massMg: number;
  readonly pieces: number;
  readonly freeMg: number;
  readonly freePieces: number;
}

/** A part of a lot as it was typed: both null for all of it. */
export interface Part {
  readonly massMg: number | null;
  readonly pieces: number | null;
}

const A_WEIGHT = 'A weight, such as 160 or 1.2 kg';

/** What was typed as a part of what is free of a lot, or why it is none, in words. */
export function readPart(text: string, lot: Of): Part | string {
  if (text.trim() === '') return { massMg: null, pieces: null };
  try {
    const { massMg, pieces } = partOf(text, { massMg: lot.freeMg, pieces: lot.freePieces });
    const rest = lot.freeMg < lot.massMg ? ' that is not on a bench or in a planned pot' : '';
    if (massMg <= 0) return A_WEIGHT;
    if (pieces !== null && pieces > lot.freePieces) return `The lot has ${lot.freePieces} pieces${rest}`;
    if (massMg > lot.freeMg) return `The lot has ${formatMass(lot.freeMg)}${rest}`;
    return { massMg, pieces };
  } catch (thrown) {
    return figureWords(thrown, A_WEIGHT);
  }
}

/** A field for a part of a lot. All of it, weighed or not, is said as such. */
export const partOfLot = (lot: Of) =>
  z.string().transform((text, context): Part => {
    const part = readPart(text, lot);
    if (typeof part !== 'string') return part.massMg === lot.massMg ? { massMg: null, pieces: null } : part;
    context.addIssue({ code: 'custom', message: part });
    return z.NEVER;
  });
