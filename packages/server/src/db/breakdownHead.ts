/** The head of a breakdown: read by the bench while it is open and by the ledger once it is closed. */
import { pieceRules, speciesById } from '@zabrik/catalogue';
import type { BenchEvent, BreakdownHead, Way, Weighing } from '@zabrik/contract';
import {
  type CutPlan,
  type Destination,
  effectiveWeighings,
  type Found,
  noUnits,
  type PlanStage,
  type ShareRecord,
  type Species,
  stageAsFound,
  stageOfPlan,
  type UnitsSeen,
  unitsSeen,
} from '@zabrik/core';
import type { Sequelize, Transaction } from 'sequelize';
import { Problem } from '../http/problem.ts';
import { select, selectOne } from './select.ts';

export interface HeadRow {
  readonly id: string;
  readonly state: BreakdownHead['state'];
  readonly lotId: string;
  readonly lotCode: string;
  readonly species: string;
  readonly form: string;
  /** The house's own species, where it is one. */
  readonly ownSpecies: Species | null;
  readonly supplierId: string | null;
  readonly supplierName: string | null;
  readonly planId: string;
  readonly plan: CutPlan;
  readonly found: Found;
  readonly stageId: string;
  readonly rootId: string;
  readonly startShare: number;
  readonly way: Way;
  readonly holder: string;
  readonly animals: number;
  readonly startMg: number;
  readonly startMinor: number;
  readonly weighedMg: number;
  readonly by: string;
  /** Who began it. */
  readonly personId: string;
  readonly startedAt: Date;
  readonly closedAt: Date | null;
  readonly movementId: string | null;
}

export const HEAD = `
select b.id, b.state, b.lot_id as "lotId", l.code as "lotCode", b.species, b.form, hs.species as "ownSpecies", b.supplier_id as "supplierId", s.name as "supplierName", b.plan_id as "planId", pv.plan,
       b.stage_id as "stageId", b.root_id as "rootId", b.start_share as "startShare", b.way, h.name as holder, b.found, b.animals, b.start_mg as "startMg", b.start_minor as "startMinor", p.name as by, b.person_id as "personId", b.started_at as "startedAt",
       b.closed_at as "closedAt", b.movement_id as "movementId",
       coalesce((select sum(w.mass_mg) from weighing w where w.breakdown_id = b.id
                 and not exists (select 1 from corrected c where c.house_id = w.house_id and c.id = w.id)), 0)::bigint as "weighedMg"
from breakdown b join plan_version pv on pv.house_id = b.house_id and pv.id = b.plan_version join lot l on l.id = b.lot_id join person p on p.id = b.person_id join person h on h.id = b.holder_id left join supplier s on s.id = b.supplier_id
     left join house_species hs on hs.house_id = b.house_id and hs.id = b.species
where b.house_id = $1`;

export const stageOf = stageOfPlan;

/** The stage as it lies or lay there: without what it came without, with what the plan does not know. */
export const stageAsCut = (row: Pick<HeadRow, 'plan' | 'stageId' | 'found' | 'animals'>): PlanStage =>
  stageAsFound(stageOf(row.plan, row.stageId), row.found, row.animals, pieceRules);

export const speciesName = (id: string): string => speciesById.get(id)?.name ?? id;

export const formName = (species: string, form: string): string =>
  speciesById.get(species)?.forms.find((f) => f.id === form)?.name ?? form;

export const headOf = (row: HeadRow): BreakdownHead => ({
  id: row.id,
  state: row.state,
  lotId: row.lotId,
  lotCode: row.lotCode,
  species: row.species,
  speciesName: row.ownSpecies?.name ?? speciesName(row.species),
  form: row.form,
  formName: row.ownSpecies?.forms.find((f) => f.id === row.form)?.name ?? formName(row.species, row.form),
  supplierName: row.supplierName,
  planId: row.planId,
  planTitle: row.plan.title,
  stageId: row.stageId,
  stageName: stageOf(row.plan, row.stageId).name,
  stageIndex: row.plan.stages.findIndex((s) => s.id === row.stageId),
  stageCount: row.plan.stages.length,
  rootId: row.rootId,
  startShare: row.startShare,
  way: row.way,
  animals: row.animals,
  startMg: row.startMg,
  startMinor: row.startMinor,
  weighedMg: row.weighedMg,
  by: row.by,
  found: row.found as BreakdownHead['found'],
  holder: row.holder,
  startedAt: row.startedAt.toISOString(),
  closedAt: row.closedAt?.toISOString() ?? null,
});

export async function readHead(
  db: Sequelize,
  houseId: string,
  breakdownId: string,
  transaction?: Transaction,
): Promise<HeadRow> {
  const row = await selectOne<HeadRow>(db, `${HEAD} and b.id = $2`, [houseId, breakdownId], transaction);
  if (row === undefined) throw new Problem('not_found');
  return row;
}

interface WeighingRow extends Omit<Weighing, 'at'> {
  readonly at: Date;
}

const weighingOf = (row: WeighingRow): Weighing => ({ ...row, at: row.at.toISOString() });

export async function readWeighings(
  db: Sequelize,
  breakdownId: string,
  transaction?: Transaction,
): Promise<Weighing[]> {
  const rows = await select<WeighingRow>(
    db,
    `select w.id, w.piece_id as "pieceId", w.destination, w.mass_mg as "massMg", w.source, w.count, w.animal, w.scale, w.replaces, p.name as by, w.at
     from weighing w join person p on p.id = w.person_id where w.breakdown_id = $1 order by w.seq`,
    [breakdownId],
    transaction,
  );
  return rows.map(weighingOf);
}

