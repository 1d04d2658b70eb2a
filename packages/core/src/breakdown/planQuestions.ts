/** What is asked of a cut plan again and again. */
import { Refusal } from '../refusal.ts';
import type { CutPlan, PlanPiece, PlanStage, PlanStart, Species } from './plan.ts';

/** Whether a plan can start from this species bought in this form. */
export const planStartsFrom = (plan: Pick<CutPlan, 'starts'>, species: string, form: string): boolean =>
  startOf(plan, species, form) !== undefined;

/** How a species bought in a form comes into a plan; undefined where it does not. */
export const startOf = (plan: Pick<CutPlan, 'starts'>, species: string, form: string): PlanStart | undefined =>
  plan.starts.find((start) => start.species === species && start.forms.includes(form));

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

/** Whether an animal bought in this form is cooked through already. A house's own species says so by the name of the form. */
export const isBoughtCooked = (species: Pick<Species, 'forms'>, form: string | null): boolean =>
  form === 'cooked' || species.forms.some((f) => f.id === form && f.cooked === true);

/** The pieces of earlier stages that a stage starts from, in plan order; none for a first stage. */
export const inputsOf = (plan: CutPlan, stageId: string): PlanPiece[] =>
  plan.stages.flatMap((stage) => stage.pieces.filter((piece) => piece.next === stageId));

/** Of a stage that is made of all that goes on to it: what is not there yet, by name. Nothing of a stage that may be made of some. */
export const missingInputs = (plan: CutPlan, stageId: string, here: readonly (string | null)[]): string[] =>
  stageOfPlan(plan, stageId).waitsForAll === true
    ? inputsOf(plan, stageId)
        .filter((piece) => !here.includes(piece.id))
        .map((piece) => shortName(piece.name))
    : [];

/** The first words of a piece's name: "fillet" of "fillet, skin on, pin-boned", "giblets" of "giblets (heart, gizzard, liver)". */
export const shortName = (name: string): string => name.split(/,| \(/)[0] ?? name;
