/** Uses of a house: the handbook's, and above them what the house has made, changed or retired. */
import { allUses, useById } from '@zabrik/catalogue';
import type { Use } from '@zabrik/core';
import type { Sequelize, Transaction } from 'sequelize';
import { select, selectOne } from './select.ts';

export interface OwnUse {
  readonly use: Use;
  readonly retired: boolean;
  readonly note: string;
  readonly by: string;
  readonly at: Date;
}

const OWN = `u.body as use, u.retired, u.note, p.name as by, u.at from house_use u join person p on p.id = u.person_id where u.house_id = $1`;

/** A use by its id as the house has it now; undefined where there is none. */
export async function findUse(
  db: Sequelize,
  houseId: string,
  useId: string,
  transaction?: Transaction,
): Promise<{ readonly use: Use; readonly own: OwnUse | undefined } | undefined> {
  const own = await selectOne<OwnUse>(
    db,
    `select ${OWN} and u.use_id = $2 order by u.version desc limit 1`,
    [houseId, useId],
    transaction,
  );
  const use = own?.use ?? useById.get(useId);
  return use === undefined ? undefined : { use, own };
}

/** Every version of a use that the house has made, the latest first. */
export const listUseVersions = (db: Sequelize, houseId: string, useId: string): Promise<OwnUse[]> =>
  select<OwnUse>(db, `select ${OWN} and u.use_id = $2 order by u.version desc`, [houseId, useId]);

/** All uses of a house, the handbook's first, in the handbook's order. */
export async function listUses(
  db: Sequelize,
  houseId: string,
): Promise<{ readonly use: Use; readonly own: OwnUse | undefined }[]> {
  const rows = await select<OwnUse>(db, `select distinct on (u.use_id) ${OWN} order by u.use_id, u.version desc`, [
    houseId,
  ]);
  const byId = new Map(rows.map((row) => [row.use.id, row]));
  return [
    ...allUses.map((use) => ({ use: byId.get(use.id)?.use ?? use, own: byId.get(use.id) })),
    ...rows.filter((row) => !useById.has(row.use.id)).map((own) => ({ use: own.use, own })),
  ];
}
