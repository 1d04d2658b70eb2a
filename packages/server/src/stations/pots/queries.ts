import type { Run } from '@zabrik/contract';
import type { Use } from '@zabrik/core';
import type { Sequelize, Transaction } from 'sequelize';
import { select, selectOne } from '../../db/select.ts';
import { Problem } from '../../http/problem.ts';

export interface RunRow {
  readonly id: string;
  readonly state: Run['state'];
  readonly useId: string;
  readonly use: Use;
  readonly inputs: Run['inputs'];
  readonly ingredients: Run['ingredients'];
  readonly baseMg: number;
  readonly expectedMg: Run['expectedMg'];
  readonly plates: number | null;
  readonly limiting: string;
  readonly outputMg: number | null;
  readonly outputLot: Run['outputLot'];
  readonly movementId: string | null;
  readonly by: string;
  readonly plannedAt: Date;
  readonly doneAt: Date | null;
}

const RUN = `
select r.id, r.state, r.use_id as "useId", r.use, r.ingredients, r.base_mg as "baseMg", r.expected as "expectedMg", r.plates, r.limiting,
       r.output_mg as "outputMg", r.movement_id as "movementId", p.name as by, r.planned_at as "plannedAt", r.done_at as "doneAt",
       (select jsonb_agg(jsonb_build_object('lotId', l.id, 'code', l.code, 'name', l.name, 'massMg', i.mass_mg) order by i.position)
        from run_input i join lot l on l.id = i.lot_id where i.run_id = r.id) as inputs,
       (select jsonb_build_object('id', l.id, 'code', l.code, 'name', l.name, 'costMinor',
               (select sum(o.cost_minor) from posting o where o.movement_id = r.movement_id and o.lot_id = l.id))
        from lot l where l.id = r.output_lot_id) as "outputLot"
from run r join person p on p.id = r.person_id
where r.house_id = $1`;

export const runOf = ({ use, plannedAt, doneAt, ...row }: RunRow): Run => ({
  ...row,
  title: use.title,
  kind: use.kind,
  plannedAt: plannedAt.toISOString(),
  doneAt: doneAt?.toISOString() ?? null,
});

export async function readRunRow(
  db: Sequelize,
  houseId: string,
  runId: string,
  transaction?: Transaction,
): Promise<RunRow> {
  const row = await selectOne<RunRow>(db, `${RUN} and r.id = $2`, [houseId, runId], transaction);
  if (row === undefined) throw new Problem('not_found');
  return row;
}

export async function listRuns(db: Sequelize, houseId: string, limit: number, offset: number): Promise<Run[]> {
  const rows = await select<RunRow>(
    db,
    `${RUN} and r.state <> 'called-off' order by (r.state = 'planned') desc, coalesce(r.done_at, r.planned_at) desc, r.id limit $2 offset $3`,
    [houseId, limit + 1, offset],
  );
  return rows.map(runOf);
}
