import type { Answer, Asked, api, Way } from '@zabrik/contract';
import {
  animalsIn,
  type CutPlan,
  formatMass,
  missingInputs,
  type PlanStage,
  planAsBought,
  planStartsFrom,
  type Species,
  shareOfPurchase,
  stageOfPlan,
} from '@zabrik/core';
import type { Sequelize, Transaction } from 'sequelize';
import { dayIn, readHouse } from '../../db/house.ts';
import { BreakdownTable } from '../../db/models/breakdown.ts';
import { BreakdownInputTable } from '../../db/models/breakdownInput.ts';
import { readOwnParts } from '../../db/ownParts.ts';
import { findPlan, readSpecies } from '../../db/plans.ts';
import { rowsOf } from '../../db/rows.ts';
import { select } from '../../db/select.ts';
import { keepPlan } from '../../db/versions.ts';
import { Problem } from '../../http/problem.ts';
import { mindDates } from '../../massledger/confirmations.ts';
import { costOfPart, type HeldLot, lockLots, mustBeFree } from '../../massledger/lockLots.ts';
import { reserve } from '../../massledger/reserve.ts';
import type { InCommand, Services } from '../../services.ts';
import { readBreakdown } from './queries.ts';

/** Beyond this many animals nobody weighs every piece apart unless they ask for it. */
const MOST_ONE_BY_ONE = 12;

const usualWay = (plan: CutPlan, animals: number): Way =>
  plan.pooled === true || animals > MOST_ONE_BY_ONE ? 'pooled' : 'one-by-one';

/** The plan as it will be worked on what was bought. */
function planFor(plan: CutPlan, species: Species | undefined, form: string): CutPlan {
  if (species === undefined || !planStartsFrom(plan, species.id, form)) throw new Problem('plan_does_not_fit');
  return planAsBought(plan, species, form);
}

/** What was weighed by kind, or animal by animal, goes on so; of stages weighed unlike, nobody has said. */
const wayBefore = (ways: readonly Way[]): Way | undefined => (new Set(ways).size === 1 ? ways[0] : undefined);

interface Parent {
  readonly id: string;
  readonly rootId: string;
  readonly stageId: string;
  readonly plan: CutPlan;
  readonly planId: string;
  readonly species: string;
  readonly form: string;
  readonly animals: number;
  readonly startMg: number;
  readonly startShare: number;
  readonly way: Way;
}

const readParents = async (
  db: Sequelize,
  transaction: Transaction,
  lots: readonly HeldLot[],
): Promise<Map<string, Parent>> => {
  const rows = await select<Parent>(
    db,
    `select b.id, b.root_id as "rootId", b.stage_id as "stageId", pv.plan, b.plan_id as "planId", b.species, b.form, b.animals, b.start_mg as "startMg", b.start_share as "startShare", b.way
     from breakdown b join plan_version pv on pv.house_id = b.house_id and pv.id = b.plan_version where b.id = any($1::uuid[])`,
    [lots.flatMap((lot) => lot.breakdownId ?? [])],
    transaction,
  );
  return new Map(rows.map((row) => [row.id, row]));
};

interface Taken {
  readonly lot: HeldLot;
  readonly massMg: number;
  /** How many of the lot that is, where they were counted. */
  readonly pieces: number | null;
}

/** How much of each lot comes to the bench. Errors  `lot_gone`, `on_hold`, `cannot_keep` (frozen), `not_enough`, naming the lot. */
const takeFrom = (lot: HeldLot, wantedMg: number | null, pieces: number | null): Taken => {
  if (lot.massMg === 0) throw new Problem('lot_gone', `Lot ${lot.code} is used up.`);
  mustBeFree([lot]);
  if (lot.state === 'frozen') throw new Problem('cannot_keep', `Lot ${lot.code} is frozen. Thaw it first.`);
  const massMg = wantedMg ?? lot.freeMg;
  if (massMg > lot.freeMg || massMg <= 0)
    throw new Problem(
      'not_enough',
      `Lot ${lot.code} has ${formatMass(lot.freeMg)} left that is not on a bench already.`,
    );
  if (pieces !== null && pieces > lot.freePieces)
    throw new Problem(
      'not_enough',
      `${lot.freePieces} of lot ${lot.code} can be cut, not ${pieces}. Are there more, count the lot in the larder first.`,
    );
  return { lot, massMg, pieces };
};

