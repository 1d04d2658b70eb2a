import { describe, expect, it } from 'vitest';
import { type Keeping, keepingWords } from './keepingWords.ts';

const now = new Date('2026-11-29T10:00:00Z');
const hoursAgo = (h: number): string => new Date(now.getTime() - h * 3_600_000).toISOString();
type Backup = Keeping['backups'][number];
const backup = (o: Partial<Backup> = {}): Backup => ({
  name: 'zabrik-20261129T030000Z.dump',
  kind: 'dump',
  at: hoursAgo(7),
  bytes: 215_772,
  second: 'kept',
  secondWhy: null,
  triedAt: null,
  triedWhy: null,
  ...o,
});
const keeping = (o: Partial<Keeping> = {}): Keeping => ({
  backups: [backup()],
  rehearsedAt: hoursAgo(24 * 3),
  restored: [],
  ...o,
});
const tones = (k: Keeping) => keepingWords(k, now).map((s) => s.tone);

describe('what is said of the backups', () => {
  it('is fine only when the last is fresh, was rehearsed, and lies in two places', () => {
    expect(tones(keeping())).toEqual(['fine', 'fine', 'fine']);
    expect(keepingWords(keeping(), now)[0]?.words).toContain('7 h old');
  });

  it.each([
    ['none at all', keeping({ backups: [] }), 'alarm', /no backup/],
    ['none but a base', keeping({ backups: [backup({ kind: 'base' })] }), 'alarm', /no backup/],
    ['older than a night', keeping({ backups: [backup({ at: hoursAgo(27) })] }), 'attention', /one was due/],
    ['three days old', keeping({ backups: [backup({ at: hoursAgo(73) })] }), 'alarm', /3 days old/],
    ['never rehearsed', keeping({ rehearsedAt: null }), 'attention', /nobody knows that it works/],
    ['rehearsed long ago', keeping({ rehearsedAt: hoursAgo(24 * 15) }), 'attention', /last rehearsed/],
    [
      'the last rehearsal failed, whatever went well before',
      keeping({ backups: [backup({ triedAt: hoursAgo(6), triedWhy: 'lot is not what was kept' })] }),
      'alarm',
      /lot is not what was kept/,
    ],
    ['one place only', keeping({ backups: [backup({ second: null })] }), 'attention', /this machine only/],
    [
      'not in the second place',
      keeping({ backups: [backup({ second: 'failed', secondWhy: 'ENOENT' })] }),
      'alarm',
      /ENOENT/,
    ],
  ] as const)('%s', (_, k, tone, words) => {
    const [first] = keepingWords(k, now);
    expect(first?.tone).toBe(tone);
    expect(first?.words).toMatch(words);
  });
});
