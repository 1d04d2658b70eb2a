import type { BatchEvent } from './batchState.ts';
import type { RecipeStep } from './recipe.ts';

/** What a step took in this house's last batches: the middle of them. */
export interface OwnTime {
  readonly step: number;
  readonly minutes: number;
  readonly batches: number;
}

/** So many batches say something; one alone may have been a busy Friday. */
const ENOUGH = 2;

/**
 * What each timed step of a batch took: from when its timer was first set to when the step was said to be done.
 *
 * Shapes  standing: what was said and not taken back, in order. Result: minutes by step; left-out steps, and those without a timer, are not in it.
 */
export function stepMinutes(standing: readonly Pick<BatchEvent, 'at' | 'body'>[]): ReadonlyMap<number, number> {
  const from = new Map<number, number>();
  const took = new Map<number, number>();
  for (const { at, body } of standing) {
    if (body.kind === 'timer' && body.step !== null && !from.has(body.step)) from.set(body.step, Date.parse(at));
    const since = body.kind === 'step' && !body.skipped ? from.get(body.step) : undefined;
    if (body.kind === 'step' && since !== undefined && Date.parse(at) > since)
      took.set(body.step, (Date.parse(at) - since) / 60_000);
  }
  return took;
}

const nameOf = (step: RecipeStep): string => `${step.kind} ${step.text}`;

const middle = (sorted: readonly number[]): number => {
  const half = Math.floor(sorted.length / 2);
  const upper = sorted[half] ?? 0;
  return sorted.length % 2 === 1 ? upper : ((sorted[half - 1] ?? upper) + upper) / 2;
};

/**
 * What this house's batches say of the steps of a recipe: the middle of what each took, where two batches or more have it.
 *
 * Shapes  earlier: the last batches of the recipe, each with its own steps. A step counts as the same while its words are: another version of
 *         the recipe may have moved it, or changed what it is.
 * Units   minutes, to whole seconds.
 */
export function ownTimes(
  steps: readonly RecipeStep[],
  earlier: readonly {
    readonly steps: readonly RecipeStep[];
    readonly standing: readonly Pick<BatchEvent, 'at' | 'body'>[];
  }[],
): OwnTime[] {
  const seen = new Map<string, number[]>();
  for (const batch of earlier)
    for (const [i, minutes] of stepMinutes(batch.standing)) {
      const step = batch.steps[i];
      if (step !== undefined) seen.set(nameOf(step), [...(seen.get(nameOf(step)) ?? []), minutes]);
    }
  return steps.flatMap((step, i): OwnTime[] => {
    const took = (seen.get(nameOf(step)) ?? []).toSorted((a, b) => a - b);
    return step.minutes === undefined || took.length < ENOUGH
      ? []
      : [{ step: i, minutes: Math.round(middle(took) * 60) / 60, batches: took.length }];
  });
}

/**
 * The minutes a timer is set to unless somebody says otherwise: the house's own, or the book's. A step that holds a temperature is not made
 * shorter than the book's least, however short it was made before.
 */
export const minutesOffered = (step: RecipeStep, own: OwnTime | undefined): number =>
  own === undefined
    ? (step.minutes?.typical ?? 0)
    : step.tempC === undefined
      ? own.minutes
      : Math.max(own.minutes, step.minutes?.low ?? 0);
