/** What work was done by, kept once for all work done by it: a cut plan as worked, a recipe as made. */
import type { CutPlan, Recipe } from '@zabrik/core';
import type { Sequelize, Transaction } from 'sequelize';
import { PlanVersionTable } from './models/planVersion.ts';
import { rowsOf } from './rows.ts';
import { selectOne } from './select.ts';

const keep = async (
  db: Sequelize,
  houseId: string,
  table: string,
  column: string,
  words: object,
  transaction: Transaction,
): Promise<string> => {
  const kept = await selectOne<{ id: string }>(
    db,
    `with said as (select words_id($2::jsonb) as id),
          made as (insert into ${table} (house_id, id, ${column}) select $1, id, $2::jsonb from said on conflict do nothing)
     select id from said`,
    [houseId, JSON.stringify(words)],
    transaction,
  );
  if (kept === undefined) throw new Error(`${table} gave no id`);
  return kept.id;
};

/** Keeps a plan as it will be worked. The same plan has the same id: sha-256 of its words as PostgreSQL writes them. */
export const keepPlan = (db: Sequelize, houseId: string, plan: CutPlan, transaction: Transaction): Promise<string> =>
  keep(db, houseId, 'plan_version', 'plan', plan, transaction);

/** Keeps a recipe as it will be made, with its ways and shares chosen. */
export const keepRecipe = (db: Sequelize, houseId: string, recipe: Recipe, transaction: Transaction): Promise<string> =>
  keep(db, houseId, 'recipe_version', 'recipe', recipe, transaction);

/** The plan a breakdown was begun with. */
export async function readPlanVersion(
  db: Sequelize,
  houseId: string,
  id: string,
  transaction: Transaction,
): Promise<CutPlan> {
  const kept = await rowsOf(db, PlanVersionTable, { houseId, transaction }).one({ id });
  if (kept === undefined) throw new Error(`no plan version ${id}`);
  return kept.plan;
}
