import type { CookedAs, Food } from '../safety/food.ts';
import { type RunningTimer, runningTimers, type TimerSaid } from '../timing/runningTimers.ts';
import type { RecipeStep } from './recipe.ts';

/** What is written down at the stove, one after the other; nothing is ever changed, only taken back. */
export type BatchEventBody =
  | { readonly kind: 'start' }
  | { readonly kind: 'step'; readonly step: number; readonly skipped: boolean }
  | TimerSaid
  | { readonly kind: 'probe'; readonly centiC: number; readonly source: 'probe' | 'typed' }
  | { readonly kind: 'level'; readonly levelMm: number; readonly massMg: number }
  | {
      readonly kind: 'mark';
      readonly vesselId: string;
      readonly burnerId: string | null;
      readonly targetMg: number;
      /** Salt in it, grams in all, and the most a litre may have in the end: it is not boiled down past that. */
      readonly salt?: { readonly grams: number; readonly mostPerLitre: number };
    }
  | { readonly kind: 'add'; readonly ingredientId: string; readonly name: string; readonly massMg: number }
  /** A lot that joins while it is on: so much of it, as base or as the ingredient it is. */
  | { readonly kind: 'join'; readonly lotId: string; readonly name: string; readonly massMg: number }
  /** What is raw in it and how it is cooked, where nobody could tell before. */
  | { readonly kind: 'holds'; readonly foods: readonly Food[]; readonly how: CookedAs }
  | { readonly kind: 'note'; readonly text: string }
  | { readonly kind: 'back'; readonly eventId: string };

export interface BatchEvent {
  readonly id: string;
  readonly at: string;
  readonly by: string;
  readonly body: BatchEventBody;
}

export interface BatchState {
  readonly startedAt: string | undefined;
  /** Steps done or left out, by their place in the list. */
  readonly done: ReadonlyMap<number, { readonly skipped: boolean; readonly at: string; readonly eventId: string }>;
  /** The first step that is neither; undefined when all are. */
  readonly next: number | undefined;
  /** Timers that nobody has stopped, the first to ring first. */
  readonly timers: readonly RunningTimer[];
  readonly probes: readonly { readonly at: string; readonly centiC: number }[];
  readonly levels: readonly {
    readonly id: string;
    readonly at: string;
    readonly levelMm: number;
    readonly massMg: number;
  }[];
  readonly mark: Extract<BatchEventBody, { kind: 'mark' }> | undefined;
  /** Since the mark was set: what its readings are counted from. */
  readonly markedAt: string | undefined;
  /** What a cook said is raw in it; undefined while nobody did. */
  readonly holds: { readonly foods: readonly Food[]; readonly how: CookedAs } | undefined;
  readonly added: readonly { readonly ingredientId: string; readonly name: string; readonly massMg: number }[];
  /** Since the last lot joined: what was read of the core before is not of what joined. */
  readonly joinedAt: string | undefined;
  /** What stands, the latest last: what undo takes back. */
  readonly standing: readonly BatchEvent[];
}

/**
 * Where a batch is, read from what was written down.
 *
 * Shapes  events in the order they were written. A step's timer stops when the step is done.
 */
export function readBatch(steps: readonly RecipeStep[], events: readonly BatchEvent[]): BatchState {
  const taken = new Set(events.flatMap((e) => (e.body.kind === 'back' ? [e.body.eventId] : [])));
  const standing = events.filter((e) => e.body.kind !== 'back' && !taken.has(e.id));
  const done = new Map<number, { skipped: boolean; at: string; eventId: string }>();
  for (const { id, at, body } of standing)
    if (body.kind === 'step') done.set(body.step, { skipped: body.skipped, at, eventId: id });
  const next = steps.findIndex((_, i) => !done.has(i));
  const marked = standing.filter((e) => e.body.kind === 'mark').at(-1);
  return {
    startedAt: standing.find((e) => e.body.kind === 'start')?.at,
    done,
    next: next === -1 ? undefined : next,
    timers: runningTimers(standing, done),
    probes: standing.flatMap(({ at, body }) => (body.kind === 'probe' ? [{ at, centiC: body.centiC }] : [])),
    levels: standing.flatMap(({ id, at, body }) =>
      body.kind === 'level' ? [{ id, at, levelMm: body.levelMm, massMg: body.massMg }] : [],
    ),
    mark: marked?.body.kind === 'mark' ? marked.body : undefined,
    markedAt: marked?.at,
    holds: standing.flatMap(({ body }) => (body.kind === 'holds' ? [body] : [])).at(-1),
    added: standing.flatMap(({ body }) =>
      body.kind === 'add' ? [{ ingredientId: body.ingredientId, name: body.name, massMg: body.massMg }] : [],
    ),
    joinedAt: standing.findLast((e) => e.body.kind === 'join')?.at,
    standing,
  };
}
