import { goodsById } from '@zabrik/catalogue';
import type { Answer, Asked, api } from '@zabrik/contract';
import { SupplierRow } from '../../db/models.ts';
import { readSpecies } from '../../db/plans.ts';
import { selectOne } from '../../db/select.ts';
import { Problem } from '../../http/problem.ts';
import type { InCommand, Kitchen } from '../../kitchen.ts';
import { readOrders } from './queries.ts';

/** Writes down what was ordered, so that what comes can be held against it. */
export async function placeOrder(
  kitchen: Kitchen,
  command: InCommand,
  { body }: Asked<typeof api.receive.order>,
): Promise<Answer<typeof api.receive.order>> {
  const { db } = kitchen;
  const { actor, at, transaction } = command;
  const supplier = await SupplierRow.findOne({ where: { id: body.supplierId, houseId: actor.houseId }, transaction });
  if (supplier === null) throw new Problem('not_found', 'There is no such supplier in this house.');
  const species = await readSpecies(db, actor.houseId, transaction);
  for (const [i, line] of body.lines.entries()) {
    const known =
      line.goods === null
        ? species.get(line.species ?? '')?.forms.some((f) => f.id === line.form && f.purchase) === true
        : goodsById.has(line.goods);
    if (!known)
      throw new Problem('invalid', undefined, [{ path: `lines.${i}.species`, message: 'nothing that can be bought' }]);
  }
  const id = command.newId();
  await db.query(
    'insert into supply_order (id, house_id, supplier_id, due_on, note, person_id, at) values ($1, $2, $3, $4, $5, $6, $7)',
    { bind: [id, actor.houseId, body.supplierId, body.dueOn, body.note, actor.personId, at], transaction },
  );
  await db.query(
    `insert into supply_order_line (order_id, house_id, position, species, form, goods, count, mass_mg, minor_per_kg)
     select $1, $2, position, species, form, goods, count, mass_mg, minor_per_kg
     from jsonb_to_recordset($3::jsonb) as l(position int, species text, form text, goods text, count int, mass_mg bigint, minor_per_kg bigint)`,
    {
      bind: [
        id,
        actor.houseId,
        JSON.stringify(
          body.lines.map((l, position) => ({
            position,
            species: l.species,
            form: l.form,
            goods: l.goods,
            count: l.count,
            mass_mg: l.massMg,
            minor_per_kg: l.minorPerKg,
          })),
        ),
      ],
      transaction,
    },
  );
  const [order] = await readOrders(db, actor.houseId, [id], transaction);
  if (order === undefined) throw new Error(`order ${id} was written and is not there`);
  return order;
}

export async function callOffOrder(
  kitchen: Kitchen,
  { actor, transaction }: InCommand,
  { params }: Asked<typeof api.receive.callOff>,
): Promise<Answer<typeof api.receive.callOff>> {
  const row = await selectOne<{ id: string }>(
    kitchen.db,
    `update supply_order set state = 'called-off' where id = $1 and house_id = $2 and state = 'open' returning id`,
    [params.orderId, actor.houseId],
    transaction,
  );
  if (row === undefined) throw new Problem('not_found', 'There is no such order that is still expected.');
  return { done: true };
}
