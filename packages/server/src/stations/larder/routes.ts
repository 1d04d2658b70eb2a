import { api } from '@zabrik/contract';
import type { Router } from 'express';
import { mountCommand, mountRead } from '../../http/mount.ts';
import { pageOf, readCursor } from '../../http/page.ts';
import type { Kitchen } from '../../kitchen.ts';
import { listOnHand, placeOf, readLot } from './queries.ts';
import { takeOut } from './service.ts';
import { readTrace } from './trace.ts';

export function larderRoutes(kitchen: Kitchen, router: Router): void {
  mountRead(router, api.larder.list, async (who, { query }) => {
    const { search, destination, kind, cuttable } = query;
    const found = await listOnHand(
      kitchen.db,
      who.houseId,
      { search, destination, kind, cuttable: cuttable === 'yes' },
      query.limit,
      readCursor(query.cursor),
    );
    const { rows, next } = pageOf(found.lots, query.limit, placeOf);
    return { lots: rows, next, total: found.total };
  });
  mountRead(router, api.larder.read, (who, { params }) => readLot(kitchen.db, who.houseId, params.lotId));
  mountRead(router, api.larder.trace, (who, { params }) =>
    readTrace(kitchen.db, who.houseId, params.lotId, kitchen.clock()),
  );
  mountCommand(kitchen, router, api.larder.takeOut, ['lots'], (command, asked) => takeOut(kitchen, command, asked));
}
