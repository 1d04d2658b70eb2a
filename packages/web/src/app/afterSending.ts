import type { QueryClient } from '@tanstack/react-query';
import type { BenchEvent, Breakdown, Cooling, Run, WeighBody, Weighing } from '@zabrik/contract';
import type { Waiting } from './outbox.ts';
import { weighingsOf } from './weighingsOf.ts';

interface Logs {
  readonly open: readonly Cooling[];
  readonly closed: readonly Cooling[];
}

/** The weight as the server has it, and the other one of two that go together. */
const bothOf = ({ key, body }: Waiting, answer: Weighing): Weighing[] =>
  weighingsOf(key, body as WeighBody, answer.by).map((w) => (w.id === answer.id ? answer : { ...w, at: answer.at }));

/**
 * What the server answered to a command of the outbox goes into what is on the screen before the command leaves the outbox: the ribbon
 * never blinks, a log or a batch that was begun without network stays where it stands.
 */
export function takeAnswer(client: QueryClient, waiting: Waiting, answer: unknown): void {
  const { url, about, key } = waiting;
  const again = (queryKey: readonly string[]): void => void client.invalidateQueries({ queryKey });
  if (url.includes('/coolings')) {
    const now = answer as Cooling;
    client.setQueryData<Logs>(['coolings', 'list'], (before) =>
      before === undefined
        ? before
        : {
            ...before,
            open: before.open.some((c) => c.id === now.id)
              ? before.open.map((c) => (c.id === now.id ? now : c))
              : [...before.open, now],
          },
    );
    again(['coolings']);
    return;
  }
  if (url.endsWith('/finish')) {
    client.setQueryData<Run>(['runs', 'one', about], (before) =>
      before === undefined ? before : { ...before, ...(answer as Run) },
    );
    again(['runs']);
    again(['lots']);
    return;
  }
  const list = url.endsWith('/events') ? 'events' : 'weighings';
  const kind = (['cuttings', 'runs'] as const).find((k) => url.includes(`/${k}`)) ?? 'breakdowns';
  if (kind === 'breakdowns' || list === 'events')
    client.setQueryData<Pick<Breakdown, 'weighings' | 'events'>>([kind, 'one', about], (before) =>
      before === undefined || before[list].some((w) => w.id === key)
        ? before
        : {
            ...before,
            [list]: [
              ...before[list],
              ...(list === 'events' ? [answer as BenchEvent] : bothOf(waiting, answer as Weighing)),
            ],
          },
    );
  again([kind, 'one', about]);
  if (kind === 'runs') again(['runs', 'timers']);
}
