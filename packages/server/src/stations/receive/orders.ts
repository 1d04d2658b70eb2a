import type { Answer, Asked, api } from '@zabrik/contract';
import { goodsOf } from '../../db/goodsHere.ts';
import { SupplierTable } from '../../db/models/supplier.ts';
import { SupplyOrderTable } from '../../db/models/supplyOrder.ts';
import { SupplyOrderLineTable } from '../../db/models/supplyOrderLine.ts';
import { readSpecies } from '../../db/plans.ts';
import { rowsOf } from '../../db/rows.ts';
import { Problem } from '../../http/problem.ts';
import type { InCommand, Services } from '../../services.ts';
import { readOrders } from './queries.ts';

/** Writes down what was ordered, so that what comes can be held against it. */
export async function placeOrder(
  services: Services,
  command: InCommand,
  { body }: Asked<typeof api.receive.order>,
): Promise<Answer<typeof api.receive.order>> {
  const { db } = services;
  const { actor, at, transaction } = command;
  const supplier = await rowsOf(db, SupplierTable, command).one({ id: body.supplierId });
  if (supplier === undefined) throw new Problem('not_found', 'There is no such supplier in this house.');
  const species = await readSpecies(db, actor.houseId, transaction);
  for (const [i, line] of body.lines.entries()) {
    const known =
      line.goods === null
        ? species.get(line.species ?? '')?.forms.some((f) => f.id === line.form && f.purchase) === true
        : goodsOf(line.goods) !== undefined;
    if (!known)
      throw new Problem('invalid', undefined, [{ path: `lines.${i}.species`, message: 'nothing that can be bought' }]);
  }
  const id = command.newId();
  await rowsOf(db, SupplyOrderTable, command).add({
    id,
    supplierId: body.supplierId,
    dueOn: body.dueOn,
    note: body.note,
    personId: actor.personId,
    at,
  });
  await rowsOf(db, SupplyOrderLineTable, command).addAll(
    body.lines.map((line, position) => ({ orderId: id, position, ...line })),
  );
  const [order] = await readOrders(db, actor.houseId, [id], transaction);
  if (order === undefined) throw new Error(`order ${id} was written and is not there`);
  return order;
}

export async function callOffOrder(
  { db }: Services,
  command: InCommand,
  { params }: Asked<typeof api.receive.callOff>,
): Promise<Answer<typeof api.receive.callOff>> {
  const calledOff = await rowsOf(db, SupplyOrderTable, command).change(
    { id: params.orderId, state: 'open' },
    { state: 'called-off' },
  );
  if (calledOff === 0) throw new Problem('not_found', 'There is no such order that is still expected.');
  return { done: true };
}
