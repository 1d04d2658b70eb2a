import { api } from '@zabrik/contract';
import { scaleRefusals } from '@zabrik/devices';
import type { Router } from 'express';
import { readHead } from '../../db/breakdownHead.ts';
import { dayIn, readHouse } from '../../db/house.ts';
import { anyLot, listOnHand } from '../../db/lotsOnHand.ts';
import { mountCommand, mountFile, mountRead } from '../../http/mount.ts';
import { pageOf, readCursor } from '../../http/page.ts';
import { Problem } from '../../http/problem.ts';
import { reverseEntry } from '../../massledger/reverse.ts';
import { MOST_ON_A_SHEET, sheetOf } from '../../paper/sheet.ts';
import type { Services } from '../../services.ts';
import { cancelBreakdown, closeStage } from './close.ts';
import { recordEvent } from './event.ts';
import { readPlanSheet, retirePlan, savePlan, saveSpecies } from './plans.ts';
import { listBenchPeople, listOpenBreakdowns, listWaiting, readBreakdown } from './queries.ts';
import { goOn, startBreakdown } from './start.ts';

export function benchRoutes(services: Services, router: Router): void {
  mountRead(services, router, api.bench.list, async (actor, { query }) => {
    const found = await listOpenBreakdowns(services.db, actor.houseId, query.limit, readCursor(query.cursor));
    const { rows, next } = pageOf(found, query.limit, (b) => ({ at: b.startedAt, id: b.id }));
    return { breakdowns: rows, next };
  });
  mountRead(services, router, api.bench.read, (actor, { params }) =>
    readBreakdown(services.db, actor.houseId, params.breakdownId),
  );
  mountCommand(services, router, api.bench.start, ['breakdowns', 'lots'], (command, asked) =>
    startBreakdown(services, command, asked),
  );
  mountRead(services, router, api.bench.waiting, async (actor) => ({
    waiting: await listWaiting(services.db, actor.houseId),
  }));
  mountRead(services, router, api.bench.people, async (actor) => ({
    people: await listBenchPeople(services.db, actor.houseId),
  }));
  mountRead(services, router, api.bench.plan, (actor, { params }) =>
    readPlanSheet(services.db, actor.houseId, params.planId),
  );
  mountCommand(services, router, api.bench.savePlan, ['catalogue'], (command, asked) =>
    savePlan(services, command, asked),
  );
  mountCommand(services, router, api.bench.retirePlan, ['catalogue'], (command, asked) =>
    retirePlan(services, command, asked),
  );
  mountCommand(services, router, api.bench.saveSpecies, ['catalogue'], (command, asked) =>
    saveSpecies(services, command, asked),
  );
  mountCommand(services, router, api.bench.goOn, ['breakdowns', 'lots'], (command, asked) =>
    goOn(services, command, asked),
  );
  // timers of the bench ring with those of the stove
  mountCommand(services, router, api.bench.event, ['breakdowns', 'batches'], (command, asked) =>
    recordEvent(services, command, asked),
  );
  mountCommand(services, router, api.bench.reopen, ['breakdowns', 'lots'], async (command, { params, body }) => {
    const { movementId } = await readHead(services.db, command.actor.houseId, params.breakdownId, command.transaction);
    if (movementId === null) throw new Problem('cannot_reverse', 'This stage is not closed.');
    await reverseEntry(services.db, services.reversals, command, movementId, body.reason);
    return readBreakdown(services.db, command.actor.houseId, params.breakdownId, command.transaction);
  });
  // api.bench.weigh has a road of its own: weighRoad.ts
  mountCommand(services, router, api.bench.close, ['breakdowns', 'lots'], (command, asked) =>
    closeStage(services, command, asked),
  );
  mountCommand(services, router, api.bench.cancel, ['breakdowns', 'lots'], (command, { params }) =>
    cancelBreakdown(services, command, params.breakdownId),
  );
  mountRead(services, router, api.bench.scaleCommand, async (actor, { body }) => {
    const scale = services.devicesOf(actor.houseId).scales.get(body.scale);
    if (scale === undefined) throw new Problem('scale_away');
    const { done, why } = await scale.command(body.command);
    if (!done) throw new Problem('scale_away', scaleRefusals.get(why));
    return { done: true } as const;
  });
  mountFile(services, router, api.paper.cuttingList, async (actor) => {
    const { cuttingSheet } = await import('./sheets.ts');
    const day = dayIn((await readHouse(services.db, actor)).timezone, services.clock());
    const [open, waiting, { lots }] = await Promise.all([
      listOpenBreakdowns(services.db, actor.houseId, 500, undefined),
      listWaiting(services.db, actor.houseId),
      listOnHand(services.db, actor.houseId, { ...anyLot, cuttable: true }, undefined, day, MOST_ON_A_SHEET, undefined),
    ]);
    return sheetOf(
      services,
      actor,
      'cutting-list',
      'Cutting list',
      cuttingSheet(
        open.map((b) => ({
          what: `${b.speciesName}, ${b.formName}`,
          code: b.lotCode,
          plan: b.stageCount > 1 ? `${b.planTitle}: ${b.stageName}` : b.planTitle,
          who: b.holder,
          massMg: b.startMg,
        })),
        waiting.map((w) => ({
          what: `${w.speciesName}: ${w.stageName}`,
          codes: w.lots.map((l) => l.code).join(', '),
          massMg: w.lots.reduce((sum, l) => sum + l.freeMg, 0),
          useBy: w.useBy,
        })),
        lots,
        day,
      ),
    );
  });
}
