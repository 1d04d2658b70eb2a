/** What several runs on one commit have seen, added up, and the table of it. */
import { execFileSync } from 'node:child_process';
import { appendFileSync, existsSync, mkdirSync, readFileSync } from 'node:fs';
import { cpus } from 'node:os';

const ROOT = new URL('../..', import.meta.url).pathname;

/** What one part of one run counted. Figures that end in `Ms` are the longest seen, or lists of all; everything else adds up. */
export interface Counts {
  readonly [what: string]: number | readonly number[];
}
export type Part =
  | 'kills'
  | 'stove'
  | 'cuts'
  | 'fuzz'
  | 'disk'
  | 'clock'
  | 'devices'
  | 'load'
  | 'soak'
  | 'restore'
  | 'books';

export interface Run {
  readonly commit: string;
  readonly at: string;
  readonly minutes: number;
  readonly parts: Partial<Readonly<Record<Part, Counts>>>;
}

export const commitNow = (): string => {
  const git = (...args: string[]): string => execFileSync('git', args, { cwd: ROOT, encoding: 'utf8' }).trim();
  return `${git('rev-parse', '--short', 'HEAD')}${git('status', '--porcelain', '--untracked-files=no', '--', ':!docs/faults.md') === '' ? '' : ' and changes'}`;
};

const SHELF = `${ROOT}.zabrik/faults`;

export function keepRun(run: Run): readonly Run[] {
  mkdirSync(SHELF, { recursive: true });
  const file = `${SHELF}/${run.commit.replaceAll(' ', '-')}.jsonl`;
  appendFileSync(file, `${JSON.stringify(run)}\n`);
  return existsSync(file)
    ? readFileSync(file, 'utf8')
        .trim()
        .split('\n')
        .map((line) => JSON.parse(line) as Run)
    : [run];
}

const n = (counts: Counts, name: string): number => {
  const value = counts[name] ?? 0;
  return typeof value === 'number' ? value : value.length;
};
const list = (counts: Counts, name: string): readonly number[] => {
  const value = counts[name] ?? [];
  return typeof value === 'number' ? [value] : value;
};

/** All runs as one. */
export function added(runs: readonly Run[], part: Part): Counts | undefined {
  const all = runs.flatMap((r): Counts[] => {
    const counts = r.parts[part];
    return counts === undefined ? [] : [counts];
  });
  if (all.length === 0) return undefined;
  const names = new Set(all.flatMap((c) => Object.keys(c)));
  return Object.fromEntries(
    [...names].map((name) => {
      const values = all.flatMap((c): readonly number[] => list(c, name));
      if (all.some((c) => Array.isArray(c[name]))) return [name, values];
      return [name, name.endsWith('Ms') ? Math.max(...values) : values.reduce((sum, n) => sum + n, 0)];
    }),
  );
}

/** Nearest rank: the smallest value that so many of a hundred are not above. */
export const quantile = (values: readonly number[], share: number): number =>
  [...values].sort((a, b) => a - b)[Math.max(0, Math.ceil(share * values.length) - 1)] ?? 0;
const figure = (value: number): string => Math.round(value).toLocaleString('en-GB');
const seconds = (ms: number): string => `${(ms / 1_000).toFixed(1)} s`;

interface Line {
  readonly what: string;
  readonly often: string;
  readonly seen: string;
  readonly bar: string;
  readonly holds: boolean;
}

const keptLine = (c: Counts): string =>
  `${figure(n(c, 'lost'))} lost, ${figure(n(c, 'doubled'))} doubled, ${figure(n(c, 'otherName'))} under another name`;
/** What was not tried shows nothing: it holds only where each of these was done at least once. */
const tried = (c: Counts, ...what: readonly string[]): boolean => what.every((name) => n(c, name) > 0);
const kept = (c: Counts): boolean => n(c, 'lost') + n(c, 'doubled') + n(c, 'otherName') === 0;

