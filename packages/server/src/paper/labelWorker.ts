/** The thread that draws labels: the kitchen's other requests must not wait for it. */
import { constants, setPriority } from 'node:os';
import { parentPort } from 'node:worker_threads';
import { labelWords } from '@zabrik/core';
import type { Drawing, Drawn } from './drawLabels.ts';
import { labelSheet } from './labelSheet.ts';

/** How often it says how far it is. */
const TELL_MS = 200;

// of this thread alone: where the machine has no time for both, a weight comes before a label
setPriority(0, constants.priority.PRIORITY_BELOW_NORMAL);

parentPort?.on('message', ({ id, contents, copies, size, american }: Drawing) => {
  const all = contents.flatMap((content, i) => Array<typeof content>(copies[i] ?? 1).fill(content));
  let toldAt = Number.NEGATIVE_INFINITY;
  const drawn = (labels: number): void => {
    if (performance.now() - toldAt < TELL_MS) return;
    toldAt = performance.now();
    parentPort?.postMessage({ id, labels } satisfies Drawn);
  };
  labelSheet(all, size, labelWords(american), drawn).then(
    (pdf) => parentPort?.postMessage({ id, pdf } satisfies Drawn, [pdf.buffer as ArrayBuffer]),
    (error: unknown) => {
      const code = error instanceof Error && 'code' in error ? String(error.code) : undefined;
      const message = error instanceof Error ? error.message : String(error);
      parentPort?.postMessage({ id, failed: { code, message } } satisfies Drawn);
    },
  );
});
