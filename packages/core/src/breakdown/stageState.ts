import { type Balance, judgeBalance } from './balance.ts';
import { effectiveWeighings, type WeighingLike } from './effectiveWeighings.ts';
import { expectPieces, type PieceExpectation } from './expectPieces.ts';
import type { PlanStage } from './plan.ts';
import type { ScaleSpec } from './scaleTolerance.ts';
import type { ShareBelief } from './shareBelief.ts';

export interface StageWeighing extends WeighingLike {
  readonly pieceId: string | null;
}

const takenBy = (stage: PlanStage, weighings: readonly StageWeighing[]): Map<string, number[]> => {
  const taken = new Map<string, number[]>(stage.pieces.map((piece) => [piece.id, []]));
  for (const w of effectiveWeighings(weighings)) if (w.pieceId !== null) taken.get(w.pieceId)?.push(w.massMg);
  return taken;
};

/**
 * What each piece of a stage should still weigh, from the weighings so far and what is believed of each share.
 *
 * Shapes  one entry per piece, in plan order. A piece without a belief takes the plan's share.
 * Units   milligrams.
 */
export function expectStage(
  stage: PlanStage,
  startMg: number,
  weighings: readonly StageWeighing[],
  beliefs: ReadonlyMap<string, ShareBelief>,
): PieceExpectation[] {
  const taken = takenBy(stage, weighings);
  return expectPieces(
    startMg,
    stage.pieces.map((piece) => ({
      pieceId: piece.id,
      belief: beliefs.get(piece.id) ?? { mean: piece.share.mean, sd: piece.share.sd, records: 0 },
      units: piece.units.length,
      takenMg: taken.get(piece.id) ?? [],
    })),
    stage.drip,
  );
}

/**
 * Judges the balance of a stage. A piece none of whose units is weighed is a candidate for what is missing, at its plan's share.
 *
 * Units   milligrams. See judgeBalance for the verdicts.
 */
export function balanceStage(
  stage: PlanStage,
  startMg: number,
  weighings: readonly StageWeighing[],
  scale: ScaleSpec,
): Balance {
  const taken = takenBy(stage, weighings);
  return judgeBalance({
    startMg,
    weighedMg: effectiveWeighings(weighings).map((w) => w.massMg),
    drip: stage.drip,
    scale,
    missing: stage.pieces.flatMap((piece) => {
      const open = piece.units.length - (taken.get(piece.id)?.length ?? 0);
      return open > 0
        ? [{ pieceId: piece.id, expectedMg: (startMg * piece.share.mean * open) / piece.units.length }]
        : [];
    }),
  });
}
