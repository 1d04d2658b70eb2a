import { defineConfig } from '@playwright/test';

const PORT = Number(process.env['E2E_PORT'] ?? 41_873);

export default defineConfig({
  testDir: '.',
  testMatch: process.env['SHOTS'] === '1' ? 'screenshots.ts' : '*.spec.ts',
  outputDir: '../test-results',
  // what is slow is a matter for the benchmarks; here a busy machine must not look like a fault
  timeout: 180_000,
  expect: { timeout: 15_000 },
  workers: 1,
  reporter: [['list'], ['./plainLine.ts']],
  use: {
    actionTimeout: 15_000,
    baseURL: `http://localhost:${PORT}`,
    viewport: { width: 1280, height: 800 },
    timezoneId: Intl.DateTimeFormat().resolvedOptions().timeZone,
    locale: 'en-GB',
    trace: 'retain-on-failure',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--disable-dev-shm-usage',
      ],
    },
  },
  webServer: {
    command: `npx tsx serve.ts ${PORT}`,
    cwd: import.meta.dirname,
    url: `http://localhost:${PORT}/readyz`,
    timeout: 120_000,
    reuseExistingServer: false,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 10_000 },
  },
});
