import { type Browser, chromium } from '@playwright/test';

/** Debian's browser for as long as the work takes. */
export async function withBrowser<T>(work: (browser: Browser) => Promise<T>): Promise<T> {
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--disable-dev-shm-usage'],
  });
  try {
    return await work(browser);
  } finally {
    await browser.close();
  }
}
