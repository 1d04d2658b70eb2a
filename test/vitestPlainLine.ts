import type { Reporter, TestModule } from 'vitest/node';

/** Ends a run with one plain line, 'unit: N passed, N failed, N skipped', for whoever reads the log. */
export class PlainLine implements Reporter {
  onTestRunEnd(modules: readonly TestModule[]): void {
    const counts = { passed: 0, failed: 0, skipped: 0, pending: 0 };
    for (const module of modules) {
      for (const test of module.children.allTests()) counts[test.result().state] += 1;
      if (module.errors().length > 0) counts.failed += 1;
    }
    process.stdout.write(
      `unit: ${counts.passed} passed, ${counts.failed} failed, ${counts.skipped + counts.pending} skipped\n`,
    );
  }
}
