/** How much script the first screen takes, and how soon the bench can be used on a slow tablet. */
import { chromium } from '@playwright/test';

export interface FirstScreen {
  readonly signInKb: number;
  readonly benchKb: number;
  readonly benchMs: number;
  /** The same when the tablet has opened it before: files kept by the service worker. */
  readonly againMs: number;
}

const KB = 1_000;

export async function firstScreen(
  base: string,
  cookie: string,
  breakdownId: string,
  slowdown: number,
): Promise<FirstScreen> {
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-dev-shm-usage',
    ],
  });
  const open = async (path: string, ready: string) => {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, serviceWorkers: 'block' });
    const [name = '', value = ''] = cookie.split('=');
    await context.addCookies([{ name, value, url: base }]);
    const page = await context.newPage();
    const session = await context.newCDPSession(page);
    await session.send('Network.enable');
    await session.send('Emulation.setCPUThrottlingRate', { rate: slowdown });
    const scripts = new Set<string>();
    let bytes = 0;
    session.on('Network.responseReceived', ({ requestId, type }) => {
      if (type === 'Script') scripts.add(requestId);
    });
    session.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
      if (scripts.has(requestId)) bytes += encodedDataLength;
    });
    const before = performance.now();
    await page.goto(`${base}${path}`, { waitUntil: 'commit' });
    await page.waitForSelector(ready);
    const ms = performance.now() - before;
    await page.waitForTimeout(300);
    await context.close();
    return { ms, kb: bytes / KB };
  };
  const openAgain = async (path: string, ready: string): Promise<number[]> => {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    const [name = '', value = ''] = cookie.split('=');
    await context.addCookies([{ name, value, url: base }]);
    const first = await context.newPage();
    await first.goto(`${base}${path}`);
    await first.evaluate(() => navigator.serviceWorker.ready);
    await first.waitForTimeout(2_000);
    await first.reload();
    await first.waitForSelector(ready);
    await first.close();
    const times: number[] = [];
    for (let i = 0; i < 5; i += 1) {
      const page = await context.newPage();
      const session = await context.newCDPSession(page);
      await session.send('Emulation.setCPUThrottlingRate', { rate: slowdown });
      const before = performance.now();
      await page.goto(`${base}${path}`, { waitUntil: 'commit' });
      await page.waitForSelector(ready);
      times.push(performance.now() - before);
      await page.close();
    }
    await context.close();
    return times.sort((a, b) => a - b);
  };
  try {
    await open('/sign-in', 'text=Who is at work?'); // the browser's own start is not ours
    const signIn = await open('/sign-in', 'text=Who is at work?');
    const runs = [];
    for (let i = 0; i < 5; i += 1)
      runs.push(await open(`/bench/${breakdownId}`, 'button:has-text("Take weight"):not([disabled])'));
    runs.sort((a, b) => a.ms - b.ms);
    const again = await openAgain(`/bench/${breakdownId}`, 'button:has-text("Take weight"):not([disabled])');
    return {
      signInKb: signIn.kb,
      benchKb: runs[2]?.kb ?? Number.NaN,
      benchMs: runs[2]?.ms ?? Number.NaN,
      againMs: again[2] ?? Number.NaN,
    };
  } finally {
    await browser.close();
  }
}
