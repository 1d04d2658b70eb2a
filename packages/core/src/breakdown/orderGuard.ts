import type { PlanStage, PlanStep } from './plan.ts';

export interface StepMark {
  readonly step: number;
  /** Late: done, but after what it should have come before. */
  readonly mark: 'done' | 'late' | 'skipped' | 'open';
}

export interface Guarded {
  readonly index: number;
  readonly step: PlanStep;
  readonly warn: string;
}

/**
 * The steps that should have come before this piece and are neither marked done, nor skipped, nor shown done by a weight.
 *
 * A step is shown done once every piece it takes off has been weighed. A step that takes nothing off (a wishbone left on the
 * carcass) has to be marked. The later of two marks on a step counts.
 *
 * Shapes  marks: oldest first. weighed: ids of pieces with a weight. Result: in the order of the plan.
 */
export function guardsBefore(
  stage: PlanStage,
  pieceId: string,
  marks: readonly StepMark[],
  weighed: ReadonlySet<string>,
): Guarded[] {
  const last = new Map(marks.map((m) => [m.step, m.mark]));
  return stage.steps.flatMap((step, index) => {
    if (step.guard === undefined || !step.guard.before.includes(pieceId)) return [];
    const mark = last.get(index);
    if (mark === 'done' || mark === 'late' || mark === 'skipped') return [];
    if (step.pieces.length > 0 && step.pieces.every((id) => weighed.has(id))) return [];
    // the harm is done or not once the guarded piece itself is weighed: no use in warning after it
    if (weighed.has(pieceId)) return [];
    return [{ index, step, warn: step.guard.warn }];
  });
}
