/** The house's uses: the handbook's as they stand, its own versions above them, and what its batches gave. */
import { useById } from '@zabrik/catalogue';
import type { Answer, Asked, api, ListedUse } from '@zabrik/contract';
import { carryAllergens } from '@zabrik/core';
import type { Sequelize, Transaction } from 'sequelize';
import { select } from '../../db/select.ts';
import { findUse, listUses, listUseVersions, type OwnUse } from '../../db/uses.ts';
import { Problem } from '../../http/problem.ts';
import type { InCommand, Kitchen } from '../../kitchen.ts';

interface BatchRow {
  readonly useId: string;
  readonly runId: string;
  readonly ways: string[];
  readonly ratio: number;
  readonly baseMg: number;
  readonly at: Date;
}

/** How many batches of a use are told: more would not move what is expected of the next. */
const TOLD = 40;

/** What batches gave, the latest first: of one use, or of every one. */
export const readBatches = (db: Sequelize, houseId: string, useId: string | null, transaction?: Transaction) =>
  select<BatchRow>(
    db,
    `select use_id as "useId", id as "runId", ways, (output_mg::float8 / base_mg) as ratio, base_mg as "baseMg", done_at as at from (
       select *, row_number() over (partition by use_id order by done_at desc) as n from run
       where house_id = $1 and state = 'done' and ($2::text is null or use_id = $2)) r
     where n <= ${TOLD} order by done_at desc`,
    [houseId, useId],
    transaction,
  );

const listed = (
  { use, own }: { readonly use: ListedUse['use']; readonly own: OwnUse | undefined },
  batches: readonly BatchRow[],
): ListedUse => ({
  use,
  own: own !== undefined,
  retired: own?.retired ?? false,
  changed: own === undefined ? null : { by: own.by, at: own.at.toISOString(), note: own.note },
  batches: batches
    .filter((b) => b.useId === use.id)
    .map(({ runId, ways, ratio, baseMg, at }) => ({ runId, ways, ratio, baseMg, at: at.toISOString() })),
});

export async function readUses({ db }: Kitchen, houseId: string): Promise<Answer<typeof api.pots.uses>> {
  const [uses, batches] = await Promise.all([listUses(db, houseId), readBatches(db, houseId, null)]);
  return { uses: uses.map((u) => listed(u, batches)) };
}

export async function readUseVersions(
  { db }: Kitchen,
  houseId: string,
  useId: string,
): Promise<Answer<typeof api.pots.useVersions>> {
  const own = await listUseVersions(db, houseId, useId);
  const handbook = useById.get(useId);
  if (own.length === 0 && handbook === undefined) throw new Problem('not_found', 'There is no such use.');
  return {
    versions: [
      ...own.map(({ use, by, at, note }) => ({ use, by, at: at.toISOString(), note })),
      ...(handbook === undefined ? [] : [{ use: handbook, by: null, at: null, note: 'The handbook’s' }]),
    ],
  };
}

/**
 * Saves the house's version of a use. Never-eaten kinds stay refused, and an allergen of the handbook's never gets lost.
 *
 * Errors  `invalid` while the allergens of an ingredient are not said; `changed_since` when someone saved another version meanwhile.
 */
export async function saveUse(
  { db }: Kitchen,
  { who, at, transaction }: InCommand,
  { body }: Asked<typeof api.pots.saveUse>,
): Promise<ListedUse> {
  const { use, from, note, retired } = body;
  const unsaid = use.ingredients.findIndex((i) => i.unsaid === true);
  if (unsaid !== -1)
    throw new Problem('invalid', `Nobody has said which allergens ${use.ingredients[unsaid]?.name} has.`, [
      { path: `use.ingredients.${unsaid}.allergens`, message: 'say which it has, or none' },
    ]);
  await db.query('select pg_advisory_xact_lock(hashtextextended($1, 8))', {
    bind: [`${who.houseId}/${use.id}`],
    transaction,
  });
  const now = await findUse(db, who.houseId, use.id, transaction);
  if ((now?.use.version ?? 0) !== from) throw new Problem('changed_since');
  const handbook = useById.get(use.id);
  const refused = new Set(use.refuses.map((r) => r.category));
  const saved: ListedUse['use'] = {
    ...use,
    version: from + 1,
    allergens: carryAllergens(use.allergens, handbook?.allergens ?? []),
    ingredients: use.ingredients.map((i) => ({
      ...i,
      allergens: carryAllergens(i.allergens, handbook?.ingredients.find((h) => h.id === i.id)?.allergens ?? []),
    })),
    refuses: [
      ...use.refuses,
      ...(handbook?.refuses ?? []).filter((r) => !refused.has(r.category) && !use.accepts.includes(r.category)),
    ],
  };
  await db.query(
    'insert into house_use (house_id, use_id, version, body, retired, note, person_id, at) values ($1, $2, $3, $4, $5, $6, $7, $8)',
    {
      bind: [who.houseId, use.id, saved.version, JSON.stringify(saved), retired, note, who.personId, at],
      transaction,
    },
  );
  return listed(
    { use: saved, own: { use: saved, retired, note, by: who.name, at } },
    await readBatches(db, who.houseId, use.id, transaction),
  );
}
