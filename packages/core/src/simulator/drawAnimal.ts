import type { PieceShare } from '../breakdown/stageShares.ts';
import type { Random } from './random.ts';

export interface AnimalDraw {
  readonly startMg: number;
  readonly shares: readonly PieceShare[];
  readonly drip: { readonly mean: number; readonly sd: number };
  /** Pieces the knife wins flesh for, and the piece it leaves flesh on when it does not. */
  readonly mainPieces: readonly string[];
  readonly framePiece: string | undefined;
  /** Share of the main cut left on the frame beyond the usual: 0 for a good hand, 0.05 for a learner, below 0 for a master. */
  readonly leftOnFrame: number;
  /** How this lot differs from the handbook: the main cut's share is multiplied by it (season, supplier). */
  readonly condition: number;
}

export interface DrawnAnimal {
  readonly pieces: readonly { readonly pieceId: string; readonly massMg: number }[];
  readonly dripMg: number;
}

/**
 * Draws what one animal is really made of, hidden from everyone but the simulator.
 *
 * Each share is drawn on the log scale around its mean and all are closed to one, so a heavy head costs the fillets.
 *
 * Keeps   pieces + drip = start, to the milligram; no piece below zero.
 * Source  log-ratio model of compositional data (Aitchison); from memory.
 */
export function drawAnimal(draw: AnimalDraw, random: Random): DrawnAnimal {
  const parts = [
    ...draw.shares.map((s) => ({ id: s.pieceId, mean: s.mean, sd: s.sd })),
    { id: 'drip', mean: draw.drip.mean, sd: draw.drip.sd },
  ].map((part) => {
    const condition = draw.mainPieces.includes(part.id) ? draw.condition : 1;
    const sigma = Math.min(0.8, part.sd / Math.max(part.mean, 1e-6));
    return { id: part.id, weight: part.mean * condition * Math.exp(sigma * random.normal() - (sigma * sigma) / 2) };
  });
  const total = parts.reduce((sum, part) => sum + part.weight, 0);
  const mass = new Map(parts.map((part) => [part.id, (part.weight / total) * draw.startMg]));
  if (draw.framePiece !== undefined) {
    for (const id of draw.mainPieces) {
      const left = (mass.get(id) ?? 0) * draw.leftOnFrame;
      mass.set(id, (mass.get(id) ?? 0) - left);
      mass.set(draw.framePiece, Math.max(0, (mass.get(draw.framePiece) ?? 0) + left));
    }
  }
  const pieces = draw.shares.map((s) => ({ pieceId: s.pieceId, massMg: Math.round(mass.get(s.pieceId) ?? 0) }));
  return { pieces, dripMg: draw.startMg - pieces.reduce((sum, piece) => sum + piece.massMg, 0) };
}

/**
 * Splits a piece into the units it comes off in, alike but not equal.
 *
 * Keeps   the units add up to the piece.
 */
export function splitIntoUnits(massMg: number, units: number, random: Random): number[] {
  const weights = Array.from({ length: units }, () => Math.max(0.2, 1 + 0.04 * random.normal()));
  const total = weights.reduce((a, b) => a + b, 0);
  const masses = weights.map((w) => Math.floor((massMg * w) / total));
  masses[0] = (masses[0] ?? 0) + massMg - masses.reduce((a, b) => a + b, 0);
  return masses;
}
