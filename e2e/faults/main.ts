/**
 * ./zabrik faults [minutes]: everything that may go wrong, on purpose, while benches work; then the books are counted anew.
 *   tsx e2e/faults/main.ts [minutes] [--only kills,cuts] [--write]
 * Fifty devices for all of the minutes only by --only soak: an hour of it says something, a part of ten minutes nothing.
 * Without minutes: the short form of the tests. What several runs on one commit have seen adds up; --write puts it into docs/faults.md.
 */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { KitchenProcess } from '../kitchenProcess.ts';
import { books } from './books.ts';
import { clock } from './clock.ts';
import { cuts } from './cuts.ts';
import { devices } from './devices.ts';
import { disk } from './disk.ts';
import { fuzz } from './fuzz.ts';
import { kills } from './kills.ts';
import { load } from './load.ts';
import { restore } from './restore.ts';
import { soak } from './soak.ts';
import { stove } from './stove.ts';
import { type Counts, commitNow, faultsPage, keepRun, type Part, quantile, type Run, tableOf } from './table.ts';

const args = process.argv.slice(2);
const minutes = Number(args.find((a) => /^\d+(\.\d+)?$/.test(a)) ?? 0);
const short = minutes === 0;
const at = args.indexOf('--only');
const only = at === -1 ? undefined : new Set(args[at + 1]?.split(','));
const write = args.includes('--write');
const MINUTE = 60_000;

const kitchen = new KitchenProcess({
  cluster: only?.has('soak') === true ? 'pg-soak' : 'pg-faults',
  fsync: 'on',
  port: 0,
  breakdowns: 20,
});
const parts: Partial<Record<Part, Counts>> = {};
const began = Date.now();
/** The share of the time that a part may take. */
const until = (share: number): number => Date.now() + share * minutes * MINUTE;

const work: readonly (readonly [Part, () => Promise<Counts | undefined>])[] = [
  ['load', () => load(kitchen, short ? 4 : Math.max(15, 0.05 * minutes * 60))],
  ['soak', () => soak(kitchen, minutes)],
  ['devices', () => devices(kitchen, short ? 2 : Math.ceil(minutes / 2))],
  ['stove', () => stove(kitchen)],
  ['kills', () => (short ? kills(kitchen, Date.now() + MINUTE, 10) : kills(kitchen, until(0.4)))],
  ['clock', () => clock(kitchen, short ? 1 : Math.ceil(minutes / 10))],
  ['cuts', () => cuts(kitchen, short ? Date.now() + 10_000 : until(0.3))],
  ['disk', () => disk(short ? 1 : Math.ceil(minutes / 10))],
  ['restore', () => restore(kitchen)],
  [
    'fuzz',
    () =>
      fuzz(
        kitchen,
        short
          ? { untilMs: Date.now() + MINUTE, most: 1_500, seed: 'short' }
          : { untilMs: until(0.15), seed: `${began}` },
      ),
  ],
];

await kitchen.start();
try {
  for (const [part, run] of work) {
    if (only === undefined ? part === 'soak' : !only.has(part)) continue;
    const from = Date.now();
    const counts = await run();
    if (counts === undefined) process.stdout.write(`${part}: not on this machine\n`);
    else {
      parts[part] = counts;
      const said = Object.entries(counts).map(
        ([k, v]) =>
          `${k} ${typeof v === 'number' ? v : `${v.length} times, middle ${quantile(v, 0.5)}, 99 of 100 within ${quantile(v, 0.99)}`}`,
      );
      process.stdout.write(`${part}, ${Math.round((Date.now() - from) / 1_000)} s: ${said.join(', ')}\n`);
    }
  }
  parts.books = books(kitchen);
} finally {
  await kitchen.stop();
}
const run: Run = {
  commit: commitNow(),
  at: new Date().toISOString(),
  minutes: Math.round((Date.now() - began) / MINUTE),
  parts,
};
const { text, holds } = tableOf(short ? [run] : keepRun(run));
process.stdout.write(`\n${text}`);
if (write) {
  const page = new URL('../../docs/faults.md', import.meta.url);
  const before = existsSync(page) ? readFileSync(page, 'utf8') : '';
  writeFileSync(page, faultsPage(text, before));
}
// on a busy machine the short form's times say nothing: only what was lost does
const mustHold = short ? tableOf([{ ...run, parts: withoutTimes(parts) }]).holds : holds;
if (!mustHold) process.exitCode = 1;

function withoutTimes(of: Partial<Record<Part, Counts>>): Partial<Record<Part, Counts>> {
  const { load: _, ...others } = of;
  return Object.fromEntries(
    Object.entries(others).map(([part, counts]) => [
      part,
      { ...counts, backMs: [], answerMs: [], stallMs: 0, rangMs: 0 },
    ]),
  );
}
