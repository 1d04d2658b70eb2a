import { defineConfig } from '@playwright/test';
import base from './playwright.config.ts';
export default defineConfig({
  ...base,
  webServer: undefined as never,
  workers: 1,
  timeout: 240_000,
  expect: { timeout: 15_000 },
  reporter: [['line']],
  projects: [
    {
      name: 'x',
      testMatch: /forms\.spec|made\.spec/,
      use: { ...base.use, baseURL: 'http://localhost:24123', actionTimeout: 15_000 },
    },
  ],
});
