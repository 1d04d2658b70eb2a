import { api } from '@zabrik/contract';
import type { Router } from 'express';
import { listBenchTimers } from '../../db/benchTimers.ts';
import { listCoolings } from '../../db/coolings.ts';
import { readHouse } from '../../db/house.ts';
import { forHouse } from '../../db/houseScope.ts';
import { HouseTable } from '../../db/models/house.ts';
import { serverRows } from '../../db/rows.ts';
import { keepsCosts } from '../../http/hideCosts.ts';
import { mountCommand, mountFile, mountOpen, mountPrepared, mountRead } from '../../http/mount.ts';
import { readGroupCursor } from '../../http/page.ts';
import { Problem } from '../../http/problem.ts';
import { sheetOf } from '../../paper/sheet.ts';
import { keepPhotograph, redraw } from '../../photographs/redraw.ts';
import type { Services } from '../../services.ts';
import { listBoned } from './boned.ts';
import { closeCooling, recordCooling, startCooling } from './coolings.ts';
import { finishBatch } from './finishBatch.ts';
import { listPlates, savePlate } from './plates.ts';
import { listBatches, listTimers, readBatchRow, readWholeBatch } from './queries.ts';
import { readRecipes, readRecipeVersions, saveRecipe } from './recipes.ts';
import { cancelBatch, planBatch, recordAtStove } from './service.ts';

export function potsRoutes(services: Services, router: Router): void {
  mountRead(services, router, api.pots.list, (actor, { query }) =>
    listBatches(services.db, actor.houseId, query.limit, readGroupCursor(query.cursor)),
  );
  mountRead(services, router, api.pots.recipes, (actor) => readRecipes(services, actor.houseId));
  mountRead(services, router, api.pots.recipeVersions, (actor, { params }) =>
    readRecipeVersions(services, actor.houseId, params.recipeId),
  );
  mountRead(services, router, api.pots.read, (actor, { params }) =>
    readWholeBatch(services.db, actor.houseId, params.batchId),
  );
  const timersOf = async (houseId: string) => ({
    at: services.clock().toISOString(),
    timers: [...(await listTimers(services.db, houseId)), ...(await listBenchTimers(services.db, houseId))].sort(
      (a, b) => a.dueAt.localeCompare(b.dueAt),
    ),
  });
  mountRead(services, router, api.pots.timers, (actor) => timersOf(actor.houseId));
  // a pot does not wait until somebody signs in
  mountOpen(router, api.pots.bells, async ({ params }) => {
    const house = await serverRows(services.db, HouseTable).one({ slug: params.slug });
    if (house === undefined) throw new Problem('not_found', 'There is no house by that name on this machine.');
    const { at, timers } = await forHouse(house.id, () => timersOf(house.id));
    return { at, bells: timers.map(({ id, label, title, dueAt }) => ({ id, label, title, dueAt })) };
  });
  mountRead(services, router, api.pots.boned, async (actor) => ({
    boned: await listBoned(services.db, actor.houseId),
  }));
  mountRead(services, router, api.pots.coolings, (actor) => listCoolings(services.db, actor.houseId, services.clock()));
  mountRead(services, router, api.pots.plates, (actor) => listPlates(services, actor));
  mountCommand(services, router, api.pots.savePlate, ['batches'], (command, asked) =>
    savePlate(services, command, asked),
  );
  mountPrepared(
    services,
    router,
    api.pots.photograph,
    [],
    (_, { body }) => redraw(body.base64),
    (command, _, redrawn) => keepPhotograph(services, command, null, redrawn),
  );
  mountCommand(services, router, api.pots.saveRecipe, ['catalogue'], (command, asked) =>
    saveRecipe(services, command, asked),
  );
  mountCommand(services, router, api.pots.plan, ['batches', 'lots'], (command, asked) =>
    planBatch(services, command, asked),
  );
  // what joins a pot is promised to it
  mountCommand(services, router, api.pots.event, ['batches', 'lots'], (command, asked) =>
    recordAtStove(services, command, asked),
  );
  mountCommand(services, router, api.pots.finish, ['batches', 'lots'], (command, asked) =>
    finishBatch(services, command, asked),
  );
  mountCommand(services, router, api.pots.cancel, ['batches', 'lots'], (command, { params }) =>
    cancelBatch(services, command, params.batchId),
  );
  mountCommand(services, router, api.pots.startCooling, ['coolings', 'lots'], (command, asked) =>
    startCooling(services, command, asked),
  );
  mountCommand(services, router, api.pots.readCooling, ['coolings', 'lots'], (command, asked) =>
    recordCooling(services, command, asked),
  );
  mountCommand(services, router, api.pots.closeCooling, ['coolings', 'lots'], (command, asked) =>
    closeCooling(services, command, asked),
  );
  mountFile(services, router, api.paper.batch, async (actor, { params }) => {
    const { batchSheet } = await import('./sheets.ts');
    const house = await readHouse(services.db, actor);
    const batch = await readBatchRow(services.db, actor.houseId, params.batchId);
    return sheetOf(
      services,
      actor,
      'batch',
      batch.recipe.title,
      batchSheet(batch, house.currency, !(await keepsCosts(services.db, actor))),
    );
  });
}
