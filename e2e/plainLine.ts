import type { Reporter, TestCase, TestResult } from '@playwright/test/reporter';

/** Ends a run with one plain line, 'e2e: N passed, N failed, N skipped', for whoever reads the log. */
export default class PlainLine implements Reporter {
  readonly #last = new Map<string, 'passed' | 'failed' | 'skipped'>();

  onTestEnd(test: TestCase, { status }: TestResult): void {
    this.#last.set(test.id, status === 'passed' || status === 'skipped' ? status : 'failed');
  }

  onExit(): Promise<void> {
    const count = (wanted: string): number => [...this.#last.values()].filter((status) => status === wanted).length;
    process.stdout.write(`e2e: ${count('passed')} passed, ${count('failed')} failed, ${count('skipped')} skipped\n`);
    return Promise.resolve();
  }
}
