import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Worker } from 'node:worker_threads';
import { type LabelContent, Refusal } from '@zabrik/core';
import type { LabelSize } from './labelSheet.ts';

/** What a drawing thread is asked: each different label once, and how many of it. */
export interface Drawing {
  readonly id: number;
  readonly contents: readonly LabelContent[];
  readonly copies: readonly number[];
  readonly size: LabelSize;
  /** In the words and dates of the United States. */
  readonly american: boolean;
}

export type Drawn =
  | { readonly id: number; readonly labels: number }
  | { readonly id: number; readonly pdf: Uint8Array }
  | { readonly id: number; readonly failed: { readonly code: string | undefined; readonly message: string } };

interface Asked {
  readonly done: (pdf: Uint8Array) => void;
  readonly failed: (error: Error) => void;
  readonly drawn: (labels: number) => void;
}

// from its source the thread needs what reads TypeScript; built, it lies beside the program that was started
const here = fileURLToPath(import.meta.url);
const fromSource = here.endsWith('.ts');
const begin = (): Worker =>
  fromSource
    ? new Worker(
        `import('tsx/esm/api').then(({ tsImport }) => tsImport('./labelWorker.ts', ${JSON.stringify(import.meta.url)}))`,
        { eval: true },
      )
    : new Worker(join(dirname(process.argv[1] ?? here), 'labelWorker.js'));

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
  now.on('message', (drawn: Drawn) => {
    const waiting = asked.get(drawn.id);
    if ('labels' in drawn) {
      waiting?.drawn(drawn.labels);
      return;
    }
    asked.delete(drawn.id);
    if (asked.size === 0) now.unref();
    if ('pdf' in drawn) waiting?.done(drawn.pdf);
    else
      waiting?.failed(
        drawn.failed.code === 'label_too_small' ? new Refusal('label_too_small') : new Error(drawn.failed.message),
      );
  });
  now.once('error', giveUp);
  now.once('exit', () => giveUp(new Error('the drawing thread ended')));
  worker = now;
  return now;
};

/**
 * Draws labels as a PDF on a thread of their own, one job after the other, so that a scale, a weight and a screen do not wait for them.
 *
 * Shapes  contents and copies: of the same length, a label and how many of it. `drawn` is told now and then how many labels there are by now.
 * Errors  `label_too_small`, as labelSheet.
 */
export function drawLabels(
  contents: readonly LabelContent[],
  copies: readonly number[],
  size: LabelSize,
  american: boolean,
  drawn: (labels: number) => void = () => undefined,
): Promise<Uint8Array> {
  return new Promise((done, failed) => {
    const now = thread();
    last += 1;
    asked.set(last, { done, failed, drawn });
    now.ref();
    now.postMessage({ id: last, contents, copies, size, american } satisfies Drawing);
  });
}
