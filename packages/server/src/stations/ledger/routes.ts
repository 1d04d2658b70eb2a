import { api } from '@zabrik/contract';
import type { Router } from 'express';
import { mountCommand, mountFile, mountRead } from '../../http/mount.ts';
import { pageOf, readCursor } from '../../http/page.ts';
import type { Services } from '../../services.ts';
import { listBatches, listCuttings } from './cuttings.ts';
import { movementsCsv, movementsEpcis } from './exports.ts';
import { listClosed } from './queries.ts';
import { reverse } from './service.ts';
import { yieldSheet } from './yieldSheet.ts';

export function ledgerRoutes(services: Services, router: Router): void {
  mountRead(services, router, api.ledger.list, async (actor, { query }) => {
    const found = await listClosed(services.db, actor.houseId, query.species, query.limit, readCursor(query.cursor));
    const { rows, next } = pageOf(found, query.limit, (b) => ({ at: b.closedAt ?? b.startedAt, id: b.id }));
    return { breakdowns: rows, next };
  });
  mountRead(services, router, api.ledger.cuttings, async (actor, { query }) => {
    const found = await listCuttings(services.db, actor.houseId, query.limit, readCursor(query.cursor));
    const { rows, next } = pageOf(found, query.limit, (c) => ({ at: c.closedAt, id: c.id }));
    return { cuttings: rows, next };
  });
  mountRead(services, router, api.ledger.batches, async (actor, { query }) => {
    const found = await listBatches(services.db, actor.houseId, query.limit, readCursor(query.cursor));
    const { rows, next } = pageOf(found, query.limit, (b) => ({ at: b.doneAt, id: b.batchId }));
    return { batches: rows, next };
  });
  mountRead(services, router, api.ledger.sheet, (actor, { params }) =>
    yieldSheet(services, actor.houseId, params.breakdownId),
  );
  mountCommand(
    services,
    router,
    api.ledger.reverse,
    ['breakdowns', 'lots', 'batches', 'deliveries'],
    (command, asked) => reverse(services, command, asked),
  );
  mountFile(services, router, api.ledger.exportCsv, (actor, { query }) => movementsCsv(services, actor.houseId, query));
  mountFile(services, router, api.ledger.exportEpcis, (actor, { query }) =>
    movementsEpcis(services, actor.houseId, query),
  );
}
