import { limitProfiles } from '@zabrik/catalogue';
import type { Judged } from '@zabrik/contract';
import {
  type Food,
  formatTemperature,
  type Limit,
  type LimitProfile,
  type LotJudged,
  limitsFor,
  type ShelfLife,
  withFigure,
} from '@zabrik/core';
import type { Sequelize, Transaction } from 'sequelize';
import { HouseLimitsTable } from './models/houseLimits.ts';
import { rowsOf } from './rows.ts';
import { select } from './select.ts';

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

/** Clocks of the United States and its territories: the rest of the Americas has codes of its own. */
const unitedStates: ReadonlySet<string> = new Set(
  [
    ...['New_York', 'Detroit', 'Chicago', 'Menominee', 'Denver', 'Boise', 'Phoenix', 'Los_Angeles', 'Anchorage'],
    ...['Juneau', 'Sitka', 'Metlakatla', 'Yakutat', 'Nome', 'Adak', 'Puerto_Rico', 'St_Thomas'],
  ].map((city) => `America/${city}`),
);
const elsewhereInTheStates =
  /^(America\/(Kentucky|Indiana|North_Dakota)\/|US\/|Pacific\/(Honolulu|Johnston|Guam|Saipan|Pago_Pago|Midway)$)/;
const unitedKingdom: ReadonlySet<string> = new Set([
  'Europe/London',
  'Europe/Belfast',
  'GB',
  'GB-Eire',
  'Europe/Jersey',
  'Europe/Guernsey',
  'Europe/Isle_of_Man',
]);

/** Until someone chooses: the profile of the country the house's clock runs in, where we have it; else the EU's, and the screen says so. */
export const usualProfile = (timezone: string): string =>
  unitedKingdom.has(timezone)
    ? 'uk'
    : unitedStates.has(timezone) || elsewhereInTheStates.test(timezone)
      ? 'us-food-code-2022'
      : 'eu';

export const profileNamed = (id: string): LimitProfile | undefined => limitProfiles.find((p) => p.id === id);

export async function readLimitChoice(
  db: Sequelize,
  houseId: string,
  timezone: string,
  transaction?: Transaction,
): Promise<LimitChoice> {
  const row = await rowsOf(db, HouseLimitsTable, { houseId, transaction }).one({}, { order: ['-seq'] });
  const profile = profileNamed(row?.profileId ?? usualProfile(timezone)) ?? limitProfiles[0];
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
export const shelfLifeOf = (limits: readonly Limit[], of: 'made' | 'opened', food: Food): ShelfLife | undefined =>
  limitsFor(limits, 'shelf_life', of, food)[0];

const about: Readonly<Record<LotJudged['about'], string>> = {
  storage: 'storage',
  date: 'its date presumes the cold',
  histamine: 'out of the cold',
  parasites: 'in the freezer, for fish served raw',
};
const figure = (j: LotJudged, n: number): string =>
  j.about === 'storage' || j.about === 'date' ? formatTemperature(Math.round(n * 100)) : `${n.toFixed(1)} h`;

const saidOf = ({ verdict, about }: LotJudged): string =>
  verdict === 'open'
    ? about === 'histamine'
      ? 'so far, it stands warm; within'
      : 'not yet'
    : verdict === 'not-shown'
      ? 'not shown to be within'
      : verdict;

/** A judgement in words: within or outside the limit the house selected, never more than that. */
export const judgedWords = (j: LotJudged, dateBasis: string | null): Judged => ({
  limitId: j.limit?.id ?? 'recipe',
  about: j.about,
  verdict: j.verdict,
  says: `${about[j.about]}: ${j.about === 'histamine' ? 'up to ' : ''}${figure(j, j.figure)}, ${saidOf(j)} the limit you selected of ${figure(j, j.allowed)}${
    j.unreadHours === undefined || j.unreadHours === 0 ? '' : `; nobody read it for ${j.unreadHours.toFixed(0)} h`
  }`,
  document: j.limit === null ? (dateBasis ?? 'its recipe') : `${j.limit.citation.document} ${j.limit.citation.section}`,
  certainty: j.limit?.certainty ?? 'medium',
});

export const readLimitHistory = (db: Sequelize, houseId: string) =>
  select<{ at: Date; by: string; profileId: string; changes: number; note: string }>(
    db,
    `select l.at, p.name as by, l.profile_id as "profileId", jsonb_array_length(l.changes) as changes, l.note
     from house_limits l join person p on p.id = l.person_id where l.house_id = $1 order by l.seq desc limit 50`,
    [houseId],
  );
