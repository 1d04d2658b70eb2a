import type { QueryClient } from '@tanstack/react-query';
import type { Batch, BenchEvent, Breakdown, Cooling, EndpointId, WeighBody, Weighing } from '@zabrik/contract';
import type { Waiting } from './outbox.ts';
import { weighingsOf } from './weighingsOf.ts';

interface Logs {
  readonly open: readonly Cooling[];
  readonly closed: readonly Cooling[];
}

type Take = (client: QueryClient, waiting: Waiting, answer: unknown) => void;

/** The weight as the server has it, and the other one of two that go together. */
const bothOf = ({ key, body }: Waiting, answer: Weighing): Weighing[] =>
  weighingsOf(key, body as WeighBody, answer.by).map((w) => (w.id === answer.id ? answer : { ...w, at: answer.at }));

/** Puts what was written behind what stands in one read, and asks for the whole anew. */
const behind =
  (
    subject: 'breakdowns' | 'cuttings' | 'batches',
    list: 'weighings' | 'events',
    entries: (waiting: Waiting, answer: unknown) => readonly unknown[],
  ): Take =>
  (client, waiting, answer) => {
    const { about, key } = waiting;
    client.setQueryData<Pick<Breakdown, 'weighings' | 'events'>>([subject, 'one', about], (before) =>
      before === undefined || before[list].some((w) => w.id === key)
        ? before
        : { ...before, [list]: [...before[list], ...entries(waiting, answer)] },
    );
    void client.invalidateQueries({ queryKey: [subject, 'one', about] });
  };

const event = (subject: 'breakdowns' | 'cuttings' | 'batches'): Take =>
  behind(subject, 'events', (_waiting, answer) => [answer as BenchEvent]);

const readAgain =
  (...keys: readonly string[]): Take =>
  (client) => {
    for (const key of keys) void client.invalidateQueries({ queryKey: [key] });
  };

const intoLogs: Take = (client, _waiting, answer) => {
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
  void client.invalidateQueries({ queryKey: ['coolings'] });
};

/** What is done with an answer. Commands that are not here change what the server tells every screen to read anew. */
const takers: Partial<Readonly<Record<EndpointId, Take>>> = {
  'bench.weigh': behind('breakdowns', 'weighings', (waiting, answer) => bothOf(waiting, answer as Weighing)),
  'bench.event': event('breakdowns'),
  'bench.close': readAgain('breakdowns', 'lots'),
  'cutting.start': (client, { about }) => void client.invalidateQueries({ queryKey: ['cuttings', 'one', about] }),
  'cutting.event': event('cuttings'),
  'cutting.close': readAgain('cuttings', 'lots'),
  'larder.takeOut': readAgain('lots'),
  'larder.keep': readAgain('lots'),
  'larder.undoKeep': readAgain('lots'),
  'pots.plan': readAgain('batches'),
  'pots.event': (client, waiting, answer) => {
    event('batches')(client, waiting, answer);
    void client.invalidateQueries({ queryKey: ['batches', 'timers'] });
  },
  'pots.finish': (client, { about }, answer) => {
    client.setQueryData<Batch>(['batches', 'one', about], (before) =>
      before === undefined ? before : { ...before, ...(answer as Batch) },
    );
    void client.invalidateQueries({ queryKey: ['batches'] });
    void client.invalidateQueries({ queryKey: ['lots'] });
  },
  'pots.startCooling': intoLogs,
  'pots.readCooling': intoLogs,
  'pots.closeCooling': readAgain('coolings', 'lots'),
};

/**
 * What the server answered to a command of the outbox goes into what is on the screen before the command leaves the outbox: the ribbon
 * never blinks, a log or a batch that was begun without network stays where it stands.
 */
export function takeAnswer(client: QueryClient, waiting: Waiting, answer: unknown): void {
  takers[waiting.endpoint]?.(client, waiting, answer);
}
