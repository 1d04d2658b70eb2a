import type { ClosedBreakdown } from '@zabrik/contract';
import { type CutPlan, type Destination, type Found, type SheetPiece, yieldShares } from '@zabrik/core';
import type { Sequelize } from 'sequelize';
import { HEAD, type HeadRow, headOf, stageAsCut } from '../../db/breakdownHead.ts';
import { select, selectOne } from '../../db/select.ts';
import type { Place } from '../../http/page.ts';

export interface PieceRow {
  readonly breakdownId: string;
  readonly pieceId: string;
  readonly destination: Destination;
  /** The animal's own. */
  readonly massMg: number;
  /** What was joined to it. */
  readonly broughtMg: number;
  readonly units: number;
  readonly lotId: string | null;
  readonly lotCode: string | null;
}

export const readPieces = (db: Sequelize, breakdownIds: readonly string[]): Promise<PieceRow[]> =>
  select<PieceRow>(
    db,
    `select p.breakdown_id as "breakdownId", p.piece_id as "pieceId", p.destination, p.mass_mg as "massMg", p.brought_mg as "broughtMg", p.units, p.lot_id as "lotId", l.code as "lotCode"
     from breakdown_piece p left join lot l on l.id = p.lot_id where p.breakdown_id = any($1::uuid[])`,
    [[...breakdownIds]],
  );

/** Pieces in the order of the plan, each knowing whether it is a main cut and edible. */
export function sheetPieces(row: HeadRow, pieces: readonly PieceRow[]): (SheetPiece & PieceRow)[] {
  const order = stageAsCut(row).pieces;
  return pieces
    .map((piece) => {
      const planned = order.find((p) => p.id === piece.pieceId);
      return { ...piece, edible: planned?.edible ?? false, main: planned?.main ?? false };
    })
    .sort((a, b) => order.findIndex((p) => p.id === a.pieceId) - order.findIndex((p) => p.id === b.pieceId));
}

export async function listClosed(
  db: Sequelize,
  houseId: string,
  species: string | undefined,
  limit: number,
  after: Place | undefined,
): Promise<ClosedBreakdown[]> {
  const rows = await select<HeadRow>(
    db,
    `${HEAD} and b.state = 'closed' and ($2::text is null or b.species = $2)
     and ($3::timestamptz is null or (b.closed_at, b.id) < ($3::timestamptz, $4::uuid)) order by b.closed_at desc, b.id desc limit $5`,
    [houseId, species ?? null, after?.at ?? null, after?.id ?? null, limit + 1],
  );
  const pieces = await readPieces(
    db,
    rows.map((row) => row.id),
  );
  return rows.map((row) => {
    const own = sheetPieces(
      row,
      pieces.filter((piece) => piece.breakdownId === row.id),
    );
    return {
      ...headOf(row),
      ...yieldShares(row.startMg, own),
      ribbon: own.map(({ pieceId, destination, massMg }) => ({ pieceId, destination, massMg })),
    };
  });
}

export interface ClosingRow {
  readonly bookedSchool: 'weight' | 'by-product-credit' | null;
  readonly takenBack: number;
  readonly note: string | null;
}

/** How it was closed: by which school it was booked, why if out of balance, how often it was reopened. */
export const readClosing = (db: Sequelize, breakdownId: string): Promise<ClosingRow | undefined> =>
  selectOne<ClosingRow>(
    db,
    'select booked_school as "bookedSchool", taken_back as "takenBack", note from breakdown where id = $1',
    [breakdownId],
  );

export interface EarlierRow {
  readonly id: string;
  readonly at: Date;
  readonly mainShare: number;
  readonly supplierName: string | null;
  readonly by: string;
}

/** Main-cut share of the breakdowns of the same kind up to this one, oldest first. */
export const readEarlier = (
  db: Sequelize,
  houseId: string,
  row: HeadRow,
  mainPieces: readonly string[],
): Promise<EarlierRow[]> =>
  select<EarlierRow>(
    db,
    `select * from (
       select b.id, b.closed_at as at, s.name as "supplierName", w.name as by,
              coalesce(sum(p.mass_mg) filter (where p.piece_id = any($6::text[]) and p.destination <> 'waste'), 0)::float8 / b.start_mg as "mainShare"
       from breakdown b join person w on w.id = b.person_id left join supplier s on s.id = b.supplier_id
       join breakdown_piece p on p.breakdown_id = b.id
       where b.house_id = $1 and b.plan_id = $2 and b.species = $3 and b.form = $4 and b.state = 'closed' and b.closed_at <= $5 and b.stage_id = $7
       group by b.id, s.name, w.name order by b.closed_at desc limit 40) latest
     order by at`,
    [houseId, row.planId, row.species, row.form, row.closedAt ?? new Date(8.64e15), [...mainPieces], row.stageId],
  );

export interface ChainRow {
  readonly id: string;
  readonly stageId: string;
  readonly plan: CutPlan;
  readonly found: Found;
  readonly animals: number;
  readonly state: 'open' | 'closed' | 'cancelled';
  readonly startMg: number;
  readonly startShare: number;
  readonly closedAt: Date | null;
}

/** Every stage worked on one purchase, in the order they were begun. Forks into other plans belong to it. */
export const readChain = (db: Sequelize, houseId: string, rootId: string): Promise<ChainRow[]> =>
  select<ChainRow>(
    db,
    `select b.id, b.stage_id as "stageId", pv.plan, b.found, b.animals, b.state, b.start_mg as "startMg", b.start_share as "startShare", b.closed_at as "closedAt"
     from breakdown b join plan_version pv on pv.house_id = b.house_id and pv.id = b.plan_version
     where b.house_id = $1 and b.root_id = $2 and b.state <> 'cancelled' order by b.started_at, b.id`,
    [houseId, rootId],
  );

/** Lots of these breakdowns from which a later breakdown was closed: their pieces went on. */
export const readWentOn = (
  db: Sequelize,
  breakdownIds: readonly string[],
): Promise<{ readonly breakdownId: string; readonly pieceId: string }[]> =>
  select(
    db,
    `select distinct l.breakdown_id as "breakdownId", l.piece_id as "pieceId"
     from breakdown_input i join breakdown b on b.id = i.breakdown_id and b.state = 'closed' join lot l on l.id = i.lot_id
     where l.breakdown_id = any($1::uuid[]) and not i.brought`,
    [[...breakdownIds]],
  );
