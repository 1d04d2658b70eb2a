import { api } from '@zabrik/contract';
import { judgeLot } from '@zabrik/core';
import type { Router } from 'express';
import { foodOfLot } from '../../db/foods.ts';
import { dayIn, placesOf, readHouse } from '../../db/house.ts';
import { judgedWords, limitsOf, readLimitChoice } from '../../db/limits.ts';
import { anyLot, filterOf, listOnHand } from '../../db/lotsOnHand.ts';
import { readSpecies } from '../../db/plans.ts';
import { mountCommand, mountFile, mountPrepared, mountRead } from '../../http/mount.ts';
import { groupCursorOf, readGroupCursor } from '../../http/page.ts';
import { MOST_ON_A_SHEET, sheetOf } from '../../paper/sheet.ts';
import type { Services } from '../../services.ts';
import { cautionsOf, tagWords } from './cautions.ts';
import { count } from './countLots.ts';
import { fill, startTub } from './fillTub.ts';
import { keep, undoKeep } from './keep.ts';
import { labelPdf, listPrinted, notePrinted, printSheets, showPrinted } from './labels.ts';
import { merge } from './mergeLots.ts';
import { listStockTakes, listTubLots, readLot, sumGroups } from './queries.ts';
import { takeOut } from './service.ts';
import { split } from './splitLot.ts';
import { takeOn } from './takeOn.ts';
import { readTrace } from './trace.ts';
import { readGoodsYields, trimGoods } from './trimGoods.ts';
import { listTubs } from './tubs.ts';

const dueWords = { past: 'past their date', today: 'last day today', soon: 'within two days' } as const;

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
  mountFile(services, router, api.paper.larder, async (actor, { query: { group, ...filter } }) => {
    const { larderSheet, placeIn } = await import('./sheets.ts');
    const house = await readHouse(db, actor);
    const day = dayIn((await readHouse(db, actor)).timezone, services.clock());
    const { lots } = await listOnHand(db, actor.houseId, filterOf(filter), group, day, MOST_ON_A_SHEET, undefined);
    const animals = await readSpecies(db, actor.houseId);
    const groupOf =
      group === 'place'
        ? placeIn(house)
        : group === 'species'
          ? (l: (typeof lots)[number]) => animals.get(l.species ?? '')?.name ?? 'no animal'
          : group === 'supplier'
            ? (l: (typeof lots)[number]) => l.supplierName ?? 'of our own'
            : group === 'destination'
              ? (l: (typeof lots)[number]) => l.destination ?? (l.kind === 'delivery' ? 'whole' : l.kind)
              : undefined;
    const asked = [
      filter.search === undefined ? '' : `“${filter.search}”`,
      filter.place === undefined ? '' : placeIn(house)({ placeId: filter.place }),
      filter.destination ?? '',
      filter.kind ?? '',
      filter.state ?? '',
      filter.due === undefined ? '' : dueWords[filter.due],
      filter.held === undefined ? '' : 'on hold',
    ].filter((t) => t !== '');
    return sheetOf(
      services,
      actor,
      'larder',
      'On hand',
      larderSheet(lots, day, groupOf, asked.length === 0 ? '' : `Only ${asked.join(', ')}`),
    );
  });
  mountFile(services, router, api.paper.stockTake, async (actor, { query: { place } }) => {
    const { stockTakeSheet, placeIn } = await import('./sheets.ts');
    const house = await readHouse(db, actor);
    const day = dayIn((await readHouse(db, actor)).timezone, services.clock());
    const { lots } = await listOnHand(
      db,
      actor.houseId,
      { ...anyLot, place },
      'place',
      day,
      MOST_ON_A_SHEET,
      undefined,
    );
    return sheetOf(services, actor, 'stock-take', 'Stock-take', stockTakeSheet(lots, day, placeIn(house)));
  });
}
