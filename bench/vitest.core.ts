import { defineConfig } from 'vitest/config';

/** The tests that judge the core: its own, and those that hold it against the handbook and other sources. */
export default defineConfig({
  test: {
    environment: 'node',
    include: ['packages/core/src/**/*.test.ts', 'test/*.test.ts'],
    // the contract, its browser's part and the rooms are no arithmetic
    exclude: ['**/node_modules/**', 'test/{contract,directions,light}.test.ts'],
    testTimeout: 60_000,
  },
});
