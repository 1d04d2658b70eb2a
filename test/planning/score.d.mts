import type { PlanProblem, WeekPlan } from '@zabrik/core/planning';

/** The independent scorer of the public instances. */
export function scorePlanner(
  instance: PlanProblem,
  answer: WeekPlan,
): { readonly feasible: boolean; readonly objective: number; readonly errors: readonly string[] };
