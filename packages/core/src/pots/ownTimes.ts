import { alikeInSize, type MinutesRange, type TimedStep } from '../timing/minutesBySize.ts';

/** What a step took here the last times: the middle of them. */
export interface OwnTime {
  readonly step: number;
  readonly minutes: number;
  readonly batches: number;
}

/** What is said of steps and their timers, at the stove or at the bench. */
export interface SaidOfSteps {
  readonly at: string;
  readonly body: { readonly kind: string };
}
type OfStep =
  | { readonly kind: 'timer'; readonly step: number | null }
  | { readonly kind: 'step'; readonly step: number; readonly skipped?: boolean; readonly mark?: string };

/** So many batches say something; one alone may have been a busy Friday. */
const ENOUGH = 2;

/**
 * What each timed step took: from when its timer was first set to when the step was said to be done.
 *
 * Shapes  standing: what was said and not taken back, in order. Result: minutes by step; left-out steps, and those without a timer, are not in it.
 */
export function stepMinutes(standing: readonly SaidOfSteps[]): ReadonlyMap<number, number> {
  const from = new Map<number, number>();
  const took = new Map<number, number>();
  for (const said of standing) {
    const body = said.body as OfStep;
    const at = Date.parse(said.at);
    if (body.kind === 'timer' && body.step !== null && !from.has(body.step)) from.set(body.step, at);
    if (body.kind !== 'step') continue;
    // at the bench a step that was done may be said to be open again
    const done = body.skipped !== true && body.mark !== 'skipped' && body.mark !== 'open';
    const since = from.get(body.step);
    if (!done) took.delete(body.step);
    else if (since !== undefined && at > since) took.set(body.step, (at - since) / 60_000);
  }
  return took;
}

/** The words of a step: of a plan its title, of a recipe its kind and text. */
export interface NamedStep extends TimedStep {
  readonly title?: string;
  readonly kind?: string;
  readonly text?: string;
}
const nameOf = (step: NamedStep): string => step.title ?? `${step.kind} ${step.text}`;

/** Something that was made or worked before: its own steps, what was said of them, and the mass of one piece where that is known. */
export interface WorkedBefore {
  readonly steps: readonly NamedStep[];
  readonly standing: readonly SaidOfSteps[];
  readonly pieceMg?: number | undefined;
}

const middle = (sorted: readonly number[]): number => {
  const half = Math.floor(sorted.length / 2);
  const upper = sorted[half] ?? 0;
  return sorted.length % 2 === 1 ? upper : ((sorted[half - 1] ?? upper) + upper) / 2;
};

/**
 * What this house took for the steps of a recipe, or of a stage on the bench: the middle of what each took, where two times or more have it.
 *
 * Shapes  earlier: the last ones, each with its own steps. A step counts as the same while its words are: another version may have moved it, or
 *         changed what it is. Where size decides, only pieces within a quarter of this one's mass count.
 * Units   minutes, to whole seconds; milligrams.
 */
export function ownTimes(
  steps: readonly NamedStep[],
  earlier: readonly WorkedBefore[],
  pieceMg?: number | undefined,
): OwnTime[] {
  const sized = new Set(steps.flatMap((step) => (step.bySize === undefined ? [] : [nameOf(step)])));
  const seen = new Map<string, number[]>();
  for (const before of earlier)
    for (const [i, minutes] of stepMinutes(before.standing)) {
      const step = before.steps[i];
      if (step === undefined || (sized.has(nameOf(step)) && !alikeInSize(before.pieceMg, pieceMg))) continue;
      seen.set(nameOf(step), [...(seen.get(nameOf(step)) ?? []), minutes]);
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
export const minutesOffered = (
  step: { readonly tempC?: unknown; readonly holds?: boolean },
  book: MinutesRange | undefined,
  own: OwnTime | undefined,
): number =>
  own === undefined
    ? (book?.typical ?? 0)
    : step.tempC === undefined && step.holds !== true
      ? own.minutes
      : Math.max(own.minutes, book?.low ?? 0);
