import { inspectionById } from '@zabrik/catalogue';
import type { Answer, Asked, api } from '@zabrik/contract';
import {
  addDays,
  confirmationsToPlace,
  costOfAccepted,
  inspectionFor,
  type Keeping,
  recordIsWhole,
} from '@zabrik/core';
import { dayIn, lastDayAfter, placeNamed, readHouse, usualPlace } from '../../db/house.ts';
import { DeliveryTable } from '../../db/models/delivery.ts';
import { DeliveryLineTable } from '../../db/models/deliveryLine.ts';
import { SupplierTable } from '../../db/models/supplier.ts';
import { SupplyOrderTable } from '../../db/models/supplyOrder.ts';
import { rowsOf } from '../../db/rows.ts';
import { Problem } from '../../http/problem.ts';
import { boughtThing, noSuch } from '../../massledger/boughtThing.ts';
import { confirmationWords } from '../../massledger/confirmations.ts';
import { keptFresh, type NewLot } from '../../massledger/makeLots.ts';
import { transform } from '../../massledger/transform.ts';
import type { InCommand, Services } from '../../services.ts';
import { readDelivery, readLine } from './queries.ts';

type Body = Asked<typeof api.receive.accept>['body'];

/** What is being received: with what is looked at on it, and how it was raised where somebody says so. */
async function whatOf(services: Services, command: InCommand, body: Body) {
  const thing = await boughtThing(services, command, body);
  const raised = thing.raised === null ? null : (body.details.raised ?? thing.raised);
  return { ...thing, raised, inspection: inspectionFor(thing.species, body.form ?? '', body.came, raised) };
}

/** The delivery a line belongs to: opened by its first line, in the name of whoever wrote that. Errors: `delivery_closed`, `not_found`. */
async function openDelivery({ db }: Services, command: InCommand, body: Body): Promise<string> {
  const id = body.deliveryId ?? command.newId();
  const { orderId, supplierId, invoice } = body;
  if (orderId !== null) {
    const found = await rowsOf(db, SupplyOrderTable, command).one({ id: orderId });
    if (found === undefined) throw new Problem('not_found', 'There is no such order in this house.');
    if (found.supplierId !== supplierId) throw noSuch('orderId', 'this order is another supplier’s');
  }
  const deliveries = rowsOf(db, DeliveryTable, command);
  const { personId } = command.actor;
  await deliveries.addMissing([{ id, supplierId, orderId, invoice, personId, at: command.at }]);
  const head = await deliveries.one({ id }, { lock: 'update' });
  if (head === undefined) throw new Problem('not_found');
  if (head.closedAt !== null) throw new Problem('delivery_closed');
  if (head.supplierId !== supplierId) throw noSuch('supplierId', 'this delivery is another supplier’s');
  return id;
}

/**
 * Takes one line of a delivery. What is accepted becomes a lot with a code, and a movement from the supplier for its net mass; what is
 * refused never was the house's and moves nothing. What the invoice asks is the cost of what was accepted, in proportion when a part
 * went back: short weight stays in the cost until the supplier pays the claim.
 */
