/** Where every request goes: the part of an endpoint a caller needs at run time. The stations add the shapes to it, so it is written once. */
import type { EndpointId } from './roles.ts';

export interface Route {
  readonly id: EndpointId;
  readonly method: 'get' | 'post' | 'delete';
  /** Under /api/v1, with :name for each parameter. */
  readonly path: string;
  /** Changes something: needs an Idempotency-Key, and a repeat of the key gets the first answer. */
  readonly command: boolean;
}

export const routes = {
  access: {
    houses: { id: 'access.houses', method: 'get', path: '/houses', command: false },
    door: { id: 'access.door', method: 'get', path: '/houses/:slug/door', command: false },
    signIn: { id: 'access.signIn', method: 'post', path: '/session', command: false },
    me: { id: 'access.me', method: 'get', path: '/session', command: false },
    signOut: { id: 'access.signOut', method: 'delete', path: '/session', command: false },
  },
  house: {
    read: { id: 'house.read', method: 'get', path: '/house', command: false },
    flow: { id: 'house.flow', method: 'get', path: '/flow', command: false },
    catalogue: { id: 'house.catalogue', method: 'get', path: '/catalogue', command: false },
    limits: { id: 'house.limits', method: 'get', path: '/limits', command: false },
    saveLimits: { id: 'house.saveLimits', method: 'post', path: '/limits', command: true },
    cautions: { id: 'house.cautions', method: 'get', path: '/cautions', command: false },
    seeCaution: { id: 'house.seeCaution', method: 'post', path: '/cautions/seen', command: true },
  },
  receive: {
    suppliers: { id: 'receive.suppliers', method: 'get', path: '/suppliers', command: false },
    addSupplier: { id: 'receive.addSupplier', method: 'post', path: '/suppliers', command: true },
    list: { id: 'receive.list', method: 'get', path: '/deliveries', command: false },
    read: { id: 'receive.read', method: 'get', path: '/deliveries/:deliveryId', command: false },
    accept: { id: 'receive.accept', method: 'post', path: '/deliveries', command: true },
    close: { id: 'receive.close', method: 'post', path: '/deliveries/:deliveryId/close', command: true },
    photographs: {
      id: 'receive.photographs',
      method: 'get',
      path: '/delivery-lines/:lineId/photographs',
      command: false,
    },
    photograph: {
      id: 'receive.photograph',
      method: 'post',
      path: '/delivery-lines/:lineId/photographs',
      command: true,
    },
    showPhotograph: { id: 'receive.showPhotograph', method: 'get', path: '/photographs/:photographId', command: false },
    claimPdf: { id: 'receive.claimPdf', method: 'get', path: '/deliveries/:deliveryId/claim.pdf', command: false },
    orders: { id: 'receive.orders', method: 'get', path: '/orders', command: false },
    order: { id: 'receive.order', method: 'post', path: '/orders', command: true },
    callOff: { id: 'receive.callOff', method: 'post', path: '/orders/:orderId/call-off', command: true },
    priceLists: { id: 'receive.priceLists', method: 'get', path: '/price-lists', command: false },
    sendPrices: { id: 'receive.sendPrices', method: 'post', path: '/price-lists', command: true },
    undoPrices: { id: 'receive.undoPrices', method: 'post', path: '/price-lists/:listId/undo', command: true },
    prices: { id: 'receive.prices', method: 'get', path: '/prices', command: false },
    priceHistory: { id: 'receive.priceHistory', method: 'get', path: '/prices/history', command: false },
    probe: { id: 'receive.probe', method: 'get', path: '/probe', command: false },
  },
  bench: {
    list: { id: 'bench.list', method: 'get', path: '/breakdowns', command: false },
    start: { id: 'bench.start', method: 'post', path: '/breakdowns', command: true },
    read: { id: 'bench.read', method: 'get', path: '/breakdowns/:breakdownId', command: false },
    weigh: { id: 'bench.weigh', method: 'post', path: '/breakdowns/:breakdownId/weighings', command: true },
    waiting: { id: 'bench.waiting', method: 'get', path: '/waiting-stages', command: false },
    goOn: { id: 'bench.goOn', method: 'post', path: '/waiting-stages', command: true },
    event: { id: 'bench.event', method: 'post', path: '/breakdowns/:breakdownId/events', command: true },
    people: { id: 'bench.people', method: 'get', path: '/bench/people', command: false },
    reopen: { id: 'bench.reopen', method: 'post', path: '/breakdowns/:breakdownId/reopen', command: true },
    plan: { id: 'bench.plan', method: 'get', path: '/plans/:planId', command: false },
    savePlan: { id: 'bench.savePlan', method: 'post', path: '/plans', command: true },
    retirePlan: { id: 'bench.retirePlan', method: 'post', path: '/plans/:planId/retire', command: true },
    saveSpecies: { id: 'bench.saveSpecies', method: 'post', path: '/species', command: true },
    close: { id: 'bench.close', method: 'post', path: '/breakdowns/:breakdownId/close', command: true },
    cancel: { id: 'bench.cancel', method: 'post', path: '/breakdowns/:breakdownId/cancel', command: true },
    scaleCommand: { id: 'bench.scaleCommand', method: 'post', path: '/scale/commands', command: false },
  },
  cutting: {
    list: { id: 'cutting.list', method: 'get', path: '/cuttings', command: false },
    read: { id: 'cutting.read', method: 'get', path: '/cuttings/:cuttingId', command: false },
    start: { id: 'cutting.start', method: 'post', path: '/cuttings', command: true },
    event: { id: 'cutting.event', method: 'post', path: '/cuttings/:cuttingId/events', command: true },
    close: { id: 'cutting.close', method: 'post', path: '/cuttings/:cuttingId/close', command: true },
    cancel: { id: 'cutting.cancel', method: 'post', path: '/cuttings/:cuttingId/cancel', command: true },
    learnt: { id: 'cutting.learnt', method: 'get', path: '/cutting-forms', command: false },
  },
  larder: {
    list: { id: 'larder.list', method: 'get', path: '/lots', command: false },
    read: { id: 'larder.read', method: 'get', path: '/lots/:lotId', command: false },
    trace: { id: 'larder.trace', method: 'get', path: '/lots/:lotId/trace', command: false },
    takeOut: { id: 'larder.takeOut', method: 'post', path: '/lots/:lotId/take-out', command: true },
    groups: { id: 'larder.groups', method: 'get', path: '/lot-groups', command: false },
    keep: { id: 'larder.keep', method: 'post', path: '/lots/:lotId/keep', command: true },
    undoKeep: { id: 'larder.undoKeep', method: 'post', path: '/lot-events/:eventId/undo', command: true },
    split: { id: 'larder.split', method: 'post', path: '/lots/:lotId/split', command: true },
    merge: { id: 'larder.merge', method: 'post', path: '/merges', command: true },
    tubs: { id: 'larder.tubs', method: 'get', path: '/tubs', command: false },
    startTub: { id: 'larder.startTub', method: 'post', path: '/tubs', command: true },
    fill: { id: 'larder.fill', method: 'post', path: '/tubs/:lotId/fill', command: true },
    count: { id: 'larder.count', method: 'post', path: '/stock-takes', command: true },
    stockTakes: { id: 'larder.stockTakes', method: 'get', path: '/stock-takes', command: false },
    printLabels: { id: 'larder.printLabels', method: 'post', path: '/labels', command: true },
    labelPdf: { id: 'larder.labelPdf', method: 'get', path: '/labels.pdf', command: false },
    printed: { id: 'larder.printed', method: 'get', path: '/labels/printed', command: false },
    showPrinted: { id: 'larder.showPrinted', method: 'get', path: '/labels/printed/:job', command: false },
  },
  pots: {
    list: { id: 'pots.list', method: 'get', path: '/runs', command: false },
    plan: { id: 'pots.plan', method: 'post', path: '/runs', command: true },
    finish: { id: 'pots.finish', method: 'post', path: '/runs/:runId/finish', command: true },
    cancel: { id: 'pots.cancel', method: 'post', path: '/runs/:runId/cancel', command: true },
  },
  ledger: {
    list: { id: 'ledger.list', method: 'get', path: '/ledger/breakdowns', command: false },
    sheet: { id: 'ledger.sheet', method: 'get', path: '/ledger/breakdowns/:breakdownId', command: false },
    exportCsv: { id: 'ledger.exportCsv', method: 'get', path: '/ledger/movements.csv', command: false },
    exportEpcis: { id: 'ledger.exportEpcis', method: 'get', path: '/ledger/movements.jsonld', command: false },
    exportHouse: { id: 'ledger.exportHouse', method: 'get', path: '/ledger/house.json', command: false },
    reverse: { id: 'ledger.reverse', method: 'post', path: '/movements/:movementId/reverse', command: true },
  },
  simulation: {
    pan: { id: 'simulation.pan', method: 'post', path: '/simulation/pan', command: false },
    probe: { id: 'simulation.probe', method: 'post', path: '/simulation/probe', command: false },
  },
} as const satisfies Readonly<Record<string, Readonly<Record<string, Route>>>>;
