/** Whom a house buys from, and what is agreed with them. */

import { type Answer, type Asked, type api, noTerms, type SupplierTerms } from '@zabrik/contract';
import type { Sequelize } from 'sequelize';
import { goodsOf } from '../../db/goodsHere.ts';
import { SettingChangeTable } from '../../db/models/settingChange.ts';
import { SupplierTable } from '../../db/models/supplier.ts';
import { readSpecies } from '../../db/plans.ts';
import { type HouseScope, rowsOf } from '../../db/rows.ts';
import type { RowOf } from '../../db/table.ts';
import { Problem } from '../../http/problem.ts';
import type { InCommand, Services } from '../../services.ts';

type Supplier = Answer<typeof api.receive.saveSupplier>;

const supplierOf = ({ id, name, version, retiredAt, terms }: RowOf<typeof SupplierTable>): Supplier => ({
  id,
  name,
  version,
  retired: retiredAt !== null,
  terms: { ...noTerms, ...terms },
});

/** Those bought from first, by name. */
export async function listSuppliers(db: Sequelize, scope: HouseScope): Promise<Supplier[]> {
  const rows = await rowsOf(db, SupplierTable, scope).all({}, { order: ['name'] });
  return rows.map(supplierOf).sort((a, b) => Number(a.retired) - Number(b.retired));
}

const mustBeNew = async (db: Sequelize, command: InCommand, name: string, but?: string): Promise<void> => {
  const there = await rowsOf(db, SupplierTable, command).one({ name });
  if (there !== undefined && there.id !== but)
    throw new Problem('invalid', 'There is a supplier of that name already.', [
      { path: 'name', message: 'is there already' },
    ]);
};

export async function addSupplier(
  { db }: Services,
  command: InCommand,
  { body: { name } }: Asked<typeof api.receive.addSupplier>,
): Promise<Answer<typeof api.receive.addSupplier>> {
  await mustBeNew(db, command, name);
  const id = command.newId();
  await rowsOf(db, SupplierTable, command).add({ id, name, retiredAt: null });
  return { id, name };
}

/**
 * Other terms, another name, bought from no more. What is another afterwards is written down among what was changed of the house.
 *
 * Errors  `changed_since` where somebody was first; `invalid` for another's name, and for an item that names nothing or two things at once.
 */
export async function saveSupplier(
  { db }: Services,
  command: InCommand,
  { params, body }: Asked<typeof api.receive.saveSupplier>,
): Promise<Supplier> {
  const suppliers = rowsOf(db, SupplierTable, command);
  const row = await suppliers.one({ id: params.supplierId }, { lock: 'update' });
  if (row === undefined) throw new Problem('not_found');
  if (row.version !== body.version) throw new Problem('changed_since');
  await mustBeNew(db, command, body.name, row.id);
  const animals = await readSpecies(db, command.houseId, command.transaction);
  const isBought = ({ species, form, goods }: SupplierTerms['items'][number]): boolean =>
    goods === null
      ? animals.get(species ?? '')?.forms.some((f) => f.id === form) === true
      : species === null && form === null && goodsOf(goods) !== undefined;
  const odd = body.terms.items.findIndex((i) => !isBought(i));
  if (odd >= 0)
    throw new Problem('invalid', undefined, [
      { path: `terms.items.${odd}`, message: 'an animal of this house and one of its forms, or one of the goods' },
    ]);
  const before = supplierOf(row);
  const to = {
    name: body.name,
    terms: body.terms,
    retiredAt: body.retired ? (row.retiredAt ?? command.at) : null,
    version: row.version + 1,
  };
  await suppliers.change({ id: row.id }, to);
  const now = supplierOf({ ...row, ...to });
  const side = ({ name, retired, terms }: Supplier) => ({ name, retired, ...terms, items: terms.items.length });
  await rowsOf(db, SettingChangeTable, command).add({
    id: command.newId(),
    at: command.at,
    personId: command.actor.personId,
    what: 'supplier',
    about: row.name,
    before: side(before),
    after: side(now),
  });
  return now;
}
