/** What is said of a timer, where it is said: at the stove or at the bench. */
export type TimerSaid =
  | {
      readonly kind: 'timer';
      readonly step: number | null;
      readonly label: string;
      readonly dueAt: string;
      /** The one that rings later or sooner by this; taken back, that one runs again. */
      readonly replaces?: string | undefined;
    }
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
  const off = new Set(
    bodies.flatMap(({ body }) =>
      body.kind === 'timer-off' ? [body.timerId] : body.kind === 'timer' ? (body.replaces ?? []) : [],
    ),
  );
  // one that was changed has run since it was first set
  const startedAt = new Map<string, string>();
  for (const { id, at, body } of bodies)
    if (body.kind === 'timer') startedAt.set(id, startedAt.get(body.replaces ?? '') ?? at);
  return bodies
    .flatMap(({ id, body }): RunningTimer[] =>
      body.kind === 'timer' && !off.has(id) && !(body.step !== null && done.has(body.step))
        ? [{ id, label: body.label, step: body.step, startedAt: startedAt.get(id) ?? '', dueAt: body.dueAt }]
        : [],
    )
    .sort((a, b) => a.dueAt.localeCompare(b.dueAt));
}

/** How far one touch moves a timer, minutes: five seconds in a blanch, a minute in a rest, a quarter of an hour in a stock. */
export const timerStep = (minutes: number): number =>
  minutes < 1 ? 1 / 12 : minutes < 30 ? 1 : minutes < 120 ? 5 : 15;

/**
 * When a timer rings that is moved by so many minutes. One that is over goes on from now; none rings before now.
 *
 * Units  by: minutes, below nothing for sooner. nowMs: the server's clock.
 */
export function movedDue(dueAt: string, by: number, nowMs: number): string {
  const due = Date.parse(dueAt);
  return new Date(Math.max(nowMs, (by > 0 ? Math.max(nowMs, due) : due) + Math.round(by * 60_000))).toISOString();
}
