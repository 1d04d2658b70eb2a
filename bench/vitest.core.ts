import { defineConfig } from 'vitest/config';

/** The tests that judge the core: its own, and those that hold it against the handbook and other sources. */
export default defineConfig({
  test: {
    environment: 'node',
    include: ['packages/core/src/**/*.test.ts', 'test/*.test.ts'],
    exclude: ['**/node_modules/**'],
    testTimeout: 60_000,
  },
});
