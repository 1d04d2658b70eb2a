/** The house's own cut plans and species: versions are added, never changed. */

import { allCategories, planById } from '@zabrik/catalogue';
import type { Answer, Asked, api, PlanSheet } from '@zabrik/contract';
import { type CutPlan, planFaults } from '@zabrik/core';
import type { Sequelize, Transaction } from 'sequelize';
import { CutPlanTable } from '../../db/models/cutPlan.ts';
import { HouseSpeciesTable } from '../../db/models/houseSpecies.ts';
import { findPlan, readSpecies } from '../../db/plans.ts';
import { rowsOf } from '../../db/rows.ts';
import { select } from '../../db/select.ts';
import { Problem } from '../../http/problem.ts';
import { photographsAreHere } from '../../photographs/redraw.ts';
import type { InCommand, Services } from '../../services.ts';

const categories: ReadonlySet<string> = new Set(allCategories.map((c) => c.id));

interface VersionRow {
  readonly version: number;
  readonly at: Date;
  readonly by: string;
}

export async function readPlanSheet(
  db: Sequelize,
  houseId: string,
  planId: string,
  transaction?: Transaction,
): Promise<PlanSheet> {
  const found = await findPlan(db, houseId, planId, transaction);
  if (found === undefined) throw new Problem('not_found', 'There is no such cut plan.');
  const own = await select<VersionRow>(
    db,
    `select c.version, c.at, p.name as by from cut_plan c join person p on p.id = c.person_id
     where c.house_id = $1 and c.id = $2 order by c.version desc limit 100`,
    [houseId, planId],
    transaction,
  );
  const handbook = planById.get(planId);
  return {
    plan: found.plan as PlanSheet['plan'],
    own: found.own,
    retired: found.retired,
    versions: [
      ...own.map((v) => ({ version: v.version, at: v.at.toISOString(), by: v.by })),
      ...(handbook === undefined ? [] : [{ version: handbook.version, at: null, by: null }]),
    ],
  };
}

const add = ({ db }: Services, command: InCommand, plan: CutPlan, retired: boolean) => {
  const { id, version } = plan;
  const { actor, at } = command;
  return rowsOf(db, CutPlanTable, command).add({ id, version, plan, retired, personId: actor.personId, at });
};

/** One at a time for each plan of a house: two who save at once must not both become the same version. */
const alone = (services: Services, { actor, transaction }: InCommand, planId: string) =>
  services.db.query('select pg_advisory_xact_lock(hashtextextended($1, 0))', {
    bind: [`${actor.houseId}/${planId}`],
    transaction,
  });

/**
 * Saves a plan as the next version of the house's own.
 *
 * Errors  `invalid`, with every fault of the plan and where it is; `changed_since` when someone saved a newer version meanwhile, or
 *         when a new plan's id is taken.
 */
export async function savePlan(
  services: Services,
  command: InCommand,
  { body }: Asked<typeof api.bench.savePlan>,
): Promise<Answer<typeof api.bench.savePlan>> {
  const { actor, transaction } = command;
  const species = await readSpecies(services.db, actor.houseId, transaction);
  const faults = planFaults(body.plan, { species, categories });
  const [fault] = faults;
  if (fault !== undefined)
    throw new Problem(
      'invalid',
      fault.message,
      faults.map(({ path, message }) => ({ path: `plan.${path}`, message })),
    );
  await photographsAreHere(
    services.db,
    command,
    body.plan.stages.flatMap((s) => s.steps.map((t) => t.photo)),
  );
  await alone(services, command, body.plan.id);
  const before = await findPlan(services.db, actor.houseId, body.plan.id, transaction);
  const newest = before?.plan.version ?? 0;
  if (newest !== body.basedOn)
    throw new Problem(
      'changed_since',
      body.basedOn === 0
        ? `There is already a plan called ${body.plan.id}, “${before?.plan.title ?? ''}”. Give yours another short name.`
        : `Version ${newest} was saved meanwhile; yours is made from ${body.basedOn}. Open it again and put your changes in.`,
    );
  await add(services, command, { ...body.plan, version: newest + 1 }, false);
  return readPlanSheet(services.db, actor.houseId, body.plan.id, transaction);
}

/** Takes a plan out of the lists, or brings it back: a version like any other, so that it is known who did it. */
export async function retirePlan(
  services: Services,
  command: InCommand,
  { params, body }: Asked<typeof api.bench.retirePlan>,
): Promise<Answer<typeof api.bench.retirePlan>> {
  const { actor, transaction } = command;
  await alone(services, command, params.planId);
  const before = await findPlan(services.db, actor.houseId, params.planId, transaction);
  if (before === undefined) throw new Problem('not_found', 'There is no such cut plan.');
  if (before.retired !== body.retired)
    await add(services, command, { ...before.plan, version: before.plan.version + 1 }, body.retired);
  return readPlanSheet(services.db, actor.houseId, params.planId, transaction);
}

export async function saveSpecies(
  { db }: Services,
  command: InCommand,
  { body }: Asked<typeof api.bench.saveSpecies>,
): Promise<Answer<typeof api.bench.saveSpecies>> {
  const { species } = body;
  if (!species.forms.some((f) => f.purchase))
    throw new Problem('invalid', 'Say at least one form it is bought in.', [
      { path: 'species.forms', message: 'at least one form it is bought in' },
    ]);
  const { id } = species;
  const { actor, at } = command;
  const all = rowsOf(db, HouseSpeciesTable, command);
  await all.addMissing([{ id, species, personId: actor.personId, at }]);
  await all.change({ id }, { species, personId: actor.personId, at });
  return { done: true };
}
