import { figureWords, formatMass } from '@zabrik/core';
import { z } from 'zod';
import { partOf } from '../partOf.ts';

interface Of {
  readonly massMg: number;
  readonly pieces: number;
}

/** A part of a lot as it was typed: both null for all of it. */
export interface Part {
  readonly massMg: number | null;
  readonly pieces: number | null;
}

const A_WEIGHT = 'A weight, such as 160 or 1.2 kg';

/** What was typed as a part of a lot, or why it is none, in words. */
export function readPart(text: string, lot: Of): Part | string {
  if (text.trim() === '') return { massMg: null, pieces: null };
  try {
    const { massMg, pieces } = partOf(text, lot);
    if (massMg <= 0) return A_WEIGHT;
    if (pieces !== null && pieces > lot.pieces) return `The lot is ${lot.pieces} pieces`;
    if (massMg > lot.massMg) return `The lot has ${formatMass(lot.massMg)}`;
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
