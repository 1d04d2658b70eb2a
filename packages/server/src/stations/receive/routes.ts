import { api } from '@zabrik/contract';
import { taxWords } from '@zabrik/core';
import type { Router } from 'express';
import { dayIn, readHouse } from '../../db/house.ts';
import { readProbe } from '../../devices/askDevice.ts';
import { keepsCosts } from '../../http/hideCosts.ts';
import { mountCommand, mountFile, mountPrepared, mountRead } from '../../http/mount.ts';
import { pageOf, readCursor } from '../../http/page.ts';
import { Problem } from '../../http/problem.ts';
import { timeOnPaper } from '../../paper/dateWords.ts';
import { MOST_ON_A_SHEET, sheetOf } from '../../paper/sheet.ts';
import type { Services } from '../../services.ts';
import { callOffOrder, placeOrder } from './orders.ts';
import { addPhotograph, listPhotographs, redrawOfLine, showPhotograph } from './photographs.ts';
import { listPriceLists, listPrices, readPriceHistory, takePrices, undoPrices } from './prices.ts';
import { listDeliveries, listOpenOrders, readDelivery } from './queries.ts';
import { acceptDelivery, closeDelivery } from './service.ts';
import { addSupplier, listSuppliers, saveSupplier } from './suppliers.ts';

export function receiveRoutes(services: Services, router: Router): void {
  const { db } = services;
  mountRead(services, router, api.receive.suppliers, async (actor) => ({ suppliers: await listSuppliers(db, actor) }));
  mountCommand(services, router, api.receive.addSupplier, ['suppliers'], (command, asked) =>
    addSupplier(services, command, asked),
  );
  mountCommand(services, router, api.receive.saveSupplier, ['suppliers'], (command, asked) =>
    saveSupplier(services, command, asked),
  );
  mountRead(services, router, api.receive.list, async (actor, { query }) => {
    const found = await listDeliveries(db, await readHouse(db, actor), query.limit, readCursor(query.cursor));
    const { rows, next } = pageOf(found, query.limit, (d) => ({ at: d.at, id: d.id }));
    return { deliveries: rows, next };
  });
  mountRead(services, router, api.receive.read, async (actor, { params }) =>
    readDelivery(db, await readHouse(db, actor), params.deliveryId),
  );
  mountCommand(services, router, api.receive.accept, ['deliveries', 'lots'], (command, asked) =>
    acceptDelivery(services, command, asked),
  );
  mountCommand(services, router, api.receive.close, ['deliveries'], (command, asked) =>
    closeDelivery(services, command, asked),
  );
  mountRead(services, router, api.receive.photographs, (actor, { params }) =>
    listPhotographs(services, actor, params.lineId),
  );
  mountPrepared(
    services,
    router,
    api.receive.photograph,
    ['deliveries'],
    (actor, asked) => redrawOfLine(services, actor, asked),
    (command, asked, redrawn) => addPhotograph(services, command, asked, redrawn),
  );
  mountFile(services, router, api.receive.showPhotograph, (actor, { params }) =>
    showPhotograph(services, actor, params.photographId),
  );
  mountFile(services, router, api.receive.claimPdf, async (actor, { params }) => {
    const house = await readHouse(db, actor);
    const delivery = await readDelivery(db, house, params.deliveryId);
    // a letter now and then: what sets it is not waited for by a server that comes back after a crash
    const { claimPdf } = await import('./claimPdf.ts');
    return claimPdf(house, delivery);
  });
  mountRead(services, router, api.receive.orders, async (actor) => ({
    orders: await listOpenOrders(db, actor.houseId),
  }));
  mountCommand(services, router, api.receive.order, ['deliveries'], (command, asked) =>
    placeOrder(services, command, asked),
  );
  mountCommand(services, router, api.receive.callOff, ['deliveries'], (command, asked) =>
    callOffOrder(services, command, asked),
  );
  mountRead(services, router, api.receive.priceLists, async (actor) => ({
    lists: await listPriceLists(db, actor.houseId),
  }));
  mountCommand(services, router, api.receive.sendPrices, ['prices', 'house'], (command, asked) =>
    takePrices(services, command, asked),
  );
  mountCommand(services, router, api.receive.undoPrices, ['prices', 'house'], (command, asked) =>
    undoPrices(services, command, asked),
  );
  mountRead(services, router, api.receive.prices, async (actor, { query }) => {
    const house = await readHouse(db, actor);
    return listPrices(db, actor.houseId, dayIn(house.timezone, services.clock()), query);
  });
  mountRead(services, router, api.receive.priceHistory, async (actor, { query }) => ({
    points: await readPriceHistory(db, actor.houseId, query.item, query.supplierId),
  }));
  mountRead(services, router, api.receive.probe, (actor) => readProbe(services.devicesOf(actor.houseId).probe));
  mountFile(services, router, api.paper.prices, async (actor, { query }) => {
    if (await keepsCosts(db, actor)) throw new Problem('not_your_role', 'This house keeps prices to those who cook.');
    const { priceSheet } = await import('./sheets.ts');
    const house = await readHouse(db, actor);
    const asked = { search: undefined, supplierId: query.supplierId, limit: MOST_ON_A_SHEET };
    const { prices } = await listPrices(
      db,
      actor.houseId,
      dayIn((await readHouse(db, actor)).timezone, services.clock()),
      asked,
    );
    return sheetOf(
      services,
      actor,
      'prices',
      'Prices',
      priceSheet(prices, house.currency, taxWords(house.settings.tax)),
    );
  });
  mountFile(services, router, api.paper.delivery, async (actor, { params }) => {
    const { deliverySheet } = await import('./sheets.ts');
    const house = await readHouse(db, actor);
    const delivery = await readDelivery(db, house, params.deliveryId);
    return sheetOf(
      services,
      actor,
      'delivery',
      `${delivery.supplierName}, ${timeOnPaper(new Date(delivery.at), house.timezone)}`,
      deliverySheet(delivery, house.currency, taxWords(house.settings.tax), !(await keepsCosts(db, actor))),
    );
  });
}
