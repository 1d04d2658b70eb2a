import type { BenchEventBody, Breakdown, BreakdownHead, WaitingStage } from '@zabrik/contract';
import {
  believeShare,
  broughtIn,
  type CutPlan,
  carryAllergens,
  foundDespite,
  missingInputs,
  noUnits,
  type OwnTime,
  ownTimes,
  type PlanStage,
  type PlanStep,
  type SaidOfSteps,
  stageOfPlan,
} from '@zabrik/core';
import type { Sequelize, Transaction } from 'sequelize';
import {
  HEAD,
  type HeadRow,
  headOf,
  piecesTaken,
  readEvents,
  readHead,
  readInputs,
  readOwnShares,
  readUnitsSeen,
  readWeighings,
  speciesName,
  stageAsCut,
  stageOf,
  unitsOf,
} from '../../db/breakdownHead.ts';
import { FREE } from '../../db/freeOfLot.ts';
import { select } from '../../db/select.ts';
import type { Place } from '../../http/page.ts';

export async function listOpenBreakdowns(
  db: Sequelize,
  houseId: string,
  limit: number,
  after: Place | undefined,
): Promise<BreakdownHead[]> {
  const rows = await select<HeadRow>(
    db,
    `${HEAD} and b.state = 'open' and ($2::timestamptz is null or (b.started_at, b.id) > ($2::timestamptz, $3::uuid))
     order by b.started_at, b.id limit $4`,
    [houseId, after?.at ?? null, after?.id ?? null, limit + 1],
  );
  return rows.map(headOf);
}

export async function readBreakdown(
  db: Sequelize,
  houseId: string,
  breakdownId: string,
  transaction?: Transaction,
): Promise<Breakdown> {
  const head = await readHead(db, houseId, breakdownId, transaction);
  // one after the other: inside a command they share one connection
  const weighings = await readWeighings(db, breakdownId, transaction);
  const planned = stageOf(head.plan, head.stageId);
  const found = foundDespite(head.found, planned, head.animals, unitsOf(piecesTaken(weighings)));
  const row = { ...head, found };
  const stage = stageAsCut(row);
  const events = await readEvents(db, breakdownId, transaction);
  const inputs = await readInputs(db, breakdownId, transaction);
  const own = await readOwnShares(
    db,
    houseId,
    {
      planId: row.planId,
      stageId: row.stageId,
      species: row.species,
      form: row.form,
      exceptId: row.id,
      before: row.closedAt ?? new Date(8.64e15),
      supplierId: row.supplierId,
      cameWithout: row.found.cameWithout,
    },
    transaction,
  );
  const units = await readUnitsSeen(db, houseId, row, transaction);
  const times = await readOwnTimes(db, houseId, row, stage, transaction);
  return {
    ...headOf(row),
    plan: row.plan as Breakdown['plan'],
    inputs: inputs.flatMap(({ brought, allergens: _, ...input }) => (brought ? [] : [input])),
    allergens: carryAllergens(...inputs.map((i) => i.allergens), ...broughtIn(events).map((b) => b.allergens)),
    movementId: row.movementId,
    weighings,
    events,
    beliefs: stage.pieces.map((piece) => ({
      pieceId: piece.id,
      ...believeShare(piece.share, own.get(piece.id) ?? []),
      units: units.get(piece.id) ?? noUnits,
    })),
    drip: { mean: stage.drip.mean, sd: stage.drip.sd },
    ownTimes: times,
  };
}

/** So many times before say what a step takes here. */
const BEFORE = 8;

