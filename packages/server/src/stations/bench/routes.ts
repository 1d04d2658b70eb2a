import { api } from '@zabrik/contract';
import type { Router } from 'express';
import { readHead } from '../../db/breakdownHead.ts';
import { mountCommand, mountRead } from '../../http/mount.ts';
import { pageOf, readCursor } from '../../http/page.ts';
import { Problem } from '../../http/problem.ts';
import type { Kitchen } from '../../kitchen.ts';
import { takeBack } from '../../massledger/takeBack.ts';
import { cancelBreakdown, closeStage } from './close.ts';
import { recordEvent } from './event.ts';
import { readPlanSheet, retirePlan, savePlan, saveSpecies } from './plans.ts';
import { listBenchPeople, listOpenBreakdowns, listWaiting, readBreakdown } from './queries.ts';
import { goOn, startBreakdown } from './start.ts';

const SCALE_REFUSALS: Readonly<Record<string, string>> = {
  moving: 'The pan is still moving. Let it rest, then try again.',
  nothing: 'There is nothing on the pan to tare.',
  'too-far': 'Too much on the pan to set zero. Clear it first.',
};

export function benchRoutes(kitchen: Kitchen, router: Router): void {
  mountRead(kitchen, router, api.bench.list, async (actor, { query }) => {
    const found = await listOpenBreakdowns(kitchen.db, actor.houseId, query.limit, readCursor(query.cursor));
    const { rows, next } = pageOf(found, query.limit, (b) => ({ at: b.startedAt, id: b.id }));
    return { breakdowns: rows, next };
  });
  mountRead(kitchen, router, api.bench.read, (actor, { params }) =>
    readBreakdown(kitchen.db, actor.houseId, params.breakdownId),
  );
  mountCommand(kitchen, router, api.bench.start, ['breakdowns', 'lots'], (command, asked) =>
    startBreakdown(kitchen, command, asked),
  );
  mountRead(kitchen, router, api.bench.waiting, async (actor) => ({
    waiting: await listWaiting(kitchen.db, actor.houseId),
  }));
  mountRead(kitchen, router, api.bench.people, async (actor) => ({
    people: await listBenchPeople(kitchen.db, actor.houseId),
  }));
  mountRead(kitchen, router, api.bench.plan, (actor, { params }) =>
    readPlanSheet(kitchen.db, actor.houseId, params.planId),
  );
  mountCommand(kitchen, router, api.bench.savePlan, ['catalogue'], (command, asked) =>
    savePlan(kitchen, command, asked),
  );
  mountCommand(kitchen, router, api.bench.retirePlan, ['catalogue'], (command, asked) =>
    retirePlan(kitchen, command, asked),
  );
  mountCommand(kitchen, router, api.bench.saveSpecies, ['catalogue'], (command, asked) =>
    saveSpecies(kitchen, command, asked),
  );
  mountCommand(kitchen, router, api.bench.goOn, ['breakdowns', 'lots'], (command, asked) =>
    goOn(kitchen, command, asked),
  );
  // timers of the bench ring with those of the stove
  mountCommand(kitchen, router, api.bench.event, ['breakdowns', 'batches'], (command, asked) =>
    recordEvent(kitchen, command, asked),
  );
  mountCommand(kitchen, router, api.bench.reopen, ['breakdowns', 'lots'], async (command, { params, body }) => {
    const { movementId } = await readHead(kitchen.db, command.actor.houseId, params.breakdownId, command.transaction);
    if (movementId === null) throw new Problem('cannot_reverse', 'This stage is not closed.');
    await takeBack(kitchen.db, kitchen.putsBack, command, movementId, body.reason);
    return readBreakdown(kitchen.db, command.actor.houseId, params.breakdownId, command.transaction);
  });
  // api.bench.weigh has a road of its own: weighRoad.ts
  mountCommand(kitchen, router, api.bench.close, ['breakdowns', 'lots'], (command, asked) =>
    closeStage(kitchen, command, asked),
  );
  mountCommand(kitchen, router, api.bench.cancel, ['breakdowns', 'lots'], (command, { params }) =>
    cancelBreakdown(kitchen, command, params.breakdownId),
  );
  mountRead(kitchen, router, api.bench.scaleCommand, async (actor, { body }) => {
    const scale = kitchen.devicesOf(actor.houseId).scales.get(body.scale);
    if (scale === undefined) throw new Problem('scale_away');
    const { done, why } = await scale.command(body.command);
    if (!done) throw new Problem('scale_away', SCALE_REFUSALS[why]);
    return { done: true } as const;
  });
}
