/** The reads that a screen of this station opens with: asked for by its loader, beside its script. */
import { call } from '../../app/api.ts';
import { api } from '../../app/endpoints.ts';
import type { ReadsAt } from '../../app/screenAt.ts';

/** What can be made. Changes with the catalogue, and its batches with every batch. */
export const recipesQuery = { queryKey: ['batches', 'recipes'], queryFn: () => call(api.pots.recipes, {}) } as const;
export const recipeVersionsQuery = (recipeId: string) =>
  ({
    queryKey: ['batches', 'recipes', recipeId],
    queryFn: () => call(api.pots.recipeVersions, { params: { recipeId } }),
  }) as const;
export const batchesQuery = {
  queryKey: ['batches', 'list'],
  queryFn: () => call(api.pots.list, { query: { limit: 60 } }),
} as const;
export const batchQuery = (batchId: string) =>
  ({
    queryKey: ['batches', 'one', batchId],
    queryFn: () => call(api.pots.read, { params: { batchId } }),
  }) as const;
export const coolingsQuery = { queryKey: ['coolings', 'list'], queryFn: () => call(api.pots.coolings, {}) } as const;
/** Changes with every lot that is made, used or held back. */
export const platesQuery = { queryKey: ['lots', 'plates'], queryFn: () => call(api.pots.plates, {}) } as const;

export const potsReads: ReadsAt = {
  '/pots': () => [recipesQuery, batchesQuery],
  '/pots/recipes/:recipeId': ({ recipeId = '' }) => [recipesQuery, recipeVersionsQuery(recipeId)],
  '/pots/stove': () => [batchesQuery],
  '/pots/stove/:batchId': ({ batchId = '' }) => [batchQuery(batchId)],
  '/pots/cooling': () => [coolingsQuery],
  '/pots/plates': () => [platesQuery],
};
