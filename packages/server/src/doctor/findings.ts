/** What is found of a machine that runs a kitchen, judged in words. A look that could not be had is never fine. */

/** `look`: works, and somebody should see to it. `bad`: the kitchen is without it, or soon. */
export type Verdict = 'fine' | 'look' | 'bad';
export interface Finding {
  readonly about: string;
  readonly verdict: Verdict;
  readonly says: string;
}

const MB = 1_000_000;
const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;

const gigabytes = (bytes: number): string =>
  bytes < 1_000 * MB ? `${Math.floor(bytes / MB)} MB` : `${(bytes / (1_000 * MB)).toFixed(1)} GB`;
const ago = (ms: number): string =>
  ms < 2 * HOUR_MS
    ? `${Math.round(ms / 60_000)} minutes`
    : ms < 2 * DAY_MS
      ? `${Math.round(ms / HOUR_MS)} hours`
      : `${Math.round(ms / DAY_MS)} days`;

export function judgeNode(version: string): Finding {
  const major = Number(version.replace(/^v/, '').split('.')[0]);
  return major >= 20
    ? { about: 'Node', verdict: 'fine', says: version }
    : { about: 'Node', verdict: 'bad', says: `${version}: 20 or newer is needed` };
}

/** Free bytes where something is kept; undefined where nobody could say. Below 48 MB nothing is written any more. */
export function judgeDisk(where: string, freeBytes: number | undefined): Finding {
  const about = `Disk of ${where}`;
  if (freeBytes === undefined) return { about, verdict: 'look', says: 'how much is free cannot be told' };
  const says = `${gigabytes(freeBytes)} free`;
  if (freeBytes < 200 * MB)
    return { about, verdict: 'bad', says: `${says}: make room now; below 48 MB nothing is written` };
  return freeBytes < 2_000 * MB
    ? { about, verdict: 'look', says: `${says}: make room` }
    : { about, verdict: 'fine', says };
}

/** Whether the machine's clock is kept by the network; undefined where nothing on the machine says. Dates of food go by it. */
export const judgeClock = (kept: boolean | undefined): Finding =>
  kept === true
    ? { about: 'Clock', verdict: 'fine', says: 'kept by the network' }
    : {
        about: 'Clock',
        verdict: 'look',
        says:
          kept === false
            ? 'not kept by the network: every use-by date goes by it. Let systemd-timesyncd run'
            : 'nothing here says that the network keeps it: look at it, every use-by date goes by it',
      };

export interface DatabaseFacts {
  readonly version: string;
  /** Migrations of this version that the records have not had, and of the records that this version does not know. */
  readonly missing: number;
  readonly unknown: number;
  readonly connections: number;
  readonly mostConnections: number;
  /** What has run longest now, seconds; 0 for nothing. */
  readonly longestSeconds: number;
  /** Milliseconds of 20 questions one after the other, each. */
  readonly askedMs: number;
  readonly houses: number;
}

export function judgeDatabase(facts: DatabaseFacts | undefined): Finding[] {
  const about = 'Database';
  if (facts === undefined)
    return [{ about, verdict: 'bad', says: 'does not answer: is the kitchen running? ./zabrik serve starts it' }];
  const shape: Finding =
    facts.unknown > 0
      ? { about: 'Records', verdict: 'bad', says: 'are of a newer version than this one: upgrade, never the other way' }
      : facts.missing > 0
        ? { about: 'Records', verdict: 'look', says: 'are of a version before: the next start brings them along' }
        : { about: 'Records', verdict: 'fine', says: `${facts.houses} ${facts.houses === 1 ? 'house' : 'houses'}` };
  const share = facts.connections / Math.max(1, facts.mostConnections);
  return [
    { about, verdict: 'fine', says: `PostgreSQL ${facts.version}` },
    shape,
    {
      about: 'Connections',
      verdict: share > 0.85 ? 'look' : 'fine',
      says: `${facts.connections} of ${facts.mostConnections}`,
    },
    facts.longestSeconds >= 30
      ? { about: 'Queries', verdict: 'look', says: `one has run for ${Math.round(facts.longestSeconds)} s` }
      : {
          about: 'Queries',
          verdict: facts.askedMs > 20 ? 'look' : 'fine',
          says: `a small one takes ${facts.askedMs.toFixed(1)} ms${facts.askedMs > 20 ? ': the disk or the machine is slow' : ''}`,
        },
  ];
}

