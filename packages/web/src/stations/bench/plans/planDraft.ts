/** Changes to a cut plan while someone edits it: each gives a new plan, none touches the old. */
import { type CutPlan, type PlanPiece, type PlanStage, type PlanStep, slugOf } from '@zabrik/core';

export const stageChanged = (plan: CutPlan, index: number, change: Partial<PlanStage>): CutPlan => ({
  ...plan,
  stages: plan.stages.map((stage, i) => (i === index ? { ...stage, ...change } : stage)),
});

/** Drops a key whose value is empty: the schema knows an absent field, not an empty one. */
export function withText<T extends object>(item: T, key: keyof T & string, text: string): T {
  const { [key]: _gone, ...rest } = item as Record<string, unknown>;
  return (text.trim() === '' ? rest : { ...rest, [key]: text }) as T;
}

/** A short name for files and addresses, from a title. */
export const idFrom = (title: string): string => slugOf(title).slice(0, 48).replace(/-+$/, '') || 'plan';

/** Sum of the shares of a stage with its drip, for the form the shares are written for. */
export function sumOfShares(plan: CutPlan, stage: PlanStage): number {
  const form = stage.id === plan.stages[0]?.id ? plan.starts[0]?.forms[0] : undefined;
  return stage.pieces
    .filter((p) => form === undefined || p.absentIn?.includes(form) !== true)
    .reduce((sum, p) => sum + p.share.mean, stage.drip.mean);
}

/** Brings the shares of a stage to one: every piece keeps its part of the rest beside the drip. */
export function sharesMadeWhole(plan: CutPlan, stage: PlanStage): PlanStage {
  const pieces = sumOfShares(plan, stage) - stage.drip.mean;
  if (pieces <= 0) return stage;
  const factor = (1 - stage.drip.mean) / pieces;
  return {
    ...stage,
    pieces: stage.pieces.map((p) => ({
      ...p,
      share: { ...p.share, mean: Math.round(p.share.mean * factor * 10_000) / 10_000 },
    })),
  };
}

const own = { provenance: 'estimate', source: 'This house, not yet cut' } as const;

export const newPiece = (ids: readonly string[]): PlanPiece => {
  let n = ids.length + 1;
  while (ids.includes(`piece-${n}`)) n += 1;
  return {
    id: `piece-${n}`,
    name: `piece ${n}`,
    count: 1,
    category: 'white-fish-trim',
    share: { mean: 0.05, sd: 0.01, ...own },
    destination: 'larder',
    alternatives: [],
    refused: [],
    main: false,
    edible: true,
  };
};

export const newStep = (): PlanStep => ({ title: 'Next step', orderMatters: false, pieces: [] });

export const newStage = (ids: readonly string[]): PlanStage => {
  let n = ids.length + 1;
  while (ids.includes(`s${n}`)) n += 1;
  return {
    id: `s${n}`,
    name: `Stage ${n}`,
    minutes: { low: 2, typical: 4, high: 8 },
    drip: { mean: 0.01, sd: 0.005, ...own },
    steps: [{ ...newStep(), pieces: ['piece-1'] }],
    pieces: [{ ...newPiece([]), share: { mean: 0.99, sd: 0.02, ...own }, destination: 'portion', main: true }],
  };
};

/** A step with its warning: it guards what comes off in the steps after it, unless it named pieces before. No words, no guard. */
export function warned(stage: PlanStage, step: PlanStep, warn: string): PlanStep {
  const { guard, ...rest } = step;
  if (warn.trim() === '') return { ...rest, orderMatters: false };
  const later = stage.steps.slice(stage.steps.indexOf(step) + 1).flatMap((s) => s.pieces);
  const before = guard?.before ?? [...new Set(later)].filter((id) => !step.pieces.includes(id));
  return { ...rest, orderMatters: true, guard: { warn, before } };
}

/** A stage without a piece: no step takes it off or warns of it any more. */
export const withoutPiece = (stage: PlanStage, pieceId: string): Pick<PlanStage, 'pieces' | 'steps'> => {
  const others = (ids: readonly string[]): string[] => ids.filter((id) => id !== pieceId);
  return {
    pieces: stage.pieces.filter((p) => p.id !== pieceId),
    steps: stage.steps.map(({ guard, ...step }) => ({
      ...step,
      pieces: others(step.pieces),
      ...(guard === undefined ? {} : { guard: { ...guard, before: others(guard.before) } }),
    })),
  };
};
