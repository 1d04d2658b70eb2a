import { expect, it } from 'vitest';
import {
  type DatabaseFacts,
  findingLines,
  judgeBackups,
  judgeCertificate,
  judgeClock,
  judgeDatabase,
  judgeDevice,
  judgeDisk,
  judgeNode,
} from './findings.ts';

const now = new Date('2026-12-01T09:00:00Z');
const before = (hours: number): Date => new Date(now.getTime() - hours * 3_600_000);
const verdicts = (found: readonly { verdict: string }[]): string[] => found.map((f) => f.verdict);

it('Node 20 is enough, 18 is not', () => {
  expect(judgeNode('v20.20.2').verdict).toBe('fine');
  expect(judgeNode('v18.19.0').verdict).toBe('bad');
});

it('what cannot be told is never fine: disk, clock, database, backups', () => {
  expect(judgeDisk('the records', undefined).verdict).toBe('look');
  expect(judgeClock(undefined).verdict).toBe('look');
  expect(judgeClock(false).verdict).toBe('look');
  expect(judgeClock(true).verdict).toBe('fine');
  expect(verdicts(judgeDatabase(undefined))).toEqual(['bad']);
  const none = { lastAt: undefined, rehearsedAt: undefined, secondWhy: null, second: false };
  expect(verdicts(judgeBackups(none, now))).toEqual(['bad', 'look', 'look']);
});

it.each([
  [199e6, 'bad', '199 MB'],
  [200e6, 'look', '200 MB'],
  [1_999e6, 'look', '2.0 GB'],
  [2_000e6, 'fine', '2.0 GB'],
])('%d bytes free is %s', (bytes, verdict, says) => {
  const found = judgeDisk('the records', bytes);
  expect(found.verdict).toBe(verdict);
  expect(found.says).toContain(says);
});

const database: DatabaseFacts = {
  version: '17.6',
  missing: 0,
  unknown: 0,
  connections: 12,
  mostConnections: 60,
  longestSeconds: 0.2,
  askedMs: 0.4,
  houses: 1,
};
it.each([
  [{}, ['fine', 'fine', 'fine', 'fine']],
  [{ missing: 2 }, ['fine', 'look', 'fine', 'fine']],
  [{ unknown: 1 }, ['fine', 'bad', 'fine', 'fine']],
  // newer records under an older app stay the worse of the two
  [{ unknown: 1, missing: 1 }, ['fine', 'bad', 'fine', 'fine']],
  [{ connections: 52 }, ['fine', 'fine', 'look', 'fine']],
  [{ longestSeconds: 30 }, ['fine', 'fine', 'fine', 'look']],
  [{ askedMs: 25 }, ['fine', 'fine', 'fine', 'look']],
] as const)('a database with %j', (odd, expected) => {
  expect(verdicts(judgeDatabase({ ...database, ...odd }))).toEqual(expected);
});

it.each([
  [20, 100, null, true, ['fine', 'fine', 'fine']],
  [37, 100, null, true, ['look', 'fine', 'fine']],
  [73, 217, null, true, ['bad', 'look', 'fine']],
  [20, 100, 'no such folder', true, ['fine', 'fine', 'look']],
  // one disk is no second place
  [20, 100, null, false, ['fine', 'fine', 'look']],
] as const)('backups %d h old, rehearsed %d h ago', (last, tried, secondWhy, second, expected) => {
  expect(verdicts(judgeBackups({ lastAt: before(last), rehearsedAt: before(tried), secondWhy, second }, now))).toEqual(
    expected,
  );
});

it('a certificate runs out in steps; where none is served none is missed', () => {
  expect(judgeCertificate(undefined, now).verdict).toBe('fine');
  expect(judgeCertificate(before(-24 * 30), now).verdict).toBe('fine');
  expect(judgeCertificate(before(-24 * 6), now).verdict).toBe('look');
  expect(judgeCertificate(before(1), now).verdict).toBe('bad');
});

it('the worst stands first, and the last line is no greener than the findings', () => {
  const lines = findingLines([
    judgeNode('v20.1.0'),
    judgeDevice('The Netloft', 'Bench scale', '10.0.0.20:4001', false),
    judgeDisk('the records', 1e6),
  ]);
  expect(lines.map((l) => l.slice(0, 4))).toEqual(['BAD ', 'LOOK', 'fine', '1 mu']);
  expect(lines.at(-1)).toBe('1 must be put right, 1 should be looked at.');
  expect(findingLines([judgeNode('v20.1.0')]).at(-1)).toBe('All is well.');
  expect(findingLines([judgeNode('v20.1.0'), judgeClock(undefined)]).at(-1)).toBe('It works. 1 should be looked at.');
});
