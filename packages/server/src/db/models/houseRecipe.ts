import type { Recipe } from '@zabrik/core';
import { filled, json, key, table, text, uuid, when, whole, yes } from '../table.ts';

/** A version of a recipe that the house made, changed or retired. */
export const HouseRecipeTable = table(
  'house_recipe',
  {
    houseId: key(uuid),
    recipeId: key(text()),
    version: key(whole),
    body: json<Recipe>(),
    retired: filled(yes),
    note: text(),
    personId: uuid,
    at: when,
  },
  { inFile: { order: 'recipe_id, version' } },
);
