import { api } from '@zabrik/contract';
import type { Router } from 'express';
import { mountCommand, mountFile, mountRead } from '../../http/mount.ts';
import { pageOf, readCursor } from '../../http/page.ts';
import type { Kitchen } from '../../kitchen.ts';
import { listBatches, listCuttings } from './cuttings.ts';
import { movementsCsv, movementsEpcis } from './exports.ts';
import { listClosed } from './queries.ts';
import { reverse } from './service.ts';
import { yieldSheet } from './yieldSheet.ts';

export function ledgerRoutes(kitchen: Kitchen, router: Router): void {
  mountRead(kitchen, router, api.ledger.list, async (actor, { query }) => {
    const found = await listClosed(kitchen.db, actor.houseId, query.species, query.limit, readCursor(query.cursor));
    const { rows, next } = pageOf(found, query.limit, (b) => ({ at: b.closedAt ?? b.startedAt, id: b.id }));
    return { breakdowns: rows, next };
  });
  mountRead(kitchen, router, api.ledger.cuttings, async (actor, { query }) => {
    const found = await listCuttings(kitchen.db, actor.houseId, query.limit, readCursor(query.cursor));
    const { rows, next } = pageOf(found, query.limit, (c) => ({ at: c.closedAt, id: c.id }));
    return { cuttings: rows, next };
  });
  mountRead(kitchen, router, api.ledger.batches, async (actor, { query }) => {
    const found = await listBatches(kitchen.db, actor.houseId, query.limit, readCursor(query.cursor));
    const { rows, next } = pageOf(found, query.limit, (b) => ({ at: b.doneAt, id: b.batchId }));
    return { batches: rows, next };
  });
  mountRead(kitchen, router, api.ledger.sheet, (actor, { params }) =>
    yieldSheet(kitchen, actor.houseId, params.breakdownId),
  );
  mountCommand(kitchen, router, api.ledger.reverse, ['breakdowns', 'lots', 'batches', 'deliveries'], (command, asked) =>
    reverse(kitchen, command, asked),
  );
  mountFile(kitchen, router, api.ledger.exportCsv, (actor, { query }) => movementsCsv(kitchen, actor.houseId, query));
  mountFile(kitchen, router, api.ledger.exportEpcis, (actor, { query }) =>
    movementsEpcis(kitchen, actor.houseId, query),
  );
}
