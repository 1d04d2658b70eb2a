import { api } from '@zabrik/contract';
import { judgeLot } from '@zabrik/core';
import type { Router } from 'express';
import { foodOfLot } from '../../db/foods.ts';
import { dayIn, placesOf, readHouse } from '../../db/house.ts';
import { judgedWords, limitsOf, readLimitChoice } from '../../db/limits.ts';
import { readSpecies } from '../../db/plans.ts';
import { mountCommand, mountFile, mountPrepared, mountRead } from '../../http/mount.ts';
import { groupCursorOf, readGroupCursor } from '../../http/page.ts';
import type { Services } from '../../services.ts';
import { cautionsOf, tagWords } from './cautions.ts';
import { count } from './countLots.ts';
import { fill, startTub } from './fillTub.ts';
import { keep, undoKeep } from './keep.ts';
import { labelPdf, listPrinted, notePrinted, printSheets, showPrinted } from './labels.ts';
import { merge } from './mergeLots.ts';
import { filterOf, listOnHand, listStockTakes, listTubLots, readLot, sumGroups } from './queries.ts';
import { takeOut } from './service.ts';
import { split } from './splitLot.ts';
import { takeOn } from './takeOn.ts';
import { readTrace } from './trace.ts';
import { readGoodsYields, trimGoods } from './trimGoods.ts';
import { listTubs } from './tubs.ts';

export function larderRoutes(services: Services, router: Router): void {
  const { db } = services;
  mountRead(services, router, api.larder.list, async (actor, { query }) => {
    const { cursor, limit, group, ...filter } = query;
    const house = await readHouse(db, actor);
    const found = await listOnHand(
      db,
      actor.houseId,
      filterOf(filter),
      group,
      dayIn(house.timezone, services.clock()),
      limit,
      readGroupCursor(cursor),
    );
    return { lots: found.lots, next: found.next === undefined ? null : groupCursorOf(found.next), total: found.total };
  });
  mountRead(services, router, api.larder.groups, async (actor, { query }) => ({
    groups: await sumGroups(db, actor.houseId, query.by),
  }));
  mountRead(services, router, api.larder.read, async (actor, { params }) => {
    const house = await readHouse(db, actor);
    const lot = await readLot(
      db,
      actor.houseId,
      params.lotId,
      (id) => placesOf(house).find((p) => p.id === id)?.name ?? id,
      services.clock(),
    );
    const animals = await readSpecies(db, actor.houseId);
    const species = animals.get(lot.species ?? '');
    const limits = limitsOf(await readLimitChoice(db, house.id, house.timezone));
    const judged = judgeLot(
      limits,
      {
        food: foodOfLot(lot, animals),
        frozen: lot.state === 'frozen',
        frozenBefore: lot.frozenOn !== null,
        dateLimitId: lot.dateLimit,
        dateMaxC: lot.dateMaxC,
      },
      lot.readings.map((r) => ({ at: r.at, C: r.centiC / 100 })),
      services.clock().toISOString(),
    );
    return {
      ...lot,
      judged: [...judged.map((j) => judgedWords(j, lot.dateBasis)), ...tagWords(limits, species, lot)],
      cautions: cautionsOf(species, lot),
    };
  });
  mountRead(services, router, api.larder.trace, (actor, { params }) =>
    readTrace(db, actor.houseId, params.lotId, services.clock()),
  );
  mountRead(services, router, api.larder.tubs, async (actor) => {
    const house = await readHouse(db, actor);
    return { tubs: await listTubs(db, house, await listTubLots(db, actor.houseId)) };
  });
  mountRead(services, router, api.larder.stockTakes, async (actor, { query }) => ({
    stockTakes: await listStockTakes(db, actor.houseId, query.limit),
  }));
  mountRead(services, router, api.larder.printed, (actor) => listPrinted(services, actor));
  mountFile(services, router, api.larder.showPrinted, (actor, { params }) => showPrinted(services, actor, params.job));
  mountFile(services, router, api.larder.labelPdf, (actor, { query }) => labelPdf(services, actor, query));
  mountCommand(services, router, api.larder.takeOut, ['lots'], (command, asked) => takeOut(services, command, asked));
  mountCommand(services, router, api.larder.takeOn, ['lots'], (command, asked) => takeOn(services, command, asked));
  mountCommand(services, router, api.larder.keep, ['lots'], (command, asked) => keep(services, command, asked));
  mountCommand(services, router, api.larder.undoKeep, ['lots'], (command, asked) => undoKeep(services, command, asked));
  mountCommand(services, router, api.larder.split, ['lots'], (command, asked) => split(services, command, asked));
  mountCommand(services, router, api.larder.trim, ['lots'], (command, asked) => trimGoods(services, command, asked));
  mountRead(services, router, api.larder.goodsYields, async (actor, { params }) => ({
    yields: await readGoodsYields(services, actor.houseId, params.goods),
  }));
  mountCommand(services, router, api.larder.merge, ['lots'], (command, asked) => merge(services, command, asked));
  mountCommand(services, router, api.larder.startTub, ['lots'], (command, asked) => startTub(services, command, asked));
  mountCommand(services, router, api.larder.fill, ['lots'], (command, asked) => fill(services, command, asked));
  mountCommand(services, router, api.larder.count, ['lots'], (command, asked) => count(services, command, asked));
  mountPrepared(
    services,
    router,
    api.larder.printLabels,
    ['lots'],
    (actor, asked, commandId) => printSheets(services, actor, asked, commandId),
    (command, asked, printed) => notePrinted(services, command, asked, printed),
  );
}
