/** Screens that have kept a command and wait for what comes of it. */
import type { Answer, Endpoint } from '@zabrik/contract';
import type { Refused } from './api.ts';

/** What came of a command: its answer, or that it waits on this tablet. */
export type Outcome<E extends Endpoint> =
  | { readonly kept: false; readonly answer: Answer<E> }
  | { readonly kept: true };

/** What the tab that sends says to the others: the answer to one command, or only that something has changed. */
export type Told = { readonly key: string; readonly answer: unknown } | null;

interface Asker {
  /** Whether somebody still looks at the screen that asked. */
  readonly isThere: () => boolean;
  readonly answered: (answer: unknown) => void;
  readonly refused: (why: Refused) => void;
  readonly kept: () => void;
}

/** By the key of the command. */
export const asked = new Map<string, Asker>();

/** Longer than one request may take: then the screen goes on, and the command waits. */
const PATIENCE_MS = 20_000;

/** This device's disk took nothing. */
export class NotKept extends Error {
  constructor() {
    super('This tablet could not keep it, and nothing was sent.');
    this.name = 'NotKept';
  }
}

/** Nothing more can be sent just now: whoever waits for an answer is told that it is kept. */
export function tellAllKept(): void {
  for (const { kept } of [...asked.values()]) kept();
}

/** Waits for what comes of a command. `keep` writes it down; `onItsWay`: it is not on the disk yet, and its turn is still to come. */
export const askNow = <E extends Endpoint>(
  key: string,
  isThere: () => boolean,
  onItsWay: () => boolean,
  keep: () => Promise<boolean>,
): Promise<Outcome<E>> =>
  new Promise((resolve, reject) => {
    const impatient = setTimeout(() => asked.get(key)?.kept(), PATIENCE_MS);
    const leave = (): void => {
      clearTimeout(impatient);
      asked.delete(key);
    };
    asked.set(key, {
      isThere,
      answered: (answer) => {
        leave();
        resolve({ kept: false, answer: answer as Answer<E> });
      },
      refused: (why) => {
        leave();
        reject(why);
      },
      kept: () => {
        if (onItsWay()) return;
        leave();
        resolve({ kept: true });
      },
    });
    void keep().then((onDisk) => {
      if (onDisk) return;
      leave();
      reject(new NotKept());
    });
  });
