import { availableParallelism } from 'node:os';
import { defineConfig } from 'vitest/config';
import { PlainLine } from './test/vitestPlainLine.ts';

/** Longer than anything takes on a machine at a quarter of its speed with others at work beside: only what hangs meets it. */
const SLOW_MACHINE_MS = 600_000;
/** What is asked for again and again until it is so: an event, not a time, ends it. */
const POLLED_MS = 60_000;

export default defineConfig({
  test: {
    // both cores of the usual machine: left to itself it keeps one free
    maxWorkers: Math.max(2, availableParallelism() - 1),
    reporters: ['default', new PlainLine()],
    projects: [
      {
        test: {
          name: 'core',
          isolate: false,
          root: 'packages/core',
          environment: 'node',
          include: ['src/**/*.test.ts'],
          testTimeout: SLOW_MACHINE_MS,
          hookTimeout: SLOW_MACHINE_MS,
          expect: { poll: { timeout: POLLED_MS } },
        },
      },
      {
        test: {
          name: 'devices',
          root: 'packages/devices',
          environment: 'node',
          include: ['src/**/*.test.ts'],
          testTimeout: SLOW_MACHINE_MS,
          hookTimeout: SLOW_MACHINE_MS,
          expect: { poll: { timeout: POLLED_MS } },
        },
      },
      {
        test: {
          name: 'catalogue',
          isolate: false,
          root: 'test',
          environment: 'node',
          include: ['*.test.ts'],
          testTimeout: SLOW_MACHINE_MS,
          hookTimeout: SLOW_MACHINE_MS,
          expect: { poll: { timeout: POLLED_MS } },
        },
      },
      {
        test: {
          name: 'server',
          isolate: false,
          root: 'packages/server',
          environment: 'node',
          include: ['src/**/*.test.ts'],
          globalSetup: ['../../test/postgres.setup.ts'],
          pool: 'forks',
          testTimeout: SLOW_MACHINE_MS,
          hookTimeout: SLOW_MACHINE_MS,
          expect: { poll: { timeout: POLLED_MS } },
        },
      },
      {
        extends: 'packages/web/vite.config.ts',
        test: {
          name: 'web',
          root: 'packages/web',
          environment: 'jsdom',
          include: ['src/**/*.test.{ts,tsx}'],
          testTimeout: SLOW_MACHINE_MS,
          hookTimeout: SLOW_MACHINE_MS,
          expect: { poll: { timeout: POLLED_MS } },
          setupFiles: ['src/testing/web.setup.ts'],
        },
      },
    ],
  },
});
