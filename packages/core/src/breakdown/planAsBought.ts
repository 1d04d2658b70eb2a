import { Refusal } from '../refusal.ts';
import type { CutPlan, Minutes, PlanPiece, PlanStage, Species } from './plan.ts';
import { inputsOf, stageOfPlan, startOf } from './planQuestions.ts';
import { stageShares } from './stageShares.ts';

/** Of so many pieces that come off one whole animal, as many as come off one of the parts it was bought as. */
const countOf = (count: number, parts: number): number => Math.max(1, Math.round(count / parts));

const minutesOf = ({ low, typical, high }: Minutes, parts: number): Minutes => ({
  low: low / parts,
  typical: typical / parts,
  high: high / parts,
});

/** The stages that what enters at `from` can come to, in the order of the plan. */
function stagesFrom(plan: CutPlan, from: string): readonly PlanStage[] {
  const reached = new Set([from]);
  for (const stage of plan.stages)
    if (reached.has(stage.id)) for (const { next } of stage.pieces) if (next !== undefined) reached.add(next);
  return plan.stages.filter((s) => reached.has(s.id));
}

/** How many of the form enter the stage from one animal: two sides, four loins. */
function partsOf(plan: CutPlan, stageId: string, form: string): number {
  const inputs = inputsOf(plan, stageId);
  const own = inputs.filter((p) => p.yieldForm === form || p.becomes === form);
  return (own.length > 0 ? own : inputs).reduce((sum, p) => sum + p.count, 0);
}

const perPart = (piece: PlanPiece, parts: number): PlanPiece => {
  const { units, ...rest } = piece;
  const count = countOf(piece.count, parts);
  return { ...rest, count, ...(units === undefined || count === 1 ? {} : { units: units.slice(0, count) }) };
};

/**
 * A plan as it is worked on what was bought: it begins where the form enters it, its counts and minutes are those of one of what came (one
 * side, not the two of a fish), pieces that the form arrives without are gone, and the shares of the stage it begins with are those of the
 * species and form.
 *
 * Shapes  result: the stages from the one entered on that can be come to, in plan order; `starts` unchanged.
 * Keeps   the shares of every stage and its drip add up to 1.
 * Errors  `no_such_form`: the plan does not start from this form. `no_such_stage`: it starts at a stage that it does not have.
 *
 * @example side-block-for-pastry, salmon, `side-skin-on`, entering at s2 -> stages s2 and s3; one skin, not two
 */
export function planAsBought(plan: CutPlan, species: Species, form: string): CutPlan {
  const start = startOf(plan, species.id, form);
  if (start === undefined) throw new Refusal('no_such_form', { plan: plan.id, form });
  const first = stageOfPlan(plan, start.at);
  const parts = start.at === undefined ? 1 : partsOf(plan, first.id, form);
  const stages = stagesFrom(plan, first.id).map((stage): PlanStage => {
    const { rest, ...unrested } = stage;
    const counted = {
      ...(stage.id === first.id ? unrested : stage),
      minutes: minutesOf(stage.minutes, parts),
      pieces: stage.pieces.map((piece) => perPart(piece, parts)),
    };
    if (stage.id !== first.id) return counted;
    const shares = stageShares(plan, stage, species, form);
    const shareOf = new Map(shares.pieces.map((s) => [s.pieceId, s]));
    const here = (id: string): boolean => shareOf.has(id);
    return {
      ...counted,
      steps: stage.steps
        .filter((step) => step.pieces.length === 0 || step.pieces.some(here))
        .map(({ guard, ...step }) => {
          const before = guard?.before.filter(here) ?? [];
          return {
            ...step,
            ...(guard === undefined || before.length === 0 ? {} : { guard: { ...guard, before } }),
            pieces: step.pieces.filter(here),
          };
        }),
      pieces: counted.pieces.flatMap((piece) => {
        const own = shareOf.get(piece.id);
        return own === undefined ? [] : [{ ...piece, share: { ...piece.share, mean: own.mean, sd: own.sd } }];
      }),
      drip: { ...stage.drip, ...shares.drip },
    };
  });
  return { ...plan, stages };
}
