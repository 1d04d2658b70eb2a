/** Recipes of a house: the handbook's, and above them what the house has made, changed or retired. */
import { allRecipes, recipeById } from '@zabrik/catalogue';
import type { Recipe } from '@zabrik/core';
import type { Sequelize, Transaction } from 'sequelize';
import { select, selectOne } from './select.ts';

export interface OwnRecipe {
  readonly recipe: Recipe;
  readonly retired: boolean;
  readonly note: string;
  readonly by: string;
  readonly at: Date;
}

const OWN = `u.body as recipe, u.retired, u.note, p.name as by, u.at from house_recipe u join person p on p.id = u.person_id where u.house_id = $1`;

/** A recipe by its id as the house has it now; undefined where there is none. */
export async function findRecipe(
  db: Sequelize,
  houseId: string,
  recipeId: string,
  transaction?: Transaction,
): Promise<{ readonly recipe: Recipe; readonly own: OwnRecipe | undefined } | undefined> {
  const own = await selectOne<OwnRecipe>(
    db,
    `select ${OWN} and u.recipe_id = $2 order by u.version desc limit 1`,
    [houseId, recipeId],
    transaction,
  );
  const recipe = own?.recipe ?? recipeById.get(recipeId);
  return recipe === undefined ? undefined : { recipe, own };
}

/** Every version of a recipe that the house has made, the latest first. */
export const listRecipeVersions = (db: Sequelize, houseId: string, recipeId: string): Promise<OwnRecipe[]> =>
  select<OwnRecipe>(db, `select ${OWN} and u.recipe_id = $2 order by u.version desc`, [houseId, recipeId]);

/** All uses of a house, the handbook's first, in the handbook's order. */
export async function listRecipes(
  db: Sequelize,
  houseId: string,
): Promise<{ readonly recipe: Recipe; readonly own: OwnRecipe | undefined }[]> {
  const rows = await select<OwnRecipe>(
    db,
    `select distinct on (u.recipe_id) ${OWN} order by u.recipe_id, u.version desc`,
    [houseId],
  );
  const byId = new Map(rows.map((row) => [row.recipe.id, row]));
  return [
    ...allRecipes.map((recipe) => ({ recipe: byId.get(recipe.id)?.recipe ?? recipe, own: byId.get(recipe.id) })),
    ...rows.filter((row) => !recipeById.has(row.recipe.id)).map((own) => ({ recipe: own.recipe, own })),
  ];
}