/** What the timed steps of a stage took in this house before: of the same plan, species and form. */
async function readOwnTimes(
  db: Sequelize,
  houseId: string,
  row: HeadRow,
  stage: PlanStage,
  transaction?: Transaction,
): Promise<OwnTime[]> {
  if (!stage.steps.some((s) => s.minutes !== undefined)) return [];
  const said = await select<{
    readonly id: string;
    readonly plan: CutPlan;
    readonly animalMg: number;
    readonly body: BenchEventBody;
  }>(
    db,
    `select b.id, pv.plan, b.start_mg::float8 / b.animals as "animalMg", e.body
     from (select * from breakdown where house_id = $1 and plan_id = $2 and stage_id = $3 and species = $4 and form = $5 and state = 'closed' and id <> $6
           order by closed_at desc, id limit $7) b
       join plan_version pv on pv.house_id = b.house_id and pv.id = b.plan_version
       join bench_event e on e.house_id = b.house_id and e.breakdown_id = b.id and e.body ->> 'kind' in ('timer', 'step')
     order by e.seq`,
    [houseId, row.planId, row.stageId, row.species, row.form, row.id, BEFORE],
    transaction,
  );
  const before = new Map<string, { steps: readonly PlanStep[]; standing: SaidOfSteps[]; pieceMg: number }>();
  for (const { id, plan, animalMg, body } of said) {
    const one = before.get(id) ?? { steps: stageOfPlan(plan, row.stageId).steps, standing: [], pieceMg: animalMg };
    one.standing.push({ at: body.at, body });
    before.set(id, one);
  }
  return ownTimes(stage.steps, [...before.values()], row.startMg / row.animals);
}

interface WaitingRow {
  readonly lotId: string;
  readonly code: string;
  readonly name: string;
  readonly massMg: number;
  readonly freeMg: number;
  readonly freePieces: number;
  readonly useBy: string | null;
  readonly madeAt: Date;
  readonly nextStage: string;
  readonly pieceId: string | null;
  readonly breakdownId: string;
  readonly rootId: string;
  readonly plan: CutPlan;
  readonly species: string;
  readonly animals: number;
}

/** Pieces that wait to go on, by the animal they come from and the stage they wait for; the longest waiting first. */
export async function listWaiting(db: Sequelize, houseId: string): Promise<WaitingStage[]> {
  const rows = await select<WaitingRow>(
    db,
    `select * from (
       select l.id as "lotId", l.code, l.name, b.mass_mg as "massMg", l.use_by as "useBy", l.made_at as "madeAt", l.next_stage as "nextStage",
              l.piece_id as "pieceId", o.id as "breakdownId", o.root_id as "rootId", pv.plan, o.species, o.animals,
              ${FREE}
       from lot l join lot_balance b on b.lot_id = l.id and b.house_id = $1 and b.mass_mg > 0
         join breakdown o on o.id = l.breakdown_id and o.house_id = $1 join plan_version pv on pv.house_id = o.house_id and pv.id = o.plan_version
       where l.house_id = $1 and l.next_stage is not null) waiting
     where "freeMg" > 0 order by "madeAt", code limit 500`,
    [houseId],
  );
  const groups = new Map<string, WaitingRow[]>();
  for (const row of rows) {
    const key = `${row.rootId}/${row.nextStage}`;
    groups.set(key, [...(groups.get(key) ?? []), row]);
  }
  return [...groups.values()].flatMap((lots): WaitingStage[] => {
    const [first] = lots;
    if (first === undefined) return [];
    const stage = stageOfPlan(first.plan, first.nextStage);
    const after = (minutes: number): string => new Date(first.madeAt.getTime() + minutes * 60_000).toISOString();
    return [
      {
        breakdownId: first.breakdownId,
        planTitle: first.plan.title,
        speciesName: speciesName(first.species),
        stageId: stage.id,
        stageName: stage.name,
        lots: lots.map(({ lotId, code, name, massMg, freeMg, freePieces }) => ({
          lotId,
          code,
          name,
          massMg,
          freeMg,
          freePieces,
        })),
        animals: Math.max(...lots.map((l) => l.animals)),
        madeAt: first.madeAt.toISOString(),
        readyAt: stage.rest === undefined ? null : after(stage.rest.lowMinutes),
        lateAt: stage.rest === undefined ? null : after(stage.rest.highMinutes),
        restNote: stage.rest?.note ?? null,
        missing: missingInputs(
          first.plan,
          stage.id,
          lots.map((l) => l.pieceId),
        ),
        useBy: lots.flatMap((l) => l.useBy ?? []).sort()[0] ?? null,
      },
    ];
  });
}

export const listBenchPeople = (db: Sequelize, houseId: string): Promise<{ id: string; name: string }[]> =>
  select(db, "select id, name from person where house_id = $1 and role <> 'viewer' and left_at is null order by name", [
    houseId,
  ]);
