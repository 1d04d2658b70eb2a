import type { Boned } from '@zabrik/contract';
import { type CutPlan, hollowOf } from '@zabrik/core';
import type { Sequelize } from 'sequelize';
import { select } from '../../db/select.ts';

interface BonedRow {
  readonly lotId: string;
  readonly code: string;
  readonly name: string;
  readonly pieces: number;
  readonly massMg: number;
  readonly pieceId: string;
  readonly plan: CutPlan;
  readonly stageId: string;
  /** By stage of the same animal: what was weighed of each piece. */
  readonly weighed: Readonly<Record<string, Readonly<Record<string, number>>>>;
}

/** A lot counts while it is the piece that is filled, or what a later stage made of it: a braised sleeve is a boned trotter still. */
function bonedOf({ pieceId, plan, stageId, weighed, massMg, ...lot }: BonedRow): Boned[] {
  const at = plan.stages.findIndex((s) => s.fill !== undefined);
  const now = plan.stages.findIndex((s) => s.id === stageId);
  const stage = plan.stages[at];
  if (stage?.fill === undefined) return [];
  const later = now > at && plan.stages[now]?.pieces.find((p) => p.id === pieceId)?.main === true;
  if (!later && !(now === at && pieceId === stage.fill.piece)) return [];
  // braising costs it mass, and nothing of its hollow
  const mine = weighed[stageId]?.[pieceId] ?? 0;
  const bonedMg = later
    ? Math.round((massMg / Math.max(1, mine)) * (weighed[stage.id]?.[stage.fill.piece] ?? 0))
    : massMg;
  const hollow = hollowOf(stage.fill, weighed[stage.id] ?? {}, bonedMg);
  return hollow === undefined ? [] : [{ ...lot, ...hollow }];
}

/** Boned-out pieces on hand, the earliest date first, each with what its own breakdown took out of it. */
export async function listBoned(db: Sequelize, houseId: string): Promise<Boned[]> {
  const rows = await select<BonedRow>(
    db,
    `select l.id as "lotId", l.code, l.name, l.pieces, v.mass_mg as "massMg", l.piece_id as "pieceId", pv.plan, b.stage_id as "stageId",
            (select jsonb_object_agg(s.stage_id, s.pieces) from (
               select f.stage_id, jsonb_object_agg(p.piece_id, p.mass_mg) as pieces from breakdown f
               join (select breakdown_id, piece_id, sum(mass_mg) as mass_mg from breakdown_piece group by 1, 2) p on p.breakdown_id = f.id
               where f.root_id = b.root_id and f.house_id = $1 and f.state = 'closed' group by f.stage_id) s) as weighed
     from lot l join lot_balance v on v.lot_id = l.id and v.mass_mg > 0 join breakdown b on b.id = l.breakdown_id
       join plan_version pv on pv.house_id = b.house_id and pv.id = b.plan_version
     where l.house_id = $1 and v.house_id = $1 and b.house_id = $1 and l.held is null and l.piece_id is not null and b.state = 'closed' and pv.plan @? '$.stages[*].fill'
     order by l.use_by nulls last, l.code limit 60`,
    [houseId],
  );
  return rows.flatMap(bonedOf);
}
