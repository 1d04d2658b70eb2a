import { api } from '@zabrik/contract';
import type { Router } from 'express';
import { SupplierRow } from '../../db/models.ts';
import { mountCommand, mountRead } from '../../http/mount.ts';
import { pageOf, readCursor } from '../../http/page.ts';
import type { Kitchen } from '../../kitchen.ts';
import { listDeliveries } from './queries.ts';
import { acceptDelivery } from './service.ts';

export function receiveRoutes(kitchen: Kitchen, router: Router): void {
  mountRead(router, api.receive.suppliers, async (who) => {
    const suppliers = await SupplierRow.findAll({ where: { houseId: who.houseId }, order: ['name'] });
    return { suppliers: suppliers.map(({ id, name }) => ({ id, name })) };
  });
  mountRead(router, api.receive.list, async (who, { query }) => {
    const found = await listDeliveries(kitchen.db, who.houseId, query.limit, readCursor(query.cursor));
    const { rows, next } = pageOf(found, query.limit, (d) => ({ at: d.at, id: d.lotId }));
    return { deliveries: rows, next };
  });
  mountCommand(kitchen, router, api.receive.accept, ['deliveries', 'lots'], (command, asked) =>
    acceptDelivery(kitchen, command, asked),
  );
}
