import { readFileSync } from 'node:fs';

/** The machine's ticks so far, from /proc/stat: of all its processors, and those that its host gave to others. */
const ticks = (): { readonly all: number; readonly stolen: number } => {
  const [line = ''] = readFileSync('/proc/stat', 'utf8').split('\n');
  const of = line.split(/\s+/).slice(1, 9).map(Number);
  return { all: of.reduce((sum, n) => sum + n, 0), stolen: of[7] ?? 0 };
};

/** The share of the processors' time since now that the host gave to other machines: with much of it stolen, a time says little of the program. */
export function stolenSince(): () => number {
  const before = ticks();
  return () => {
    const now = ticks();
    return (now.stolen - before.stolen) / Math.max(1, now.all - before.all);
  };
}
