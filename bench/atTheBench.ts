/** What the bench itself must hold: how soon a key press is on the ribbon, frames while the scale streams, the expectation, the outbox. */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { allPlans } from '@zabrik/catalogue';
import { believeShare, expectPieces } from '@zabrik/core';
import { seededRandom } from '@zabrik/core/simulator';
import { type InTurn, inTurn } from './reference.ts';

const percentile = (values: readonly number[], p: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * p))] ?? Number.NaN;

/** Joining 5,000 own records with the handbook and expecting every piece of a plan of 20. */
export async function expectationTimes(): Promise<InTurn> {
  const random = seededRandom('expectation');
  const base = allPlans[0]?.stages[0]?.pieces[0];
  if (base === undefined) throw new Error('no plan');
  const prior = { mean: 0.049, sd: 0.006 };
  const pieces = Array.from({ length: 20 }, (_, i) => ({
    id: `p${i}`,
    records: Array.from({ length: 250 }, () => Math.max(0.01, 0.049 + 0.006 * random.normal())),
  }));
  return inTurn(() =>
    expectPieces(
      2_000_000,
      pieces.map((p) => ({
        pieceId: p.id,
        belief: believeShare(prior, p.records),
        count: 1,
        taken: [],
        accumulates: false,
      })),
      { mean: 0.02, sd: 0.008 },
    ),
  );
}

export interface Hands {
  readonly ribbonMiddle: number;
  readonly ribbonP95: number;
  readonly framesPerSecond: number;
  readonly longFrames: number;
  /** The same of a page that does nothing else: a key that paints, a square that moves. */
  readonly bareKeyMiddle: number;
  readonly bareFramesPerSecond: number;
}

/** What every page here watches with: the time from a key until what it adds is painted, and the frames of five seconds. As text: what compiles this file would write its own helpers into a function. */
const WATCH = `
      window.presses = [];
      addEventListener('keydown', (event) => {
        if (event.key !== ' ') return;
        const pressed = performance.now();
        const ribbon = document.querySelector('figure');
        const before = ribbon.querySelectorAll('button').length;
        const look = () => {
          if (ribbon.querySelectorAll('button').length > before) setTimeout(() => window.presses.push(performance.now() - pressed), 0); // seen before this frame is painted, noted after
          else if (performance.now() - pressed < 2000) requestAnimationFrame(look);
        };
        requestAnimationFrame(look);
      }, true);
      window.frames5 = () => new Promise((done) => {
        const times = [];
        const step = (now) => { times.push(now); if (now - times[0] < 5000) requestAnimationFrame(step); else done(times); };
        requestAnimationFrame(step);
      });`;
const gapsOf = (times: readonly number[]): readonly number[] => times.slice(1).map((t, i) => t - (times[i] ?? t));
const perSecond = (gaps: readonly number[]): number => (gaps.length * 1_000) / gaps.reduce((a, b) => a + b, 0);

/** Presses the take key on a real bench and waits for the ribbon to be painted; then counts frames while the pan trembles. */
export async function hands(base: string, bareBase: string, cookie: string, breakdownId: string): Promise<Hands> {
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--no-first-run', '--disable-dev-shm-usage'],
  });
  try {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, serviceWorkers: 'block' });
    const [name = '', value = ''] = cookie.split('=');
    await context.addCookies([{ name, value, url: base }]);
    const page = await context.newPage();
    await page.addInitScript(WATCH);
    const bare = await context.newPage();
    await bare.addInitScript(WATCH);
    await bare.goto(`${bareBase}/keys`);
    await bare.evaluate(
      `addEventListener('keydown', (event) => { if (event.key === ' ') document.querySelector('figure').append(document.createElement('button')); })`,
    );
    await page.goto(`${base}/bench/${breakdownId}`);
    await page.waitForSelector('button[aria-keyshortcuts="Space"]:not([disabled])');
    await page.waitForTimeout(1_000);
    const pan = page.getByTestId('pan');
    for (let i = 0; i < 24; i += 1) {
      const settled = Number(await pan.getAttribute('data-settled'));
      await page.getByLabel('Load in grams').fill(String(40 + i));
      await page.keyboard.press('Enter');
      await page.getByLabel('Load in grams').blur();
      for (;;) {
        const now = Number(await pan.getAttribute('data-settled'));
        if (now > settled && (await pan.getAttribute('data-state')) === 'steady') break;
        await page.waitForTimeout(20);
      }
      // picked by hand each time: once all are weighed a press would rightly take nothing
      await page
        .getByRole('group', { name: 'Piece' })
        .getByRole('button')
        .nth(i % 3)
        .click();
      await page.keyboard.press(' ');
      await page.waitForTimeout(250);
      await bare.bringToFront();
      await bare.keyboard.press(' ');
      await bare.waitForTimeout(100);
      await page.bringToFront();
    }
    const pressesOf = (of: typeof page): Promise<number[]> =>
      of.evaluate(() => (window as unknown as { presses: number[] }).presses);
    const framesOf = (of: typeof page): Promise<number[]> =>
      of.evaluate(() => (window as unknown as { frames5: () => Promise<number[]> }).frames5());
    const [presses, barePresses] = [await pressesOf(page), await pressesOf(bare)];
    let trembling = true;
    const tremble = (async () => {
      for (let i = 0; trembling; i += 1) {
        await page.request.post(`${base}/api/v1/simulation/pan`, {
          data: { what: 'load', massMg: 300_000 + (i % 10) * 50_000 },
          headers: { origin: base },
        });
        await new Promise((done) => setTimeout(done, 100));
      }
    })();
    const frames = gapsOf(await framesOf(page));
    trembling = false;
    await tremble;
    await bare.bringToFront();
    await bare.goto(`${bareBase}/frames`);
    await bare.evaluate(
      `requestAnimationFrame(function move(now) { document.querySelector('#moved').style.transform = 'translateX(' + (now % 300) + 'px)'; requestAnimationFrame(move); })`,
    );
    const bareFrames = gapsOf(await framesOf(bare));
    return {
      ribbonMiddle: percentile(presses, 0.5),
      ribbonP95: percentile(presses, 0.95),
      framesPerSecond: perSecond(frames),
      longFrames: frames.filter((g) => g > 25).length / frames.length,
      bareKeyMiddle: percentile(barePresses, 0.5),
      bareFramesPerSecond: perSecond(bareFrames),
    };
  } finally {
    await browser.close();
  }
}

/** Runs a process may hold before the pages that earlier ones left open slow it down. */
const RUNS_AT_ONCE = 50;

/** Many randomised runs of the outbox, by the same test that does forty of them: how many lost, doubled or reordered something. */
export function outboxRuns(runs: number): { readonly runs: number; readonly broken: number } {
  const report = join(mkdtempSync(join(tmpdir(), 'zabrik-runs-')), 'report.json');
  let passed = 0;
  for (let from = 0; from < runs; from += RUNS_AT_ONCE) {
    spawnSync(
      'npx',
      ['vitest', 'run', '--project', 'web', 'src/app/outboxRuns.test.ts', '--reporter', 'json', '--outputFile', report],
      {
        env: { ...process.env, OUTBOX_FROM: String(from), OUTBOX_RUNS: String(Math.min(RUNS_AT_ONCE, runs - from)) },
        stdio: 'ignore',
      },
    );
    passed += (JSON.parse(readFileSync(report, 'utf8')) as { numPassedTests: number }).numPassedTests;
  }
  return { runs, broken: runs - passed };
}
