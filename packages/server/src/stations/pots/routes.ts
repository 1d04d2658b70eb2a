import { api } from '@zabrik/contract';
import type { Router } from 'express';
import { listCoolings } from '../../db/coolings.ts';
import { mountCommand, mountRead } from '../../http/mount.ts';
import { readGroupCursor } from '../../http/page.ts';
import type { Kitchen } from '../../kitchen.ts';
import { listBoned } from './boned.ts';
import { closeCooling, recordCooling, startCooling } from './coolings.ts';
import { finishRun } from './finishRun.ts';
import { listRuns, listTimers, readWholeRun } from './queries.ts';
import { cancelRun, planRun, recordAtStove } from './service.ts';
import { readUses, readUseVersions, saveUse } from './uses.ts';

export function potsRoutes(kitchen: Kitchen, router: Router): void {
  mountRead(router, api.pots.list, (who, { query }) =>
    listRuns(kitchen.db, who.houseId, query.limit, readGroupCursor(query.cursor)),
  );
  mountRead(router, api.pots.uses, (who) => readUses(kitchen, who.houseId));
  mountRead(router, api.pots.useVersions, (who, { params }) => readUseVersions(kitchen, who.houseId, params.useId));
  mountRead(router, api.pots.read, (who, { params }) => readWholeRun(kitchen.db, who.houseId, params.runId));
  mountRead(router, api.pots.timers, async (who) => ({
    at: kitchen.clock().toISOString(),
    timers: await listTimers(kitchen.db, who.houseId),
  }));
  mountRead(router, api.pots.boned, async (who) => ({ boned: await listBoned(kitchen.db, who.houseId) }));
  mountRead(router, api.pots.coolings, (who) => listCoolings(kitchen.db, who.houseId, kitchen.clock()));
  mountCommand(kitchen, router, api.pots.saveUse, ['catalogue'], (command, asked) => saveUse(kitchen, command, asked));
  mountCommand(kitchen, router, api.pots.plan, ['runs', 'lots'], (command, asked) => planRun(kitchen, command, asked));
  mountCommand(kitchen, router, api.pots.event, ['runs'], (command, asked) => recordAtStove(kitchen, command, asked));
  mountCommand(kitchen, router, api.pots.finish, ['runs', 'lots'], (command, asked) =>
    finishRun(kitchen, command, asked),
  );
  mountCommand(kitchen, router, api.pots.cancel, ['runs', 'lots'], (command, { params }) =>
    cancelRun(kitchen, command, params.runId),
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
