/** What is asked of a cut plan again and again. */
import { Refusal } from '../refusal.ts';
import type { CutPlan, PlanPiece, PlanStage } from './plan.ts';

/** Whether a plan can start from this species bought in this form. */
export const planStartsFrom = (plan: Pick<CutPlan, 'starts'>, species: string, form: string): boolean =>
  plan.starts.some((start) => start.species === species && start.forms.includes(form));

/**
 * The first stage of a plan, or the one asked for.
 *
 * Errors  `no_such_stage`.
 */
export function stageOfPlan(plan: CutPlan, stageId?: string): PlanStage {
  const stage = stageId === undefined ? plan.stages[0] : plan.stages.find((s) => s.id === stageId);
  if (stage === undefined) throw new Refusal('no_such_stage', { plan: plan.id, stage: stageId ?? 'first' });
  return stage;
}

/** The pieces of earlier stages that a stage starts from, in plan order; none for a first stage. */
export const inputsOf = (plan: CutPlan, stageId: string): PlanPiece[] =>
  plan.stages.flatMap((stage) => stage.pieces.filter((piece) => piece.next === stageId));

/** The first words of a piece's name: "fillet" of "fillet, skin on, pin-boned", "giblets" of "giblets (heart, gizzard, liver)". */
export const shortName = (name: string): string => name.split(/,| \(/)[0] ?? name;
