/** How much script the first screen takes, and how soon the bench can be used on a slow tablet. */
import { chromium, type Page } from '@playwright/test';

export interface FirstScreen {
  readonly signInKb: number;
  readonly benchKb: number;
  readonly benchMs: number;
  /** The same when the tablet has opened it before: files kept by the service worker. */
  readonly againMs: number;
  /** A page that carries as many bytes of script and mounts an empty React tree, opened in turn with the bench. */
  readonly emptyMs: number;
}

const KB = 1_000;
const RUNS = 9;
const MIDDLE = 4;
const TAKE = 'button[aria-keyshortcuts="Space"]:not([disabled])';

/**
 * Milliseconds from the start of the navigation until `ready` stands in the page, has been painted and the page is free to answer a
 * touch: taken inside the page, because a test driver's own polling costs a throttled processor a tenth of a second and more.
 */
async function usableAfter(page: Page, address: string, ready: string): Promise<number> {
  // as text: what compiles this file would write its own helpers into a function
  await page.addInitScript(`
    window.usable = new Promise((done) => {
      requestAnimationFrame(function look() {
        if (document.querySelector(${JSON.stringify(ready)}) === null) requestAnimationFrame(look);
        else requestAnimationFrame(() => setTimeout(() => done(performance.now()), 0));
      });
    });`);
  await page.goto(address, { waitUntil: 'commit' });
  return page.evaluate(() => (window as unknown as { usable: Promise<number> }).usable);
}

export async function firstScreen(
  base: string,
  bareBase: string,
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
  const open = async (address: string, ready: string) => {
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
    const ms = await usableAfter(page, address, ready);
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
    for (let i = 0; i < RUNS; i += 1) {
      const page = await context.newPage();
      const session = await context.newCDPSession(page);
      await session.send('Emulation.setCPUThrottlingRate', { rate: slowdown });
      times.push(await usableAfter(page, `${base}${path}`, ready));
      await page.close();
    }
    await context.close();
    return times.sort((a, b) => a - b);
  };
  try {
    await open(`${base}/sign-in`, 'h1'); // the browser's own start is not ours
    const signIn = await open(`${base}/sign-in`, 'h1');
    const runs = [];
    const empty: number[] = [];
    for (let i = 0; i < RUNS; i += 1) {
      runs.push(await open(`${base}/bench/${breakdownId}`, TAKE));
      empty.push((await open(`${bareBase}/tree`, '#ready')).ms);
    }
    empty.sort((a, b) => a - b);
    runs.sort((a, b) => a.ms - b.ms);
    const again = await openAgain(`/bench/${breakdownId}`, TAKE);
    return {
      signInKb: signIn.kb,
      benchKb: runs[MIDDLE]?.kb ?? Number.NaN,
      benchMs: runs[MIDDLE]?.ms ?? Number.NaN,
      againMs: again[MIDDLE] ?? Number.NaN,
      emptyMs: empty[MIDDLE] ?? Number.NaN,
    };
  } finally {
    await browser.close();
  }
}
