/** What is computed on a thread of its own, by name. What a task takes and gives is copied between threads: plain values and bytes, no functions. */
import { type LabelContent, labelWords } from '@zabrik/core';
import { type LabelSize, labelSheet } from '../paper/labelSheet.ts';
import { type Letter, onA4 } from '../paper/letter.ts';

export interface Labels {
  /** Each different label once, and how many of it: of the same length. */
  readonly contents: readonly LabelContent[];
  readonly copies: readonly number[];
  readonly size: LabelSize;
  /** In the words and dates of the United States. */
  readonly american: boolean;
}

/** `told`: how much of it there is by now, in the task's own measure. */
type Task<Input> = (input: Input, told: (done: number) => void) => Promise<Uint8Array>;

const labels: Task<Labels> = ({ contents, copies, size, american }, told) =>
  labelSheet(
    contents.flatMap((content, i) => Array<LabelContent>(copies[i] ?? 1).fill(content)),
    size,
    labelWords(american),
    told,
  );
const letter: Task<Letter> = (input) => onA4(input);

export const tasks = { labels, letter } as const;
export type TaskName = keyof typeof tasks;
export type TaskInput<K extends TaskName> = Parameters<(typeof tasks)[K]>[0];
