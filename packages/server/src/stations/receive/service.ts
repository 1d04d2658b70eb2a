import { receiptDays } from '@zabrik/catalogue';
import type { Answer, Asked, api, Delivery } from '@zabrik/contract';
import { v7 as uuidv7 } from 'uuid';
import { lastDayAfter, readHouse } from '../../db/house.ts';
import { DeliveryRow, SupplierRow } from '../../db/models.ts';
import { readSpecies } from '../../db/plans.ts';
import { Problem } from '../../http/problem.ts';
import type { InCommand, Kitchen } from '../../kitchen.ts';
import { makeLot } from '../../massledger/makeLot.ts';
import { writeMovement } from '../../massledger/writeMovement.ts';
import { readDelivery } from './queries.ts';

const noSuch = (path: string, message: string): Problem => new Problem('invalid', message, [{ path, message }]);

/**
 * Accepts a delivery: a lot with a code, and a movement from the supplier for the net mass at what the invoice asks.
 * What the invoice asks is the cost even when the scale shows less: the difference is a claim until the supplier pays it.
 */
export async function acceptDelivery(
  kitchen: Kitchen,
  command: InCommand,
  { body }: Asked<typeof api.receive.accept>,
): Promise<Answer<typeof api.receive.accept>> {
  const { db } = kitchen;
  const { who, at, transaction } = command;
  const species = (await readSpecies(db, who.houseId, transaction)).get(body.species);
  if (species === undefined) throw noSuch('species', 'not in the catalogue');
  const form = species.forms.find((f) => f.id === body.form && f.purchase);
  if (form === undefined) throw noSuch('form', `${species.name} is not bought in this form`);
  const house = await readHouse(who.houseId, transaction);
  const supplier = await SupplierRow.findOne({ where: { id: body.supplierId, houseId: who.houseId }, transaction });
  if (supplier === null) throw new Problem('not_found', 'There is no such supplier in this house.');
  const useBy = body.useBy ?? lastDayAfter(house.timezone, at, 24 * (receiptDays(species.group) - 1), null);
  const netMg = body.grossMg - body.tareMg;
  const lotId = uuidv7();
  await makeLot(db, command, {
    id: lotId,
    kind: 'delivery',
    name: `${species.name}, ${form.name}`,
    species: species.id,
    form: form.id,
    category: null,
    destination: null,
    pieces: body.animals,
    madeMg: netMg,
    useBy,
    supplierId: supplier.id,
    breakdownId: null,
    pieceId: null,
    runId: null,
    allergens: species.allergen === 'none' ? [] : [species.allergen],
  });
  const movementId = uuidv7();
  await writeMovement(db, command, {
    id: movementId,
    kind: 'receive',
    station: 'receive',
    note: body.note,
    reverses: null,
    postings: [
      { sink: 'supplier', reason: null, massMg: -netMg, costMinor: -body.paidMinor },
      { lotId, massMg: netMg, costMinor: body.paidMinor },
    ],
  });
  await DeliveryRow.create(
    {
      lotId,
      houseId: who.houseId,
      grossMg: body.grossMg,
      tareMg: body.tareMg,
      invoiceMg: body.invoiceMg,
      paidMinor: body.paidMinor,
      temperatureCentiC: body.temperatureCentiC,
      origin: body.origin,
      landedOn: body.landedOn,
      note: body.note,
      personId: who.personId,
      at,
      movementId,
    },
    { transaction },
  );
  const delivery: Delivery | undefined = await readDelivery(db, who.houseId, lotId, transaction);
  if (delivery === undefined) throw new Error(`delivery ${lotId} was written and is not there`);
  return delivery;
}
