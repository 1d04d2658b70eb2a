import type { Answer, api } from '@zabrik/contract';
import { ageWords, dayAndTime } from '../../app/dates.ts';

export type Keeping = Answer<typeof api.house.keeping>;

export interface Said {
  readonly tone: 'fine' | 'attention' | 'alarm';
  readonly words: string;
}

const HOUR = 3_600_000;
/** A night and a little: what `serve` keeps to. */
const LATE_MS = 26 * HOUR;
const LOST_MS = 72 * HOUR;
const REHEARSED_MS = 14 * 24 * HOUR;

/** What can be said of the backups, the worst first. Nothing is called fine that nobody has tried. */
export function keepingWords({ backups, rehearsedAt }: Keeping, now: Date): Said[] {
  const dumps = backups.filter((b) => b.kind === 'dump');
  const [last] = dumps;
  if (last === undefined)
    return [
      {
        tone: 'alarm',
        words:
          'There is no backup of these records. ./zabrik serve makes one every night; ./zabrik backup makes one now.',
      },
    ];
  const age = now.getTime() - Date.parse(last.at);
  const tried = dumps.find((b) => b.triedAt !== null);
  const said: Said[] = [
    {
      tone: age > LOST_MS ? 'alarm' : age > LATE_MS ? 'attention' : 'fine',
      words: `The last backup is ${age < 60_000 ? 'less than a minute' : ageWords(last.at, now)} old (${dayAndTime(last.at)})${age > LATE_MS ? ': one was due since. Is ./zabrik serve running at night, and is there room on the disk?' : '.'}`,
    },
  ];
  if (tried?.triedWhy != null)
    said.push({
      tone: 'alarm',
      words: `Bringing it back was tried on ${dayAndTime(tried.triedAt ?? '')}, and failed: ${tried.triedWhy}. Make another, and try that.`,
    });
  else if (rehearsedAt === null)
    said.push({
      tone: 'attention',
      words: 'None has been brought back for a rehearsal yet: nobody knows that it works. ./zabrik rehearse tries.',
    });
  else
    said.push({
      tone: now.getTime() - Date.parse(rehearsedAt) > REHEARSED_MS ? 'attention' : 'fine',
      words: `Bringing one back was last rehearsed on ${dayAndTime(rehearsedAt)}: all of it was there and the ledger was whole.`,
    });
  said.push(
    last.second === 'kept'
      ? { tone: 'fine', words: 'It lies in a second place too.' }
      : last.second === 'failed'
        ? { tone: 'alarm', words: `It is not in the second place: ${last.secondWhy}.` }
        : {
            tone: 'attention',
            words:
              'It lies on this machine only: a broken disk takes records and backup together. Name a folder on another disk with ZABRIK_BACKUPS_SECOND.',
          },
  );
  const rank = { alarm: 0, attention: 1, fine: 2 } as const;
  return said.sort((a, b) => rank[a.tone] - rank[b.tone]);
}
