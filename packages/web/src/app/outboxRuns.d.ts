/**
 * Randomised runs of the outbox against a network that fails in every way it can: before the server, after it, with 503, for a
 * while, and with the page reloaded in the middle. Used by the test in a short form and by the benchmark in a long one.
 */
import type { Random } from '@zabrik/core/twin';

type Outbox = typeof import('./outbox.ts');
export interface RunResult {
  /** Commands the server has applied, in the order it first saw them. */
  readonly applied: readonly string[];
  /** Commands kept, in the order they were made. */
  readonly kept: readonly string[];
  /** How often the server got a command it already had. */
  readonly repeats: number;
}
interface Settings {
  readonly random: Random;
  readonly commands: number;
  /** A fresh instance of the module over the same database: what a reload is. */
  readonly open: () => Promise<Outbox>;
  readonly sleep: (ms: number) => Promise<void>;
  readonly patienceMs: number;
}
/** One run: keeps commands at random moments over a random network, then lets the network come back and waits for the end. */
export declare function outboxRun({ random, commands, open, sleep, patienceMs }: Settings): Promise<RunResult>;
//# sourceMappingURL=outboxRuns.d.ts.map
