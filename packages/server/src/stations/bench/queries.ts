import type { Breakdown, BreakdownHead } from '@zabrik/contract';
import { believeShare } from '@zabrik/core';
import type { Sequelize, Transaction } from 'sequelize';
import { HEAD, type HeadRow, headOf, readHead, readOwnShares, readWeighings, stageOf } from '../../db/breakdownHead.ts';
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
  const row = await readHead(db, houseId, breakdownId, transaction);
  const stage = stageOf(row.plan, row.stageId);
  const [weighings, own] = await Promise.all([
    readWeighings(db, breakdownId, transaction),
    readOwnShares(
      db,
      houseId,
      {
        planId: row.planId,
        species: row.species,
        form: row.form,
        exceptId: row.id,
        before: row.closedAt ?? new Date(8.64e15),
      },
      transaction,
    ),
  ]);
  return {
    ...headOf(row),
    plan: row.plan as Breakdown['plan'],
    stageId: row.stageId,
    movementId: row.movementId,
    weighings,
    beliefs: stage.pieces.map((piece) => ({
      pieceId: piece.id,
      ...believeShare(piece.share, own.get(piece.id) ?? []),
    })),
    drip: { mean: stage.drip.mean, sd: stage.drip.sd },
  };
}