interface Opening {
  readonly plan: CutPlan;
  readonly stage: PlanStage;
  readonly species: string;
  readonly form: string;
  readonly animals: number;
  readonly way: Way;
  readonly taken: readonly [Taken, ...Taken[]];
  /** Somebody has read that a lot is past its date. */
  readonly confirmed: boolean;
}

/** Writes the open breakdown. Nothing moves in the ledger until the stage closes; the mass is reserved. */
async function open(services: Services, command: InCommand, opening: Opening): Promise<Answer<typeof api.bench.start>> {
  const { db } = services;
  const { actor, at, transaction } = command;
  const { plan, stage, taken } = opening;
  const house = await readHouse(db, command);
  mindDates(
    taken.map((t) => t.lot),
    dayIn(house.timezone, at),
    opening.confirmed,
  );
  const parents = await readParents(
    db,
    transaction,
    taken.map((t) => t.lot),
  );
  const own = await readOwnParts(
    db,
    taken.map((t) => t.lot.id),
    transaction,
  );
  const id = command.newId();
  const [first] = taken;
  const startMg = taken.reduce((sum, t) => sum + t.massMg, 0);
  const startShare = shareOfPurchase(
    taken.map(({ lot, massMg }) => {
      const parent = lot.breakdownId === null ? undefined : parents.get(lot.breakdownId);
      return {
        usedMg: massMg,
        from: parent?.rootId ?? null,
        // what was joined to a piece is no part of its animal
        madeMg: lot.madeMg * (own.get(lot.id) ?? 1),
        ...(parent === undefined ? {} : { parentStartMg: parent.startMg, parentShare: parent.startShare }),
      };
    }),
  );
  await rowsOf(db, BreakdownTable, command).add({
    id,
    lotId: first.lot.id,
    planVersion: await keepPlan(db, actor.houseId, plan, transaction),
    refusals: Object.fromEntries(
      stage.pieces.map((piece) => [piece.id, Object.fromEntries(piece.refused.map((r) => [r.destination, r.reason]))]),
    ),
    planId: plan.id,
    stageId: stage.id,
    species: opening.species,
    form: opening.form,
    animals: opening.animals,
    startMg,
    startMinor: taken.reduce((sum, t) => sum + costOfPart(t.lot, t.massMg), 0),
    state: 'open',
    supplierId: first.lot.supplierId,
    personId: actor.personId,
    holderId: actor.personId,
    startedAt: at,
    rootId: parents.get(first.lot.breakdownId ?? '')?.rootId ?? id,
    startShare,
    way: opening.way,
  });
  await rowsOf(db, BreakdownInputTable, command).addAll(
    taken.map(({ lot, massMg }, position) => ({ breakdownId: id, position, lotId: lot.id, massMg })),
  );
  await reserve(
    db,
    command,
    { kind: 'breakdown', id },
    taken.map(({ lot, massMg, pieces }) => ({ lotId: lot.id, massMg, pieces })),
  );
  return readBreakdown(db, actor.houseId, id, transaction);
}

