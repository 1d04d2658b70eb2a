/** What is said of a timer, where it is said: at the stove or at the bench. */
export type TimerSaid =
  | { readonly kind: 'timer'; readonly step: number | null; readonly label: string; readonly dueAt: string }
  | { readonly kind: 'timer-off'; readonly timerId: string };

export interface RunningTimer {
  readonly id: string;
  readonly label: string;
  /** The step it is of, by its place in the list; null for none. */
  readonly step: number | null;
  readonly startedAt: string;
  readonly dueAt: string;
}

/**
 * Timers that nobody has stopped, the first to ring first. One of a step stops when the step is done.
 *
 * Shapes  said: in the order it was written, with other things between; done: steps that are.
 */
export function runningTimers(
  said: readonly { readonly id: string; readonly at: string; readonly body: { readonly kind: string } }[],
  done: { readonly has: (step: number) => boolean },
): RunningTimer[] {
  const bodies = said.map(({ id, at, body }) => ({ id, at, body: body as TimerSaid }));
  const off = new Set(bodies.flatMap(({ body }) => (body.kind === 'timer-off' ? [body.timerId] : [])));
  return bodies
    .flatMap(({ id, at, body }): RunningTimer[] =>
      body.kind === 'timer' && !off.has(id) && !(body.step !== null && done.has(body.step))
        ? [{ id, label: body.label, step: body.step, startedAt: at, dueAt: body.dueAt }]
        : [],
    )
    .sort((a, b) => a.dueAt.localeCompare(b.dueAt));
}
