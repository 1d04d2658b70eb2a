import type { ShareBelief } from './shareBelief.ts';

export interface PieceState {
  readonly pieceId: string;
  readonly belief: ShareBelief;
  /** How many units the piece comes off in, and the masses taken so far. */
  readonly units: number;
  readonly takenMg: readonly number[];
}

export interface PieceExpectation {
  readonly pieceId: string;
  /** What the next unit of this piece should weigh: median, 80 % and 95 % interval. Zero width when all units are weighed. */
  readonly nextMg: number;
  readonly low80Mg: number;
  readonly high80Mg: number;
  readonly low95Mg: number;
  readonly high95Mg: number;
  /** What the whole piece should still come to. */
  readonly remainingMg: number;
  readonly records: number;
}

const Z80 = 1.2815515655446004;
const Z95 = 1.959963984540054;

/**
 * What each piece still to come should weigh, given what this animal has already shown.
 *
 * Shares of one stage sum to one, so a heavy head leaves less for the fillets: piece shares are taken as independent normals
 * conditioned on their sum. What is still open gives and takes the surprise in proportion to its variance. The drip is one
 * more piece that is never weighed.
 *
 * Shapes  pieces: as in the plan. drip: its belief. Result: one entry per piece, same order.
 * Units   milligrams.
 * Keeps   expected remainders plus expected drip equal start minus weighed, unless that would make one negative (then 0).
 * Source  conditioning of a multivariate normal on a linear constraint, any multivariate statistics text; from memory.
 */
export function expectPieces(
  startMg: number,
  pieces: readonly PieceState[],
  drip: { readonly mean: number; readonly sd: number },
): PieceExpectation[] {
  const sum = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0);
  const states = pieces.map((piece) => {
    const openUnits = Math.max(0, piece.units - piece.takenMg.length);
    const taken = sum(piece.takenMg);
    const unit = piece.belief.mean / piece.units;
    // units of one animal are alike: once one is weighed, half of what it showed is carried to the next
    const shown = piece.takenMg.length === 0 ? unit : taken / piece.takenMg.length / Math.max(startMg, 1);
    const mean = openUnits * (unit + (shown - unit) / 2);
    const spread = piece.takenMg.length === 0 ? 1 : 0.5;
    const variance = (piece.belief.sd * Math.sqrt(openUnits / piece.units) * spread) ** 2;
    return { piece, openUnits, taken, mean, variance };
  });
  const left = 1 - sum(states.map((s) => s.taken)) / Math.max(startMg, 1);
  const openMean = sum(states.map((s) => s.mean)) + drip.mean;
  const openVariance = sum(states.map((s) => s.variance)) + drip.sd ** 2;
  return states.map(({ piece, openUnits, mean, variance }) => {
    const none = { nextMg: 0, low80Mg: 0, high80Mg: 0, low95Mg: 0, high95Mg: 0, remainingMg: 0 };
    const common = { pieceId: piece.pieceId, records: piece.belief.records };
    if (openUnits === 0) return { ...common, ...none };
    const gain = openVariance > 0 ? variance / openVariance : 0;
    const share = Math.max(0, mean + gain * (left - openMean));
    const sd = Math.sqrt(Math.max(0, variance * (1 - gain)));
    const unitSd = sd / Math.sqrt(openUnits);
    const unitMean = share / openUnits;
    const at = (z: number): number => Math.round(Math.max(0, (unitMean + z * unitSd) * startMg));
    return {
      ...common,
      nextMg: at(0),
      low80Mg: at(-Z80),
      high80Mg: at(Z80),
      low95Mg: at(-Z95),
      high95Mg: at(Z95),
      remainingMg: Math.round(share * startMg),
    };
  });
}
