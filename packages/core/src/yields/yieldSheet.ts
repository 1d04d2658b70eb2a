import type { Destination } from '../breakdown/plan.ts';

export interface SheetPiece {
  readonly pieceId: string;
  readonly destination: Destination;
  readonly massMg: number;
  readonly edible: boolean;
  readonly main: boolean;
}

export interface YieldShares {
  /** Main cut over the start. */
  readonly mainShare: number;
  /** Everything a guest or the staff can eat that was not thrown away. */
  readonly edibleShare: number;
  /** Everything that got a use, bones for the pot included. */
  readonly recoveredShare: number;
  readonly wasteShare: number;
  /** Neither weighed nor explained: drip and scale error. May be below zero by the scale's error. */
  readonly unaccountedShare: number;
}

/**
 * The shares of a breakdown, of the mass it started from.
 *
 * Keeps   recovered + waste + unaccounted = 1.
 * Units   milligrams in, 0..1 out. A start of 0 gives zeros, never NaN.
 */
export function yieldShares(startMg: number, pieces: readonly SheetPiece[]): YieldShares {
  const of = (wanted: (piece: SheetPiece) => boolean): number =>
    startMg > 0 ? pieces.filter(wanted).reduce((sum, piece) => sum + piece.massMg, 0) / startMg : 0;
  const kept = (piece: SheetPiece): boolean => piece.destination !== 'waste';
  const recoveredShare = of(kept);
  const wasteShare = of((piece) => !kept(piece));
  return {
    mainShare: of((piece) => piece.main && kept(piece)),
    edibleShare: of((piece) => piece.edible && kept(piece)),
    recoveredShare,
    wasteShare,
    unaccountedShare: startMg > 0 ? 1 - recoveredShare - wasteShare : 0,
  };
}
