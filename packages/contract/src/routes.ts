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
  },
  receive: {
    suppliers: { id: 'receive.suppliers', method: 'get', path: '/suppliers', command: false },
    list: { id: 'receive.list', method: 'get', path: '/deliveries', command: false },
    accept: { id: 'receive.accept', method: 'post', path: '/deliveries', command: true },
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
  larder: {
    list: { id: 'larder.list', method: 'get', path: '/lots', command: false },
    read: { id: 'larder.read', method: 'get', path: '/lots/:lotId', command: false },
    trace: { id: 'larder.trace', method: 'get', path: '/lots/:lotId/trace', command: false },
    takeOut: { id: 'larder.takeOut', method: 'post', path: '/lots/:lotId/take-out', command: true },
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
    reverse: { id: 'ledger.reverse', method: 'post', path: '/movements/:movementId/reverse', command: true },
  },
  simulation: {
    pan: { id: 'simulation.pan', method: 'post', path: '/simulation/pan', command: false },
  },
} as const satisfies Readonly<Record<string, Readonly<Record<string, Route>>>>;
