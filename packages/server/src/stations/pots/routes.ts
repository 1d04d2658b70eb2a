import { api } from '@zabrik/contract';
import type { Router } from 'express';
import { listCoolings } from '../../db/coolings.ts';
import { mountCommand, mountRead } from '../../http/mount.ts';
import { readGroupCursor } from '../../http/page.ts';
import type { Kitchen } from '../../kitchen.ts';
import { listBoned } from './boned.ts';
import { closeCooling, recordCooling, startCooling } from './coolings.ts';
import { finishBatch } from './finishBatch.ts';
import { listBatches, listTimers, readWholeBatch } from './queries.ts';
import { readRecipes, readRecipeVersions, saveRecipe } from './recipes.ts';
import { cancelBatch, planBatch, recordAtStove } from './service.ts';

export function potsRoutes(kitchen: Kitchen, router: Router): void {
  mountRead(router, api.pots.list, (who, { query }) =>
    listBatches(kitchen.db, who.houseId, query.limit, readGroupCursor(query.cursor)),
  );
  mountRead(router, api.pots.recipes, (who) => readRecipes(kitchen, who.houseId));
  mountRead(router, api.pots.recipeVersions, (who, { params }) =>
    readRecipeVersions(kitchen, who.houseId, params.recipeId),
  );
  mountRead(router, api.pots.read, (who, { params }) => readWholeBatch(kitchen.db, who.houseId, params.batchId));
  mountRead(router, api.pots.timers, async (who) => ({
    at: kitchen.clock().toISOString(),
    timers: await listTimers(kitchen.db, who.houseId),
  }));
  mountRead(router, api.pots.boned, async (who) => ({ boned: await listBoned(kitchen.db, who.houseId) }));
  mountRead(router, api.pots.coolings, (who) => listCoolings(kitchen.db, who.houseId, kitchen.clock()));
  mountCommand(kitchen, router, api.pots.saveRecipe, ['catalogue'], (command, asked) =>
    saveRecipe(kitchen, command, asked),
  );
  mountCommand(kitchen, router, api.pots.plan, ['batches', 'lots'], (command, asked) =>
    planBatch(kitchen, command, asked),
  );
  mountCommand(kitchen, router, api.pots.event, ['batches'], (command, asked) =>
    recordAtStove(kitchen, command, asked),
  );
  mountCommand(kitchen, router, api.pots.finish, ['batches', 'lots'], (command, asked) =>
    finishBatch(kitchen, command, asked),
  );
  mountCommand(kitchen, router, api.pots.cancel, ['batches', 'lots'], (command, { params }) =>
    cancelBatch(kitchen, command, params.batchId),
  );
  mountCommand(kitchen, router, api.pots.startCooling, ['coolings', 'lots'], (command, asked) =>
    startCooling(kitchen, command, asked),
  );
  mountCommand(kitchen, router, api.pots.readCooling, ['coolings', 'lots'], (command, asked) =>
    recordCooling(kitchen, command, asked),
  );
  mountCommand(kitchen, router, api.pots.closeCooling, ['coolings', 'lots'], (command, asked) =>
    closeCooling(kitchen, command, asked),
  );
}
