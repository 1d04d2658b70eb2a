/** Cut plans of a house: the handbook's, and above them what the house has made, changed or retired. */
import { allPlans, allSpecies, planById } from '@zabrik/catalogue';
import type { CutPlan, Species } from '@zabrik/core';
import type { Sequelize, Transaction } from 'sequelize';
import { CutPlanTable } from './models/cutPlan.ts';
import { HouseSpeciesTable } from './models/houseSpecies.ts';
import { rowsOf } from './rows.ts';
import { select } from './select.ts';

export interface OwnPlan {
  readonly plan: CutPlan;
  readonly retired: boolean;
}

/** The newest version of each plan the house has made or changed. */
export const readOwnPlans = (db: Sequelize, houseId: string): Promise<OwnPlan[]> =>
  select<OwnPlan>(
    db,
    'select distinct on (id) plan, retired from cut_plan where house_id = $1 order by id, version desc',
    [houseId],
  );

export interface PlanFound extends OwnPlan {
  /** Made or changed by the house. */
  readonly own: boolean;
}

/** A plan by its id as the house has it now; undefined where there is none. */
export async function findPlan(
  db: Sequelize,
  houseId: string,
  planId: string,
  transaction?: Transaction,
): Promise<PlanFound | undefined> {
  const own = await rowsOf(db, CutPlanTable, { houseId, transaction }).one({ id: planId }, { order: ['-version'] });
  if (own !== undefined) return { plan: own.plan, retired: own.retired, own: true };
  const plan = planById.get(planId);
  return plan === undefined ? undefined : { plan, retired: false, own: false };
}

/** All plans of a house, the handbook's first, in the handbook's order. */
export async function listPlans(db: Sequelize, houseId: string): Promise<PlanFound[]> {
  const own = await readOwnPlans(db, houseId);
  const byId = new Map(own.map((o) => [o.plan.id, o]));
  const handbook = allPlans.map((plan): PlanFound => {
    const changed = byId.get(plan.id);
    return changed === undefined ? { plan, retired: false, own: false } : { ...changed, own: true };
  });
  return [...handbook, ...own.filter((o) => !planById.has(o.plan.id)).map((o) => ({ ...o, own: true }))];
}

/** All species a house can receive and cut: the handbook's and its own. Its own wins where both have one. */
export async function readSpecies(
  db: Sequelize,
  houseId: string,
  transaction?: Transaction,
): Promise<ReadonlyMap<string, Species>> {
  const own = await rowsOf(db, HouseSpeciesTable, { houseId, transaction }).all({}, { order: ['id'] });
  return new Map([...allSpecies, ...own.map((row) => row.species)].map((species) => [species.id, species]));
}
