/** Until when what was made keeps, and by what. */
import { batchDate, type KeptAs, keptAsNames, type Recipe, waysKept } from '@zabrik/core';
import { dayIn } from '../../db/house.ts';
import { limitsOf, readLimitChoice, shelfLifeOf } from '../../db/limits.ts';
import type { HouseRow } from '../../db/models/house.ts';
import { Problem } from '../../http/problem.ts';
import type { InCommand, Services } from '../../services.ts';

export interface Dated {
  readonly useBy: string;
  readonly dateBasis: string;
  readonly dateLimit: string | null;
  readonly dateMaxC: number | null;
}

/** The date of what was made, where it comes from in words, and the cold it presumes. Errors: `invalid` for a state its recipe does not know. */
export async function dateOf(
  { db }: Services,
  { actor, at, transaction }: InCommand,
  house: HouseRow,
  recipe: Recipe,
  said: KeptAs | null,
  earliest: string | null,
): Promise<Dated> {
  const today = dayIn(house.timezone, at);
  const choice = await readLimitChoice(db, actor.houseId, house.timezone, transaction);
  const ways = waysKept(recipe, choice.profile.id);
  const keep = said === null ? ways[0] : ways.find((k) => k.as === said);
  if (said !== null && keep === undefined)
    throw new Problem('invalid', undefined, [{ path: 'keptAs', message: `${recipe.title} is not kept like that` }]);
  const limit = recipe.ready ? shelfLifeOf(limitsOf(choice), 'made', 'ready') : undefined;
  const date = batchDate(recipe, keep, today, earliest, limit);
  const basis =
    date.by === 'limit' && limit !== undefined
      ? `${date.days} days by ${limit.citation.document} ${limit.citation.section}`
      : date.by === 'what went in'
        ? 'the oldest date of what went in: nothing here was cooked through'
        : `${date.days} ${date.days === 1 ? 'day' : 'days'} ${keep === undefined ? '' : `${keptAsNames[keep.as]}, `}usual for ${recipe.title.toLowerCase()}`;
  return {
    useBy: date.useBy,
    dateBasis: basis,
    dateLimit: date.by === 'limit' ? (limit?.id ?? null) : null,
    dateMaxC: date.maxC,
  };
}