/** Puts a lot, or part of it, on the bench with a cut plan: a delivery, or a piece that stands for a form of its own (a saddle off a carcass). */
export async function startBreakdown(
  services: Services,
  command: InCommand,
  { body }: Asked<typeof api.bench.start>,
): Promise<Answer<typeof api.bench.start>> {
  const { db } = services;
  const { actor, transaction } = command;
  const [lot] = await lockLots(db, transaction, actor.houseId, [body.lotId]);
  if (lot === undefined) throw new Problem('not_found');
  const found = await findPlan(db, actor.houseId, body.planId, transaction);
  if (found === undefined || found.retired)
    throw new Problem('invalid', undefined, [{ path: 'planId', message: 'no such cut plan' }]);
  if (lot.species === null || lot.form === null) throw new Problem('plan_does_not_fit');
  if (lot.massMg === 0) throw new Problem('lot_gone');
  const species = (await readSpecies(db, actor.houseId, transaction)).get(lot.species);
  const plan = planFor(found.plan, species, lot.form);
  return open(services, command, {
    plan,
    stage: stageOfPlan(plan),
    species: lot.species,
    form: lot.form,
    animals: body.animals,
    way: body.way ?? usualWay(plan, body.animals),
    taken: [takeFrom(lot, body.massMg, body.animals)],
    confirmed: body.confirmed,
  });
}

/** How many of each piece a stage gives: of a whole animal more than of a part that was bought by itself. */
const countsOf = (plan: CutPlan, stageId: string | null): string =>
  stageOfPlan(plan, stageId ?? undefined)
    .pieces.map((p) => `${p.id} ${p.count}`)
    .join();

/** Carries on with the next stage of a plan from the pieces earlier stages made. */
export async function goOn(
  services: Services,
  command: InCommand,
  { body }: Asked<typeof api.bench.goOn>,
): Promise<Answer<typeof api.bench.goOn>> {
  const { db } = services;
  const { actor, transaction } = command;
  const wanted = new Map(body.lots.map((l) => [l.lotId, l.massMg]));
  const lots = await lockLots(db, transaction, actor.houseId, [...wanted.keys()]);
  const parents = await readParents(db, transaction, lots);
  const parentOf = (lot: HeldLot): Parent => {
    const parent = lot.breakdownId === null ? undefined : parents.get(lot.breakdownId);
    if (parent === undefined || lot.nextStage === null)
      throw new Problem('plan_does_not_fit', `Lot ${lot.code} does not wait for a next stage.`);
    return parent;
  };
  const [first, ...rest] = lots;
  if (first === undefined) throw new Problem('not_found');
  const { plan, species, form } = parentOf(first);
  for (const lot of rest)
    if (
      parentOf(lot).planId !== plan.id ||
      parentOf(lot).plan.version !== plan.version ||
      parentOf(lot).species !== species ||
      lot.nextStage !== first.nextStage ||
      countsOf(parentOf(lot).plan, lot.nextStage) !== countsOf(plan, first.nextStage)
    )
      throw new Problem('plan_does_not_fit', `Lot ${lot.code} does not go on to the same stage as ${first.code}.`);
  const stage = stageOfPlan(plan, first.nextStage ?? undefined);
  const missing = missingInputs(
    plan,
    stage.id,
    lots.map((lot) => lot.pieceId),
  );
  if (missing.length > 0 && !body.confirmed)
    throw new Problem(
      'needs_confirmation',
      `${stage.name} is made of all that goes on to it, and not all is here: ${missing.join(', ')}. Cut those first, or go on without them.`,
    );
  const [takenFirst, ...takenRest] = lots.map((lot) => takeFrom(lot, wanted.get(lot.id) ?? null, null));
  if (takenFirst === undefined) throw new Problem('not_found');
  const taken = [takenFirst, ...takenRest] as const;
  const animals = Math.max(
    1,
    Math.round(
      animalsIn(
        taken.map(({ lot, massMg }) => {
          const { id, rootId, stageId, animals: of } = parentOf(lot);
          return { root: rootId, stage: stageId, breakdown: id, animals: (of * massMg) / lot.madeMg };
        }),
      ),
    ),
  );
  return open(services, command, {
    plan,
    stage,
    species,
    form,
    animals,
    way: body.way ?? wayBefore(lots.map((lot) => parentOf(lot).way)) ?? usualWay(plan, animals),
    taken,
    confirmed: body.confirmed,
  });
}