/** What happened beside weighing, oldest first. */
export const readEvents = (db: Sequelize, breakdownId: string, transaction?: Transaction): Promise<BenchEvent[]> =>
  select<BenchEvent>(
    db,
    `select e.id, p.name as by, e.body from bench_event e join person p on p.id = e.person_id where e.breakdown_id = $1 order by e.seq`,
    [breakdownId],
    transaction,
  );

export interface InputRow {
  readonly lotId: string;
  readonly code: string;
  readonly name: string;
  readonly massMg: number;
  readonly allergens: readonly string[];
  /** It is joined to a piece. */
  readonly brought: boolean;
}

/** The lots a breakdown takes from, in the order they were chosen, and those of what was joined to its pieces. */
export const readInputs = (db: Sequelize, breakdownId: string, transaction?: Transaction): Promise<InputRow[]> =>
  select<InputRow>(
    db,
    `select i.lot_id as "lotId", l.code, l.name, i.mass_mg as "massMg", l.allergens, i.brought
     from breakdown_input i join lot l on l.id = i.lot_id where i.breakdown_id = $1 order by i.position`,
    [breakdownId],
    transaction,
  );

/** The latest breakdowns of the same plan, species and form: the share each piece came to. `before` leaves out later ones and itself. */
export async function readOwnShares(
  db: Sequelize,
  houseId: string,
  like: {
    readonly planId: string;
    readonly stageId: string;
    readonly species: string;
    readonly form: string;
    readonly exceptId: string;
    readonly before: Date;
    /** What this one came without: only animals that lacked the same tell how what they had is shared out. */
    readonly cameWithout: Found['cameWithout'];
    /** Whose animal it is now: another supplier's tell less of it. */
    readonly supplierId: string | null;
  },
  transaction?: Transaction,
): Promise<Map<string, ShareRecord[]>> {
  const rows = await select<{ pieceId: string; share: number; animals: number; otherSupplier: boolean }>(
    db,
    `select p.piece_id as "pieceId", sum(p.mass_mg)::float8 / b.start_mg as share, b.animals,
            $8::uuid is not null and b.supplier_id is distinct from $8::uuid as "otherSupplier"
     from (select id, start_mg, closed_at, animals, supplier_id from breakdown
           where house_id = $1 and plan_id = $2 and species = $3 and form = $4 and state = 'closed' and id <> $5 and closed_at < $6 and stage_id = $7
             and found -> 'cameWithout' = $9::jsonb
           order by closed_at desc limit 60) b
     join breakdown_piece p on p.breakdown_id = b.id
     group by b.id, b.start_mg, b.closed_at, b.animals, b.supplier_id, p.piece_id order by b.closed_at desc`,
    [
      houseId,
      like.planId,
      like.species,
      like.form,
      like.exceptId,
      like.before,
      like.stageId,
      like.supplierId,
      JSON.stringify(like.cameWithout),
    ],
    transaction,
  );
  const shares = new Map<string, ShareRecord[]>();
  for (const { pieceId, ...record } of rows) shares.set(pieceId, [...(shares.get(pieceId) ?? []), record]);
  return shares;
}

/**
 * How unlike the units of each piece were in the latest breakdowns of the same kind, of one animal or of several as this one: only units
 * weighed one by one tell.
 */
export async function readUnitsSeen(
  db: Sequelize,
  houseId: string,
  like: Pick<HeadRow, 'id' | 'planId' | 'stageId' | 'species' | 'form' | 'animals' | 'closedAt'>,
  transaction?: Transaction,
): Promise<Map<string, UnitsSeen>> {
  const rows = await select<{ pieceId: string; masses: number[] }>(
    db,
    `select w.piece_id as "pieceId", jsonb_agg(w.mass_mg) as masses
     from (select id from breakdown
           where house_id = $1 and plan_id = $2 and species = $3 and form = $4 and state = 'closed' and id <> $5 and closed_at < $6 and stage_id = $7
             and (animals > 1) = $8
           order by closed_at desc limit 20) b
     join weighing w on w.breakdown_id = b.id
     where w.count = 1 and w.mass_mg is not null and not exists (select 1 from corrected c where c.house_id = w.house_id and c.id = w.id)
     group by b.id, w.piece_id having count(*) > 1`,
    [
      houseId,
      like.planId,
      like.species,
      like.form,
      like.id,
      like.closedAt ?? new Date(8.64e15),
      like.stageId,
      like.animals > 1,
    ],
    transaction,
  );
  const seen = new Map<string, UnitsSeen>();
  for (const { pieceId, masses } of rows) {
    const before = seen.get(pieceId) ?? noUnits;
    const own = unitsSeen(masses);
    seen.set(pieceId, { squares: before.squares + own.squares, df: before.df + own.df });
  }
  return seen;
}

export interface TakenPiece {
  readonly pieceId: string;
  readonly destination: Destination;
  readonly massMg: number;
  readonly units: number;
}

/** The weighings that count, added up by piece and tray, in the order the pieces first came off. */
export function piecesTaken(weighings: readonly Weighing[]): TakenPiece[] {
  const groups = new Map<string, TakenPiece>();
  for (const { pieceId, destination, massMg, count } of effectiveWeighings(weighings)) {
    if (pieceId === null || destination === null) continue;
    const key = `${pieceId}/${destination}`;
    const before = groups.get(key);
    groups.set(key, {
      pieceId,
      destination,
      massMg: massMg + (before?.massMg ?? 0),
      units: count + (before?.units ?? 0),
    });
  }
  return [...groups.values()];
}

/** Units weighed of each piece, on whichever trays. */
export function unitsOf(taken: readonly TakenPiece[]): ReadonlyMap<string, number> {
  const units = new Map<string, number>();
  for (const t of taken) units.set(t.pieceId, (units.get(t.pieceId) ?? 0) + t.units);
  return units;
}
