/** The thread itself: the kitchen's other requests must not wait for what it does. */
import { AsyncLocalStorage } from 'node:async_hooks';
import { constants, setPriority } from 'node:os';
import { parentPort } from 'node:worker_threads';
import { type Units, unitsComeFrom, usualUnits } from '@zabrik/core';
import type { FromThread, ToThread } from './inThread.ts';
import { tasks } from './tasks.ts';

/** How often it says how far it is. */
const TELL_MS = 200;

// of this thread alone: where the machine has no time for both, a weight comes before a label
setPriority(0, constants.priority.PRIORITY_BELOW_NORMAL);

// each task is written in the units of whoever asked for it
const asked = new AsyncLocalStorage<Units>();
unitsComeFrom(() => asked.getStore() ?? usualUnits);

const say = (message: FromThread, moved: ArrayBuffer[] = []): void => parentPort?.postMessage(message, moved);

parentPort?.on('message', ({ id, task, input, units }: ToThread) => {
  let toldAt = Number.NEGATIVE_INFINITY;
  const told = (done: number): void => {
    if (performance.now() - toldAt < TELL_MS) return;
    toldAt = performance.now();
    say({ id, done });
  };
  const work = tasks[task] as (input: unknown, told: (done: number) => void) => Promise<Uint8Array>;
  asked
    .run(units, () => work(input, told))
    .then(
      (bytes) => {
        // a buffer of its own can be handed over, a view into a shared one is copied
        const own = bytes.byteLength === bytes.buffer.byteLength ? bytes : bytes.slice();
        say({ id, bytes: own }, [own.buffer as ArrayBuffer]);
      },
      (error: unknown) => {
        const code = error instanceof Error && 'code' in error ? String(error.code) : undefined;
        say({ id, failed: { code, message: error instanceof Error ? error.message : String(error) } });
      },
    );
});
