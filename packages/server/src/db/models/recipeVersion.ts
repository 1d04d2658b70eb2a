import type { Recipe } from '@zabrik/core';
import { json, key, table, text, uuid } from '../table.ts';

/** A recipe as it was made by, kept once for all batches made by it. The id follows from the words. */
export const RecipeVersionTable = table(
  'recipe_version',
  {
    houseId: key(uuid),
    id: key(text()),
    recipe: json<Recipe>(),
  },
  { inFile: { order: 'id' } },
);
