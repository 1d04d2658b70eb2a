import { type Balance, judgeBalance } from './balance.ts';
import { broughtToUnit } from './brought.ts';
import { effectiveWeighings, type WeighingLike } from './effectiveWeighings.ts';
import {
  expectPieces,
  noUnits,
  type PieceExpectation,
  type TakenMass,
  type UnitsSeen,
  unitSpread,
  unitsSeen,
} from './expectPieces.ts';
import type { PlanStage } from './plan.ts';
import { type ScaleSpec, scaleFor } from './scaleTolerance.ts';
import { batchVariance, type ShareBelief } from './shareBelief.ts';

export interface StageWeighing extends WeighingLike {
  readonly pieceId: string | null;
  /** How many units of the piece were weighed together; 1 where nothing is said. */
  readonly count?: number;
  /** Which of the house's scales it was taken on; null or left out where it was typed. */
  readonly scale?: string | null;
}

export interface NamedScale extends ScaleSpec {
  readonly id: string;
}

const takenBy = (stage: PlanStage, weighings: readonly StageWeighing[]): Map<string, TakenMass[]> => {
  const taken = new Map<string, TakenMass[]>(stage.pieces.map((piece) => [piece.id, []]));
  for (const w of effectiveWeighings(weighings))
    if (w.pieceId !== null) taken.get(w.pieceId)?.push({ massMg: w.massMg, count: w.count ?? 1 });
  return taken;
};

/**
 * What each piece of a stage should still weigh, from the weighings so far and what is believed of each share.
 *
 * Shapes  one entry per piece, in plan order. A piece without a belief takes the plan's share. `animals` in one breakdown: counts
 *         multiply, and the spread of a mean over n animals narrows, except for what the animals of one lot have in common.
 * Units   milligrams. brought: what was joined to a piece and is weighed with it, by piece.
 */
export function expectStage(
  stage: PlanStage,
  startMg: number,
  weighings: readonly StageWeighing[],
  beliefs: ReadonlyMap<string, ShareBelief & { readonly units?: UnitsSeen }>,
  animals = 1,
  brought: ReadonlyMap<string, number> = new Map(),
): PieceExpectation[] {
  const inUnit = broughtToUnit(stage, brought, animals);
  const gross = takenBy(stage, weighings);
  // what was brought is no share of the animal: it comes off the weights, and is put on what is still to come
  const taken = new Map(
    [...gross].map(([id, all]) => [
      id,
      brought.has(id) ? all.map((t) => ({ ...t, massMg: Math.max(0, t.massMg - inUnit(id) * t.count) })) : all,
    ]),
  );
  const narrower = Math.sqrt(batchVariance(animals));
  return expectPieces(
    startMg,
    stage.pieces.map((piece) => {
      const belief = beliefs.get(piece.id) ?? { mean: piece.share.mean, sd: piece.share.sd, records: 0 };
      return {
        pieceId: piece.id,
        belief: { ...belief, sd: belief.sd * narrower },
        count: piece.count * animals,
        taken: taken.get(piece.id) ?? [],
        accumulates: piece.accumulates === true,
        unitSpread: unitSpread(animals, [
          beliefs.get(piece.id)?.units ?? noUnits,
          unitsSeen((taken.get(piece.id) ?? []).flatMap((t) => (t.count === 1 ? [t.massMg] : []))),
        ]),
      };
    }),
    stage.drip,
  ).map((e) => (brought.has(e.pieceId) && e.openCount > 0 ? withBrought(e, inUnit(e.pieceId)) : e));
}

/** The same with what is brought to each unit of it, milligrams. */
function withBrought(e: PieceExpectation, unitMg: number): PieceExpectation {
  const unit = Math.round(unitMg);
  const rest = Math.round(unitMg * e.openCount);
  return {
    ...e,
    nextMg: e.nextMg + unit,
    low80Mg: e.low80Mg + unit,
    high80Mg: e.high80Mg + unit,
    low95Mg: e.low95Mg + unit,
    high95Mg: e.high95Mg + unit,
    remainingMg: e.remainingMg + rest,
    remainingLow80Mg: e.remainingLow80Mg + rest,
    remainingHigh80Mg: e.remainingHigh80Mg + rest,
    remainingLow95Mg: e.remainingLow95Mg + rest,
    remainingHigh95Mg: e.remainingHigh95Mg + rest,
  };
}

/**
 * Judges the balance of a stage. A piece not all of whose units are weighed is a candidate for what is missing, at its plan's share.
 *
 * Units   milligrams. See judgeBalance for the verdicts.
 */
export function balanceStage(
  stage: PlanStage,
  startMg: number,
  weighings: readonly StageWeighing[],
  scales: readonly [NamedScale, ...NamedScale[]],
  animals = 1,
  broughtMg = 0,
): Balance {
  const taken = takenBy(stage, weighings);
  return judgeBalance({
    startMg,
    broughtMg,
    startScale: scaleFor(scales, startMg),
    weighed: effectiveWeighings(weighings).map((w) => ({
      massMg: w.massMg,
      scale: scales.find((s) => s.id === w.scale) ?? scaleFor(scales, w.massMg),
    })),
    drip: stage.drip,
    missing: stage.pieces.flatMap((piece) => {
      const of = taken.get(piece.id) ?? [];
      const count = piece.count * animals;
      const open =
        piece.accumulates === true ? (of.length === 0 ? count : 0) : count - of.reduce((n, t) => n + t.count, 0);
      return open > 0 ? [{ pieceId: piece.id, expectedMg: (startMg * piece.share.mean * open) / count }] : [];
    }),
  });
}