export interface BackupFacts {
  readonly lastAt: Date | undefined;
  readonly rehearsedAt: Date | undefined;
  /** Why the second place has not got the last one; null: it has, or there is none. */
  readonly secondWhy: string | null;
  readonly second: boolean;
}

/** One a night and a rehearsal a week are usual: half a day more is waited for. */
export function judgeBackups({ lastAt, rehearsedAt, secondWhy, second }: BackupFacts, now: Date): Finding[] {
  const age = lastAt === undefined ? Number.POSITIVE_INFINITY : now.getTime() - lastAt.getTime();
  const tried = rehearsedAt === undefined ? Number.POSITIVE_INFINITY : now.getTime() - rehearsedAt.getTime();
  return [
    lastAt === undefined
      ? { about: 'Backup', verdict: 'bad', says: 'there is none: ./zabrik backup' }
      : {
          about: 'Backup',
          verdict: age > 3 * DAY_MS ? 'bad' : age > 36 * HOUR_MS ? 'look' : 'fine',
          says: `the last is ${ago(age)} old`,
        },
    rehearsedAt === undefined
      ? { about: 'Rehearsal', verdict: 'look', says: 'none has been brought back yet: ./zabrik rehearse' }
      : {
          about: 'Rehearsal',
          verdict: tried > 9 * DAY_MS ? 'look' : 'fine',
          says: `one was brought back whole ${ago(tried)} ago`,
        },
    secondWhy !== null
      ? { about: 'Second place', verdict: 'look', says: `has not got the last one: ${secondWhy}` }
      : second
        ? { about: 'Second place', verdict: 'fine', says: 'has the last one' }
        : { about: 'Second place', verdict: 'look', says: 'none is named: a disk that dies takes records and backups' },
  ];
}

/** The house's own certificate for tablets; undefined where it serves this machine alone. */
export function judgeCertificate(until: Date | undefined, now: Date): Finding {
  const about = 'Certificate';
  if (until === undefined) return { about, verdict: 'fine', says: 'none is needed: tablets are not served' };
  const left = until.getTime() - now.getTime();
  return left <= 0
    ? { about, verdict: 'bad', says: 'has run out: the next start makes a new one' }
    : { about, verdict: left < 7 * DAY_MS ? 'look' : 'fine', says: `counts for another ${ago(left)}` };
}

/** A device of a house, and whether its address answers. */
export const judgeDevice = (house: string, name: string, at: string, answers: boolean): Finding =>
  answers
    ? { about: `${house}: ${name}`, verdict: 'fine', says: `answers at ${at}` }
    : { about: `${house}: ${name}`, verdict: 'look', says: `does not answer at ${at}: is it on, is it plugged in?` };

const marks: Readonly<Record<Verdict, string>> = { fine: 'fine', look: 'LOOK', bad: 'BAD ' };

/** All of it as lines of text, what is worst first, and a last line that says how it stands. */
export function findingLines(findings: readonly Finding[]): string[] {
  const order: readonly Verdict[] = ['bad', 'look', 'fine'];
  const widest = Math.max(...findings.map((f) => f.about.length));
  const count = (verdict: Verdict): number => findings.filter((f) => f.verdict === verdict).length;
  const bad = count('bad');
  const look = count('look');
  return [
    ...order.flatMap((verdict) =>
      findings
        .filter((f) => f.verdict === verdict)
        .map((f) => `${marks[verdict]}  ${f.about.padEnd(widest)}  ${f.says}`),
    ),
    bad > 0
      ? `${bad} must be put right${look > 0 ? `, ${look} should be looked at` : ''}.`
      : look > 0
        ? `It works. ${look} should be looked at.`
        : 'All is well.',
  ];
}
