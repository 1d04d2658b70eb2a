/** How long a batch keeps: by its recipe and the state it is kept in, by the profile, and by what went in. */
import { addDays, lastDay } from '../safety/judge.ts';
import type { ShelfLife } from '../safety/limit.ts';
import type { KeptAs, Recipe, RecipeKeep } from './recipe.ts';

/** States a recipe may be kept in as this profile knows them, each once, the usual one first; frozen is the larder's to do. */
export function waysKept(recipe: Recipe, profileId: string): readonly RecipeKeep[] {
  const here = recipe.keeps.filter((k) => k.as !== 'frozen' && k.as !== 'hot' && appliesIn(k, profileId));
  const states = [...new Set(here.map((k) => k.as))];
  return states.flatMap((as) => {
    const same = here.filter((k) => k.as === as);
    // two rules for one state: the shorter
    return same.reduce<RecipeKeep | undefined>((a, b) => (a === undefined || b.days < a.days ? b : a), undefined) ?? [];
  });
}

const appliesIn = (keep: RecipeKeep, profileId: string): boolean =>
  keep.profiles === undefined || keep.profiles.includes(profileId);

/** Whether making it starts a clock of its own: a step that kills what was in it. Only putting things together does not. */
export const startsClock = (recipe: Recipe): boolean => recipe.steps.some((s) => s.kills === true);

export interface BatchDate {
  readonly useBy: string;
  /** What set it. */
  readonly by: 'recipe' | 'limit' | 'what went in';
  readonly days: number;
  /** The cold the date presumes, °C; null: none. */
  readonly maxC: number | null;
}

/**
 * The last day a batch may be used.
 *
 * Shapes  today: the day it was made. earliest: the first date of what went in, of animals and of goods alike; null where none had one.
 *         limit: what the profile says of food made here; it binds what is kept plainly chilled, and every state where it is a code or law.
 * Keeps   never later than the recipe's own state, the limit, or, where nothing was cooked through, what went in.
 *
 * @example crab of its last day in mayonnaise that keeps a day -> today
 */
export function batchDate(
  recipe: Recipe,
  keep: RecipeKeep | undefined,
  today: string,
  earliest: string | null,
  limit: ShelfLife | undefined,
): BatchDate {
  const days = keep?.days ?? recipe.shelfLifeDays;
  // a day of keeping is one night: a thing of one day is used up tomorrow, of none today
  let date: BatchDate = {
    useBy: addDays(today, Math.floor(days)),
    by: 'recipe',
    days,
    maxC: keep?.maxC ?? null,
  };
  const chilled = keep === undefined || keep.as === 'chilled';
  if (
    recipe.ready &&
    limit !== undefined &&
    recipe.category !== 'rendered-fat' &&
    keep?.as !== 'dry' &&
    (chilled || limit.force !== 'guidance')
  ) {
    const latest = lastDay(limit, today);
    if (latest < date.useBy)
      date = { useBy: latest, by: 'limit', days: limit.value.max_days, maxC: limit.value.at_max_C ?? null };
  }
  if (!startsClock(recipe) && earliest !== null && earliest < date.useBy)
    date = { ...date, useBy: earliest, by: 'what went in' };
  return date;
}

/** States a batch may be said to be kept in, in the trade's words. */
export const keptAsNames: Readonly<Record<KeptAs, string>> = {
  raw: 'raw, chilled',
  chilled: 'chilled',
  cured: 'cured, chilled',
  'under-fat': 'under fat, chilled',
  vacuum: 'vacuum-packed, chilled',
  dry: 'dry',
  hot: 'held hot',
  frozen: 'frozen',
};
