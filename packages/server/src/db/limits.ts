import { limitProfiles } from '@zabrik/catalogue';
import type { Judged } from '@zabrik/contract';
import { type Limit, type LimitProfile, type LotJudged, type ShelfLife, withFigure } from '@zabrik/core';
import type { Sequelize, Transaction } from 'sequelize';
import { select, selectOne } from './select.ts';

export interface LimitChange {
  readonly limitId: string;
  readonly figure: number;
  readonly why: string;
}

export interface LimitChoice {
  readonly profile: LimitProfile;
  readonly changes: readonly LimitChange[];
  /** Nobody has chosen yet: it stands by the house's time zone, and the screen says so. */
  readonly selected: boolean;
}

/** Until someone chooses: the profile of the region the house's clock runs in. */
const usualProfile = (timezone: string): string =>
  timezone === 'Europe/London' || timezone === 'Europe/Belfast'
    ? 'uk'
    : timezone.startsWith('America/')
      ? 'us-food-code-2022'
      : 'eu';

export const profileNamed = (id: string): LimitProfile | undefined => limitProfiles.find((p) => p.id === id);

export async function readLimitChoice(
  db: Sequelize,
  houseId: string,
  timezone: string,
  transaction?: Transaction,
): Promise<LimitChoice> {
  const row = await selectOne<{ profile_id: string; changes: LimitChange[] }>(
    db,
    'select profile_id, changes from house_limits where house_id = $1 order by seq desc limit 1',
    [houseId],
    transaction,
  );
  const profile = profileNamed(row?.profile_id ?? usualProfile(timezone)) ?? limitProfiles[0];
  if (profile === undefined) throw new Error('the catalogue has no limit profile');
  return { profile, changes: row?.changes ?? [], selected: row !== undefined };
}

/** The limits as the house has them: its own figures where it set any. */
export const limitsOf = ({ profile, changes }: LimitChoice): Limit[] =>
  profile.limits.map((limit) => {
    const change = changes.find((c) => c.limitId === limit.id);
    return change === undefined ? limit : withFigure(limit, change.figure);
  });

/** What the profile says of how long cooked or opened food keeps; undefined where it is silent or we are not sure enough of it. */
export function shelfLifeOf(limits: readonly Limit[], of: 'made' | 'opened'): ShelfLife | undefined {
  const marks = limits.filter(
    (l): l is ShelfLife => l.kind === 'shelf_life' && l.topic === 'date-marking' && l.certainty !== 'low',
  );
  const opened = marks.find((l) => l.id.includes('opened'));
  return of === 'opened' ? (opened ?? marks[0]) : (marks.find((l) => l !== opened) ?? undefined);
}

const about: Readonly<Record<LotJudged['about'], string>> = {
  storage: 'storage',
  histamine: 'out of the cold',
  parasites: 'in the freezer, for fish served raw',
};
const figure = (j: LotJudged, n: number): string =>
  j.about === 'storage' ? `${n.toFixed(1)} °C` : `${n.toFixed(1)} h`;

/** A judgement in words: within or outside the limit the house selected, never more than that. */
export const judgedWords = (j: LotJudged): Judged => ({
  limitId: j.limit.id,
  about: j.about,
  verdict: j.verdict,
  says: `${about[j.about]}: ${figure(j, j.figure)}, ${j.verdict === 'open' ? 'not yet' : j.verdict} the limit you selected of ${figure(j, j.allowed)}`,
  document: `${j.limit.citation.document} ${j.limit.citation.section}`,
  certainty: j.limit.certainty,
});

export const readLimitHistory = (db: Sequelize, houseId: string) =>
  select<{ at: Date; by: string; profileId: string; changes: number; note: string }>(
    db,
    `select l.at, p.name as by, l.profile_id as "profileId", jsonb_array_length(l.changes) as changes, l.note
     from house_limits l join person p on p.id = l.person_id where l.house_id = $1 order by l.seq desc limit 50`,
    [houseId],
  );
