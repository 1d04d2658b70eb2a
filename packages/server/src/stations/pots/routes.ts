import { api } from '@zabrik/contract';
import type { Router } from 'express';
import { listBenchTimers } from '../../db/benchTimers.ts';
import { listCoolings } from '../../db/coolings.ts';
import { mountCommand, mountPrepared, mountRead } from '../../http/mount.ts';
import { readGroupCursor } from '../../http/page.ts';
import type { Kitchen } from '../../kitchen.ts';
import { keepPhotograph, redraw } from '../../photographs/redraw.ts';
import { listBoned } from './boned.ts';
import { closeCooling, recordCooling, startCooling } from './coolings.ts';
import { finishBatch } from './finishBatch.ts';
import { listPlates, savePlate } from './plates.ts';
import { listBatches, listTimers, readWholeBatch } from './queries.ts';
import { readRecipes, readRecipeVersions, saveRecipe } from './recipes.ts';
import { cancelBatch, planBatch, recordAtStove } from './service.ts';

export function potsRoutes(kitchen: Kitchen, router: Router): void {
  mountRead(kitchen, router, api.pots.list, (actor, { query }) =>
    listBatches(kitchen.db, actor.houseId, query.limit, readGroupCursor(query.cursor)),
  );
  mountRead(kitchen, router, api.pots.recipes, (actor) => readRecipes(kitchen, actor.houseId));
  mountRead(kitchen, router, api.pots.recipeVersions, (actor, { params }) =>
    readRecipeVersions(kitchen, actor.houseId, params.recipeId),
  );
  mountRead(kitchen, router, api.pots.read, (actor, { params }) =>
    readWholeBatch(kitchen.db, actor.houseId, params.batchId),
  );
  mountRead(kitchen, router, api.pots.timers, async (actor) => ({
    at: kitchen.clock().toISOString(),
    timers: [
      ...(await listTimers(kitchen.db, actor.houseId)),
      ...(await listBenchTimers(kitchen.db, actor.houseId)),
    ].sort((a, b) => a.dueAt.localeCompare(b.dueAt)),
  }));
  mountRead(kitchen, router, api.pots.boned, async (actor) => ({ boned: await listBoned(kitchen.db, actor.houseId) }));
  mountRead(kitchen, router, api.pots.coolings, (actor) => listCoolings(kitchen.db, actor.houseId, kitchen.clock()));
  mountRead(kitchen, router, api.pots.plates, (actor) => listPlates(kitchen, actor));
  mountCommand(kitchen, router, api.pots.savePlate, ['batches'], (command, asked) =>
    savePlate(kitchen, command, asked),
  );
  mountPrepared(
    kitchen,
    router,
    api.pots.photograph,
    [],
    (_, { body }) => redraw(body.base64),
    (command, _, redrawn) => keepPhotograph(kitchen, command, null, redrawn),
  );
  mountCommand(kitchen, router, api.pots.saveRecipe, ['catalogue'], (command, asked) =>
    saveRecipe(kitchen, command, asked),
  );
  mountCommand(kitchen, router, api.pots.plan, ['batches', 'lots'], (command, asked) =>
    planBatch(kitchen, command, asked),
  );
  // what joins a pot is promised to it
  mountCommand(kitchen, router, api.pots.event, ['batches', 'lots'], (command, asked) =>
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