export async function acceptDelivery(
  services: Services,
  command: InCommand,
  { body }: Asked<typeof api.receive.accept>,
): Promise<Answer<typeof api.receive.accept>> {
  const { db } = services;
  const { actor, at, newId, transaction } = command;
  const what = await whatOf(services, command, body);
  const points = inspectionById.get(what.inspection)?.points ?? [];
  const unknown = body.inspection.find((a) => !points.some((p) => p.id === a.pointId));
  if (unknown !== undefined) throw noSuch('inspection', `${unknown.pointId} is not looked at here`);
  const house = await readHouse(db, command);
  const supplier = await rowsOf(db, SupplierTable, command).one({ id: body.supplierId });
  if (supplier === undefined) throw new Problem('not_found', 'There is no such supplier in this house.');
  const deliveryId = await openDelivery(services, command, body);
  const today = dayIn(house.timezone, at);
  const frozen = body.came === 'frozen';
  const useBy =
    body.useBy ?? (frozen ? addDays(today, 90) : lastDayAfter(house.timezone, at, 24 * what.lifeDays, null));
  const placeId =
    body.placeId === null
      ? usualPlace(house, what.ready, frozen ? 'freezer' : what.place)
      : placeNamed(house, body.placeId).id;
  const netMg = body.grossMg === null ? 0 : body.grossMg - body.tareMg;
  const acceptedMg = netMg - body.refusedMg;
  const refused = body.verdict === 'refused';
  const noRecord = what.raised === 'wild' && !refused && !recordIsWhole(body.details);
  const asked = [
    ...(noRecord
      ? [
          'Nobody has said who shot it, where and when, and there is no declaration number. No record, no service: it can be taken in on hold until the record is there.',
        ]
      : []),
    ...(refused || body.placeId === null
      ? []
      : confirmationWords(
          confirmationsToPlace({ ready: what.ready }, placeNamed(house, placeId), {
            needsCold: what.place !== 'ambient',
          }),
        )),
  ];
  if (asked.length > 0 && !body.confirmed) throw new Problem('needs_confirmation', asked.join(' '));
  const keeping: Keeping = {
    ...keptFresh(placeId, what.ready, useBy),
    ...(frozen ? { state: 'frozen' as const, frozenOn: today, daysLeft: 2 } : {}),
  };
  const costMinor = costOfAccepted({ ...body, netMg, invoiceMg: body.invoiceMg ?? 0 });
  let lotId: string | null = null;
  let movementId: string | null = null;
  if (!refused) {
    lotId = newId();
    const lot: NewLot = {
      id: lotId,
      kind: what.kind,
      name: what.name,
      species: body.species,
      form: body.form,
      category: what.category,
      destination: what.kind === 'goods' ? 'larder' : null,
      pieces: body.animals,
      madeMg: acceptedMg,
      keeping,
      dateBasis:
        body.useBy === null
          ? frozen
            ? 'bought frozen: 90 days, of quality'
            : 'usual life from receipt'
          : 'the supplier’s date',
      supplierId: supplier.id,
      breakdownId: null,
      pieceId: null,
      batchId: null,
      allergens: what.allergens,
      goods: body.goods,
      raised: what.raised,
      held: noRecord ? 'No record yet of who shot it, where and when' : null,
    };
    ({ movementId } = await transform(db, command, {
      kind: 'receive',
      station: 'receive',
      note: body.note,
      makes: [{ lot, costMinor }],
      sinks: [{ sink: 'supplier', reason: null, massMg: -acceptedMg, costMinor: -costMinor }],
    }));
  }
  const lineId = command.newId();
  await rowsOf(db, DeliveryLineTable, command).add({
    id: lineId,
    deliveryId,
    lotId,
    species: body.species,
    form: body.form,
    goods: body.goods,
    animals: body.animals,
    grossMg: body.grossMg,
    tareMg: body.tareMg,
    invoiceMg: body.invoiceMg,
    paidMinor: body.paidMinor,
    temperatureCentiC: body.temperatureCentiC,
    origin: body.origin,
    landedOn: body.landedOn,
    useBy: refused ? null : useBy,
    note: body.note,
    verdict: body.verdict,
    refusedMg: refused ? Math.max(1, netMg) : body.refusedMg,
    refusedReason: body.refusedReason,
    inspection: body.inspection,
    details: { ...body.details, came: body.came },
    boxes: body.boxes,
    codes: body.codes,
    orderPosition: body.orderPosition,
    personId: actor.personId,
    at,
    movementId,
  });
  const line = await readLine(db, house, lineId, transaction);
  if (line === undefined) throw new Error(`line ${lineId} was written and is not there`);
  // a line without a delivery is one of its own: nothing more comes with it
  if (body.deliveryId === null) await rowsOf(db, DeliveryTable, command).change({ id: deliveryId }, { closedAt: at });
  return line;
}

/** Nothing more comes. Its order is done when every line of it came whole; else it stays open for the rest. */
export async function closeDelivery(
  services: Services,
  command: InCommand,
  { params }: Asked<typeof api.receive.close>,
): Promise<Answer<typeof api.receive.close>> {
  const { db } = services;
  const { at, transaction } = command;
  const house = await readHouse(db, command);
  const deliveries = rowsOf(db, DeliveryTable, command);
  const head = await deliveries.one({ id: params.deliveryId }, { lock: 'update' });
  if (head === undefined) throw new Problem('not_found');
  if (head.closedAt !== null) throw new Problem('delivery_closed');
  await deliveries.change({ id: params.deliveryId }, { closedAt: at });
  const delivery = await readDelivery(db, house, params.deliveryId, transaction);
  if (head.orderId !== null && delivery.missing.length === 0)
    await rowsOf(db, SupplyOrderTable, command).change({ id: head.orderId, state: 'open' }, { state: 'done' });
  return delivery;
}
