import { readFileSync } from 'node:fs';
import type { Reporter, TestCase, TestResult } from '@playwright/test/reporter';

/** What stood on the page when a walk failed, so many lines of it. */
const MOST_LINES = 150;

/**
 * Says of a walk that failed what stood on its page, where pictures are not kept; ends a run with one plain line, 'e2e: N passed, N failed, N skipped', for
 * whoever reads the log.
 */
export default class PlainLine implements Reporter {
  readonly #last = new Map<string, 'passed' | 'failed' | 'skipped'>();

  onTestEnd(test: TestCase, { status, attachments }: TestResult): void {
    this.#last.set(test.id, status === 'passed' || status === 'skipped' ? status : 'failed');
    const path = attachments.find((a) => a.name === 'error-context')?.path;
    if (path === undefined) return;
    const page = readFileSync(path, 'utf8').split('# Page snapshot')[1] ?? '';
    const words = page.split('\n').filter((line) => !/\/url:|^\s*$|```/.test(line));
    process.stdout.write(`${test.title}: on the page\n${words.slice(0, MOST_LINES).join('\n')}\n`);
  }

  onExit(): Promise<void> {
    const count = (wanted: string): number => [...this.#last.values()].filter((status) => status === wanted).length;
    process.stdout.write(`e2e: ${count('passed')} passed, ${count('failed')} failed, ${count('skipped')} skipped\n`);
    return Promise.resolve();
  }
}
