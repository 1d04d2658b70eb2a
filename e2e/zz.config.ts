import { createHash } from 'node:crypto';
import { defineConfig } from '@playwright/test';

/** Each file of tests has a kitchen of its own, so that they run side by side and none sees what another has eaten. WALK=made: that one only. */
const KITCHENS =
  process.env['SHOTS'] === '1'
    ? ['screenshots.ts', 'screenshotsOfSetUp.ts']
    : [
        'bench.spec.ts',
        'slice.spec.ts',
        'larder.spec.ts',
        'cutting.spec.ts',
        'pots.spec.ts',
        'forms.spec.ts',
        'made.spec.ts',
        'moveIn.spec.ts',
        'screens.spec.ts',
      ].filter((file) => file.startsWith(process.env['WALK'] ?? ''));

/** Files that begin on a machine with no kitchen on it. */
const ON_NOTHING: ReadonlySet<string> = new Set(['moveIn.spec.ts', 'screenshotsOfSetUp.ts']);

// of this checkout, so that two on one machine do not collide; below the range that systems hand out
const FIRST_PORT =
  20_000 +
  (createHash('sha256')
    .update(import.meta.dirname)
    .digest()
    .readUInt16BE() %
    5_000) *
    2;
const baseURL = (i: number): string => `http://localhost:${FIRST_PORT + i}`;

export default defineConfig({
  testDir: '.',
  outputDir: '../test-results',
  // what is slow is a matter for the benchmarks; here a busy machine must not look like a fault
  timeout: 120_000,
  expect: { timeout: 20_000 },
  workers: 2,
  reporter: [['list'], ['./plainLine.ts']],
  projects: KITCHENS.map((file, i) => ({
    name: file.split('.')[0] ?? file,
    testMatch: file,
    use: { baseURL: baseURL(i) },
  })),
  use: {
    actionTimeout: 20_000,
    viewport: { width: 1280, height: 800 },
    timezoneId: Intl.DateTimeFormat().resolvedOptions().timeZone,
    locale: 'en-GB',
    screenshot: 'only-on-failure',
    trace: process.env['TRACE'] === '1' ? 'retain-on-failure' : 'off', // recording costs a third of the time
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
    command: `exec node --import tsx serve.ts ${KITCHENS.map((file, i) => `${FIRST_PORT + i}${ON_NOTHING.has(file) ? ':empty' : ''}`).join(' ')}`,
    cwd: import.meta.dirname,
    url: `${baseURL(KITCHENS.length - 1)}/readyz`,
    timeout: 120_000,
    reuseExistingServer: false,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 10_000 },
  },
});
