import { useMutation } from '@tanstack/react-query';
import type { Answer, Ask, Endpoint, Progress } from '@zabrik/contract';
import { useEffect, useRef } from 'react';
import { call } from './api.ts';
import { NotKept, type Outcome } from './asked.ts';
import { intentOf, openKeyOf } from './intents.ts';
import { keepAndAsk, type Spoken } from './outbox.ts';
import { useProgress } from './progress.ts';

/** What a screen does once something came of a command. */
interface Afterwards<E extends Endpoint> {
  readonly onDone?: (answer: Answer<E>, ask: Ask<E>) => void;
  /** It waits on this tablet: what was typed need not be typed again. */
  readonly onKept?: (ask: Ask<E>) => void;
  readonly onFailed?: (error: Error) => void;
}

/** A command that may wait is spoken of on the page of what waits: it says how. */
type Options<E extends Endpoint> = E['command'] extends 'may-wait'
  ? Afterwards<E> & { readonly spoken: (ask: Ask<E>) => Spoken }
  : Omit<Afterwards<E>, 'onKept'>;

interface Sending<E extends Endpoint> {
  readonly asking: Ask<E> | Promise<Ask<E>>;
  readonly sent: (() => void) | undefined;
}

export interface Command<E extends Endpoint> {
  /**
   * What has to be made ready first, as a photograph, comes as a promise: when it fails, the command has failed. `sent`: what the form does once the
   * command is carried out or waits on this tablet, as letting go of what was typed.
   */
  readonly send: (ask: Ask<E> | Promise<Ask<E>>, sent?: () => void) => void;
  readonly pending: boolean;
  /** How far it is, where the server says so. */
  readonly progress: Progress | undefined;
  readonly error: Error | null;
  /** What was sent last, and what its form wanted done once it was. */
  readonly last: Ask<E> | undefined;
  readonly lastSent: (() => void) | undefined;
  readonly answer: Answer<E> | undefined;
  /** What was sent last waits on this tablet. */
  readonly kept: boolean;
  readonly reset: () => void;
}

/**
 * A command of a screen. It has one key until there is a definite answer, over a reload and a lost network: one that may wait is on this
 * tablet's disk before it is sent, and stays there when the server is away; of any other the key belongs to what was meant (`intents.ts`), and
 * pressing again is the same command.
 */
export function useCommand<E extends Endpoint>(
  endpoint: E,
  ...[options]: E['command'] extends 'may-wait' ? [Options<E>] : [Options<E>?]
): Command<E> {
  const { spoken, onDone, onKept, onFailed } = (options ?? {}) as Afterwards<E> & {
    readonly spoken?: (ask: Ask<E>) => Spoken;
  };
  const there = useRef(false);
  useEffect(() => {
    there.current = true;
    return () => {
      there.current = false;
    };
  }, []);
  const { mutate, isPending, error, variables, data, reset } = useMutation({
    mutationFn: async ({ asking }: Sending<E>) => {
      const ask = await asking;
      const answered = async (): Promise<Outcome<E>> => ({ kept: false, answer: await call(endpoint, ask) });
      if (spoken === undefined) return { ask, outcome: await answered() };
      try {
        return { ask, outcome: await keepAndAsk(endpoint, ask, spoken(ask), () => there.current) };
      } catch (refusal) {
        // a tablet that can keep nothing works as long as there is a network
        if (refusal instanceof NotKept) return { ask, outcome: await answered() };
        throw refusal;
      }
    },
    onSuccess: ({ ask, outcome }, { sent }) => {
      sent?.();
      if (outcome.kept) onKept?.(ask);
      else onDone?.(outcome.answer, ask);
    },
    onError: (why) => onFailed?.(why),
  });
  const last = variables?.asking instanceof Promise ? undefined : variables?.asking;
  return {
    send: (asking, sent) => mutate({ asking, sent }),
    pending: isPending,
    progress: useProgress(() => (isPending && last !== undefined ? openKeyOf(intentOf(endpoint.id, last)) : undefined)),
    error,
    last,
    lastSent: variables?.sent,
    answer: data?.outcome.kept === false ? data.outcome.answer : undefined,
    kept: data?.outcome.kept === true,
    reset,
  };
}
