import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Worker } from 'node:worker_threads';
import { Refusal, type RefusalCode, type Units, unitsNow } from '@zabrik/core';
import type { TaskInput, TaskName } from './tasks.ts';

export interface ToThread {
  readonly id: number;
  readonly task: TaskName;
  readonly input: unknown;
  readonly units: Units;
}

export type FromThread =
  | { readonly id: number; readonly done: number }
  | { readonly id: number; readonly bytes: Uint8Array }
  | { readonly id: number; readonly failed: { readonly code: string | undefined; readonly message: string } };

interface Asked {
  readonly message: ToThread;
  readonly given: (bytes: Uint8Array) => void;
  readonly failed: (error: Error) => void;
  readonly told: (done: number) => void;
}

// from its source the thread needs what reads TypeScript; built, it lies beside the program that was started
const here = fileURLToPath(import.meta.url);
const begin = (): Worker =>
  here.endsWith('.ts')
    ? new Worker(
        `import('tsx/esm/api').then(({ tsImport }) => tsImport('./thread.ts', ${JSON.stringify(import.meta.url)}))`,
        { eval: true },
      )
    : new Worker(join(dirname(process.argv[1] ?? here), 'thread.js'));

/** The one refusal that a task has. */
const LABEL_TOO_SMALL: RefusalCode = 'label_too_small';

let worker: Worker | undefined;
let last = 0;
const asked = new Map<number, Asked>();

const giveUp = (error: Error): void => {
  worker = undefined;
  for (const { failed } of asked.values()) failed(error);
  asked.clear();
};

const thread = (): Worker => {
  if (worker !== undefined) return worker;
  const now = begin();
  now.on('message', (message: FromThread) => {
    const waiting = asked.get(message.id);
    if ('done' in message) {
      waiting?.told(message.done);
      return;
    }
    asked.delete(message.id);
    if (asked.size === 0) now.unref();
    if ('bytes' in message) waiting?.given(message.bytes);
    else {
      const { code, message: words } = message.failed;
      waiting?.failed(code === LABEL_TOO_SMALL ? new Refusal(code) : new Error(words));
    }
  });
  const end = (error: Error): void => {
    if (worker === now) giveUp(error);
  };
  now.once('error', end);
  now.once('exit', () => end(new Error('the thread ended')));
  worker = now;
  return now;
};

/** Ends what the thread is at, and begins again what others wait for. */
function callOff(id: number): void {
  if (!asked.delete(id)) return;
  const stopped = worker;
  worker = undefined;
  void stopped?.terminate();
  for (const { message } of asked.values()) send(message);
}

function send(message: ToThread): void {
  const now = thread();
  now.ref();
  now.postMessage(message);
}

/**
 * Computes on a thread of its own, one thing after the other, so that a scale, a weight and a screen do not wait for it. A job hands its `signal` on.
 *
 * Shapes  task: a name of `tasks`. told: how far it is now and then, from the first, in the task's own measure.
 * Errors  what the task refuses (`label_too_small`); the signal's reason once it is called off; an Error for what broke.
 */
export function inThread<K extends TaskName>(
  task: K,
  input: TaskInput<K>,
  { told = () => undefined, signal }: { readonly told?: (done: number) => void; readonly signal?: AbortSignal } = {},
): Promise<Uint8Array> {
  return new Promise((given, failed) => {
    if (signal?.aborted === true) {
      failed(signal.reason as Error);
      return;
    }
    last += 1;
    const message: ToThread = { id: last, task, input, units: unitsNow() };
    const stop = (): void => {
      callOff(message.id);
      failed(signal?.reason as Error);
    };
    const over = <A>(then: (a: A) => void) => {
      return (a: A): void => {
        signal?.removeEventListener('abort', stop);
        then(a);
      };
    };
    signal?.addEventListener('abort', stop, { once: true });
    asked.set(message.id, { message, given: over(given), failed: over(failed), told });
    send(message);
  });
}
