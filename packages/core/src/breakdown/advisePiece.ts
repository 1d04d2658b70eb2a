import type { PieceExpectation } from './expectPieces.ts';

export type PieceAdvice =
  | { readonly kind: 'usual' }
  | { readonly kind: 'heavy' | 'light'; readonly byMg: number; readonly strong: boolean };

/**
 * Says whether a mass on the pan is what this piece usually weighs. Outside the 80 % interval it is worth a word, outside the
 * 95 % interval worth stopping for.
 *
 * Units   milligrams; `byMg` is the distance to the usual middle.
 */
export function advisePiece(massMg: number, expected: PieceExpectation): PieceAdvice {
  if (expected.nextMg === 0 || massMg <= 0) return { kind: 'usual' };
  if (massMg > expected.high80Mg)
    return { kind: 'heavy', byMg: massMg - expected.nextMg, strong: massMg > expected.high95Mg };
  if (massMg < expected.low80Mg)
    return { kind: 'light', byMg: expected.nextMg - massMg, strong: massMg < expected.low95Mg };
  return { kind: 'usual' };
}
