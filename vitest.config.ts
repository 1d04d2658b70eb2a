import { defineConfig } from 'vitest/config';
import { PlainLine } from './test/vitestPlainLine.ts';

export default defineConfig({
  test: {
    reporters: ['default', new PlainLine()],
    projects: [
      {
        test: {
          name: 'core',
          root: 'packages/core',
          environment: 'node',
          include: ['src/**/*.test.ts'],
          testTimeout: 20_000,
        },
      },
      { test: { name: 'devices', root: 'packages/devices', environment: 'node', include: ['src/**/*.test.ts'] } },
      {
        test: { name: 'catalogue', root: 'test', environment: 'node', include: ['*.test.ts'], testTimeout: 20_000 },
      },
      {
        test: {
          name: 'server',
          root: 'packages/server',
          environment: 'node',
          include: ['src/**/*.test.ts'],
          globalSetup: ['../../test/postgres.setup.ts'],
          pool: 'forks',
          testTimeout: 30_000,
          hookTimeout: 60_000,
        },
      },
      {
        extends: 'packages/web/vite.config.ts',
        test: {
          name: 'web',
          root: 'packages/web',
          environment: 'jsdom',
          include: ['src/**/*.test.{ts,tsx}'],
          testTimeout: 20_000,
        },
      },
    ],
  },
});
