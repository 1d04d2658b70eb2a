/** The house's recipes: the handbook's as they stand, its own versions above them, and what its batches gave. */

import { allCategories, neverIn, recipeById } from '@zabrik/catalogue';
import type { Answer, Asked, api, ListedRecipe } from '@zabrik/contract';
import { carryAllergens, type Recipe, recipeFaults } from '@zabrik/core';
import type { Sequelize, Transaction } from 'sequelize';
import { goodsHere } from '../../db/goodsHere.ts';
import { HouseRecipeTable } from '../../db/models/houseRecipe.ts';
import { findRecipe, listRecipes, listRecipeVersions, type OwnRecipe } from '../../db/recipes.ts';
import { rowsOf } from '../../db/rows.ts';
import { select } from '../../db/select.ts';
import { Problem } from '../../http/problem.ts';
import { photographsAreHere } from '../../photographs/redraw.ts';
import type { InCommand, Services } from '../../services.ts';

interface DoneRow {
  readonly recipeId: string;
  readonly batchId: string;
  readonly ways: string[];
  readonly ratio: number;
  readonly baseMg: number;
  readonly at: Date;
}

/** How many batches of a recipe are told: more would not move what is expected of the next. */
const TOLD = 40;

/** What batches gave, the latest first: of one use, or of every one. */
export const readBatches = (db: Sequelize, houseId: string, recipeId: string | null, transaction?: Transaction) =>
  select<DoneRow>(
    db,
    `select recipe_id as "recipeId", id as "batchId", ways, (output_mg::float8 / base_mg) as ratio, base_mg as "baseMg", done_at as at from (
       select *, row_number() over (partition by recipe_id order by done_at desc) as n from batch
       where house_id = $1 and state = 'done' and ($2::text is null or recipe_id = $2)) r
     where n <= ${TOLD} order by done_at desc`,
    [houseId, recipeId],
    transaction,
  );

const listed = (
  { recipe, own }: { readonly recipe: ListedRecipe['recipe']; readonly own: OwnRecipe | undefined },
  batches: readonly DoneRow[],
): ListedRecipe => ({
  recipe,
  own: own !== undefined,
  retired: own?.retired ?? false,
  changed: own === undefined ? null : { by: own.by, at: own.at.toISOString(), note: own.note },
  batches: batches
    .filter((b) => b.recipeId === recipe.id)
    .map(({ batchId, ways, ratio, baseMg, at }) => ({ batchId, ways, ratio, baseMg, at: at.toISOString() })),
});

export async function readRecipes({ db }: Services, houseId: string): Promise<Answer<typeof api.pots.recipes>> {
  const [recipes, batches] = await Promise.all([listRecipes(db, houseId), readBatches(db, houseId, null)]);
  return { recipes: recipes.map((u) => listed(u, batches)) };
}

export async function readRecipeVersions(
  { db }: Services,
  houseId: string,
  recipeId: string,
): Promise<Answer<typeof api.pots.recipeVersions>> {
  const own = await listRecipeVersions(db, houseId, recipeId);
  const handbook = recipeById.get(recipeId);
  if (own.length === 0 && handbook === undefined) throw new Problem('not_found', 'There is no such recipe.');
  return {
    versions: [
      ...own.map(({ recipe, by, at, note }) => ({ recipe, by, at: at.toISOString(), note })),
      ...(handbook === undefined ? [] : [{ recipe: handbook, by: null, at: null, note: 'The handbook’s' }]),
    ],
  };
}

/**
 * Saves the house's version of a recipe. Never-eaten kinds stay refused, and an allergen of the handbook's never gets lost.
 *
 * Errors  `invalid` while it cannot be made as it stands, with all that is wrong (recipeFaults): the allergens of an ingredient not said among them; `changed_since` when someone saved another version meanwhile.
 */
export async function saveRecipe(
  { db }: Services,
  command: InCommand,
  { body }: Asked<typeof api.pots.saveRecipe>,
): Promise<ListedRecipe> {
  const { actor, at, transaction } = command;
  const { recipe, from, note, retired } = body;
  const listedHere = await listRecipes(db, actor.houseId);
  const faults = recipeFaults(recipe as Recipe, {
    categories: new Set(allCategories.map((c) => c.id)),
    never: new Set(neverIn.map((n) => n.category)),
    recipes: new Set([recipe.id, ...listedHere.map((r) => r.recipe.id)]),
    goods: new Set(goodsHere().map((g) => g.id)),
  });
  // one that is not made here any more may be as it is
  const [fault] = retired ? [] : faults;
  if (fault !== undefined)
    throw new Problem(
      'invalid',
      fault.message,
      faults.map(({ path, message }) => ({ path: `recipe.${path}`, message })),
    );
  if (!retired) await photographsAreHere(db, command, [recipe.photo, ...recipe.steps.map((s) => s.photo)]);
  await db.query('select pg_advisory_xact_lock(hashtextextended($1, 8))', {
    bind: [`${actor.houseId}/${recipe.id}`],
    transaction,
  });
  const now = await findRecipe(db, actor.houseId, recipe.id, transaction);
  if ((now?.recipe.version ?? 0) !== from) throw new Problem('changed_since');
  const handbook = recipeById.get(recipe.id);
  const refused = new Set(recipe.refuses.map((r) => r.category));
  const saved: ListedRecipe['recipe'] = {
    ...recipe,
    version: from + 1,
    allergens: carryAllergens(recipe.allergens, handbook?.allergens ?? []),
    ingredients: recipe.ingredients.map((i) => ({
      ...i,
      allergens: carryAllergens(i.allergens, handbook?.ingredients.find((h) => h.id === i.id)?.allergens ?? []),
    })),
    refuses: [
      ...recipe.refuses,
      ...(handbook?.refuses ?? []).filter((r) => !refused.has(r.category) && !recipe.accepts.includes(r.category)),
    ],
  };
  await rowsOf(db, HouseRecipeTable, command).add({
    recipeId: recipe.id,
    version: saved.version,
    body: saved,
    retired,
    note,
    personId: actor.personId,
    at,
  });
  return listed(
    { recipe: saved, own: { recipe: saved, retired, note, by: actor.name, at } },
    await readBatches(db, actor.houseId, recipe.id, transaction),
  );
}