/** The table, and whether every bar holds that these runs could try. */
export function tableOf(runs: readonly Run[]): { readonly text: string; readonly holds: boolean } {
  const lines: Line[] = [];
  const say = (part: Part, make: (c: Counts) => readonly Line[]): void => {
    const counts = added(runs, part);
    if (counts !== undefined) lines.push(...make(counts));
  };
  say('kills', (c) => {
    const back = list(c, 'backMs');
    const over = back.filter((ms) => ms > 5_000).length;
    return [
      {
        what: 'kill -9 of the server, of a connection’s backend, of PostgreSQL, while four benches weigh and serve',
        often: `${figure(n(c, 'server'))} + ${figure(n(c, 'backend'))} + ${figure(n(c, 'postgres'))} kills, ${figure(n(c, 'acknowledged'))} acknowledged commands, ${figure(n(c, 'repeats'))} repeats`,
        seen: keptLine(c),
        bar: 'none lost, doubled, or under another name',
        holds: kept(c) && tried(c, 'server', 'backend', 'postgres', 'acknowledged'),
      },
      {
        what: 'until a weight is taken again after a kill',
        often: `${figure(back.length)} times`,
        seen: `middle ${seconds(quantile(back, 0.5))}, 19 of 20 within ${seconds(quantile(back, 0.95))}, longest ${seconds(Math.max(0, ...back))}; ${over} over 5 s`,
        bar: 'within 5 s each time',
        holds: over === 0,
      },
    ];
  });
  say('stove', (c) => [
    {
      what: 'a timer at the stove over a kill of the server and of PostgreSQL',
      often: `${n(c, 'timers')} timers, on two screens each`,
      seen: `${n(c, 'gone')} gone, rang ${n(c, 'rangMs')} ms after its time at the latest`,
      bar: 'none gone, within 1 s',
      holds: tried(c, 'timers') && n(c, 'gone') === 0 && n(c, 'rangMs') <= 1_000,
    },
  ]);
  say('cuts', (c) => [
    {
      what: 'two tablets cut off, reloaded in the middle and closed hard while they weigh',
      often: `${figure(n(c, 'cuts'))} cuts, ${figure(n(c, 'reloads'))} reloads, ${figure(n(c, 'closed'))} closed hard, ${figure(n(c, 'weights'))} weights`,
      seen: keptLine(c),
      bar: 'none lost, doubled, or under another name',
      holds: kept(c) && tried(c, 'cuts', 'reloads', 'closed', 'weights'),
    },
  ]);
  say('fuzz', (c) => [
    {
      what: 'requests made from the API’s own description with NUL, half characters, the years 0000 and +275760, marks that are not seen, 10 MB, deep nesting, forged cursors',
      often: `${figure(n(c, 'requests'))} requests, ${figure(n(c, 'accepted'))} of them accepted`,
      seen: `${figure(n(c, 'broke'))} of status 500, ${figure(n(c, 'hung'))} without an answer; the longest answer took ${(n(c, 'longestMs') / 1_000).toFixed(1)} s`,
      bar: 'none of status 500, none without an answer',
      holds: tried(c, 'requests', 'accepted') && n(c, 'broke') + n(c, 'hung') === 0,
    },
  ]);
  say('disk', (c) => [
    {
      what: 'the disk of the records runs full in the middle of weighing, and has room again',
      often: `${n(c, 'fills')} times, ${figure(n(c, 'refused'))} commands refused meanwhile`,
      seen: `${keptLine(c)}; ${n(c, 'unsaid')} not said as a full disk, ${n(c, 'notBack')} not back afterwards`,
      bar: 'said as such, nothing lost, goes on',
      holds: kept(c) && tried(c, 'fills', 'refused') && n(c, 'unsaid') + n(c, 'notBack') === 0,
    },
  ]);
  say('clock', (c) => [
    {
      what: 'the server’s clock an hour back, then right again',
      often: `${n(c, 'shifts')} times, ${figure(n(c, 'acknowledged'))} weights`,
      seen: keptLine(c),
      bar: 'none lost, doubled, or under another name',
      holds: kept(c) && tried(c, 'shifts', 'acknowledged'),
    },
  ]);
  say('devices', (c) => [
    {
      what: 'a scale that loses answers and floods, a probe that says a byte at a time, a printer that drips',
      often: `${figure(n(c, 'asked'))} asked of them, ${figure(n(c, 'acknowledged'))} weights beside them`,
      seen: `${n(c, 'hung')} never answered, ${n(c, 'stuck')} stuck afterwards; ${keptLine(c)}`,
      bar: 'none hangs, none stays stuck',
      holds: n(c, 'hung') + n(c, 'stuck') === 0 && kept(c) && tried(c, 'asked', 'acknowledged'),
    },
    {
      what: 'until such a device is said to be away',
      often: `${figure(list(c, 'answerMs').length)} times`,
      seen: `middle ${seconds(quantile(list(c, 'answerMs'), 0.5))}, longest ${seconds(Math.max(0, ...list(c, 'answerMs')))}`,
      bar: 'within 15 s',
      holds: list(c, 'answerMs').every((ms) => ms <= 15_000),
    },
  ]);
  say('restore', (c) => [
    {
      what: 'records brought back from a backup that is older than the work of two tablets, which then send theirs again',
      often: `${n(c, 'restores')} times, ${figure(n(c, 'gone'))} lines of the records gone with it`,
      seen: `${keptLine(c)} once both had sent`,
      bar: 'none lost, doubled, or under another name',
      holds: kept(c) && n(c, 'gone') > 0,
    },
  ]);
  say('load', (c) => {
    const took = list(c, 'weighMs');
    const p99 = quantile(took, 0.99);
    return [
      {
        what: 'weighing while labels print 500 at a time, a house is exported and 100 screens listen',
        often: `${figure(took.length)} weighings, ${figure(n(c, 'labels'))} labels, ${figure(n(c, 'exports'))} exports`,
        seen: `middle ${figure(quantile(took, 0.5))} ms, 99 of 100 within ${figure(p99)} ms; taking out of a lot ${figure(quantile(list(c, 'takeOutMs'), 0.5))} and ${figure(quantile(list(c, 'takeOutMs'), 0.99))} ms; the machine’s host gave ${list(
          c,
          'stolenRatios',
        )
          .map((r) => `${(100 * r).toFixed(0)} %`)
          .join(', ')} of its time to others`,
        bar: '99 of 100 within 100 ms',
        holds: p99 <= 100,
      },
    ];
  });
  say('soak', (c) => {
    // the first quarter is still growing into its work
    const held = list(c, 'residentMb');
    const quarter = Math.floor(held.length / 4);
    const mean = (of: readonly number[]): number => of.reduce((sum, mb) => sum + mb, 0) / Math.max(1, of.length);
    const [second, last] = [mean(held.slice(quarter, 2 * quarter)), mean(held.slice(-quarter))];
    const grew = second === 0 ? 0 : last / second - 1;
    return [
      {
        what: 'fifty devices at a kitchen’s pace',
        often: `${n(c, 'soakMinutes')} minutes, ${figure(n(c, 'weighed'))} weights, ${n(c, 'failed')} failed`,
        seen: `${second.toFixed(0)} MB in the second quarter, ${last.toFixed(0)} MB in the last: ${(100 * grew).toFixed(1)} %`,
        bar: 'memory flat within 5 %',
        holds: grew <= 0.05 && n(c, 'failed') === 0,
      },
    ];
  });
  const watched = (['kills', 'fuzz', 'clock', 'devices', 'load'] as const).flatMap((part) => {
    const counts = added(runs, part);
    return counts === undefined ? [] : [n(counts, 'stallMs')];
  });
  const stall = Math.max(0, ...watched);
  if (watched.length > 0)
    lines.push({
      what: 'the longest that one piece of work kept all others waiting',
      often: 'while killed, fuzzed, loaded, its clock wrong and its devices lying',
      seen: `${figure(stall)} ms`,
      bar: '250 ms',
      holds: stall <= 250,
    });
  say('books', (c) => [
    {
      what: 'the books afterwards: movements that do not sum to zero, balances, lots’ parents and promises that are not those of the postings and of what is open',
      often: `${figure(n(c, 'recounts'))} recounts, ${figure(n(c, 'postings'))} postings`,
      seen: `${n(c, 'uneven')}, ${n(c, 'balances')}, ${n(c, 'parents')}, ${n(c, 'reserved')}`,
      bar: 'none',
      holds: n(c, 'uneven') + n(c, 'balances') + n(c, 'parents') + n(c, 'reserved') === 0,
    },
  ]);
  const [first] = runs;
  const text = [
    `Commit ${first?.commit}, ${runs.length} ${runs.length === 1 ? 'run' : 'runs'} of ${runs.map((r) => r.minutes).join(' + ')} minutes, last ${runs.at(-1)?.at.slice(0, 16).replace('T', ' ')} UTC, ${cpus().length} × ${cpus()[0]?.model ?? ''}.`,
    '',
    '| what | how often | seen | bar | |',
    '| --- | --- | --- | --- | --- |',
    ...lines.map(
      (l) => `| ${l.what} | ${l.often} | ${l.seen} | ${l.bar} | ${l.holds ? 'holds' : '**does not hold**'} |`,
    ),
    '',
  ].join('\n');
  return { text, holds: lines.every((l) => l.holds) };
}

/** Commits whose tables stay on the page. */
const KEPT = 6;

/** The page with this table first; those of other commits follow, the newest first. */
export function faultsPage(table: string, before: string): string {
  const commitOf = (section: string): string => /^Commit ([^,]+),/.exec(section)?.[1] ?? '';
  const others = before
    .split(/^(?=Commit )/m)
    .filter((section) => section.startsWith('Commit ') && commitOf(section) !== commitOf(table));
  return [
    '# Faults\n\nWhat `./zabrik faults [minutes]` did to a kitchen at work, and what came of it. Runs on one commit add up.\n',
    ...[table, ...others].slice(0, KEPT).map((section) => section.trimEnd()),
  ]
    .join('\n\n')
    .replace('\n\n\n', '\n\n')
    .concat('\n');
}
