import type { Answer, api, Run, WholeRun } from '@zabrik/contract';
import { type RunEvent, type RunEventBody, readRun, type Use } from '@zabrik/core';
import type { Sequelize, Transaction } from 'sequelize';
import { select, selectOne } from '../../db/select.ts';
import { type GroupPlace, groupCursorOf } from '../../http/page.ts';
import { Problem } from '../../http/problem.ts';

export interface RunRow
  extends Omit<Run, 'title' | 'kind' | 'measure' | 'version' | 'plannedAt' | 'startedAt' | 'doneAt'> {
  readonly use: Use;
  readonly plannedAt: Date;
  readonly startedAt: Date | null;
  readonly doneAt: Date | null;
}

const RUN = `
select r.id, r.state, r.use_id as "useId", rv.recipe as use, r.ways, r.ingredients, r.base_mg as "baseMg", r.expected as "expectedMg", r.plates, r.pieces,
       r.limiting, r.short, r.foods, r.vessel_id as "vesselId", r.output_mg as "outputMg", r.movement_id as "movementId", p.name as by,
       r.planned_at as "plannedAt", r.started_at as "startedAt", r.done_at as "doneAt",
       coalesce((select jsonb_agg(jsonb_build_object('lotId', l.id, 'code', l.code, 'name', l.name, 'category', l.category, 'massMg', i.mass_mg, 'as', i.as_part)
                 order by i.position)
        from run_input i join lot l on l.id = i.lot_id where i.run_id = r.id), '[]') as inputs,
       (select jsonb_build_object('id', l.id, 'code', l.code, 'name', l.name, 'costMinor',
               (select sum(o.cost_minor) from posting o where o.movement_id = r.movement_id and o.lot_id = l.id))
        from lot l where l.id = r.output_lot_id) as "outputLot"
from run r join recipe_version rv on rv.house_id = r.house_id and rv.id = r.recipe_version join person p on p.id = r.person_id
where r.house_id = $1`;

export const runOf = ({ use, plannedAt, startedAt, doneAt, ...row }: RunRow): Run => ({
  ...row,
  title: use.title,
  kind: use.kind,
  measure: use.output.measure,
  version: use.version,
  plannedAt: plannedAt.toISOString(),
  startedAt: startedAt?.toISOString() ?? null,
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

const GROUP = { on: '0', planned: '1', done: '2', 'called-off': '3' } as const;

/** Where a batch stands in the list: what is on first, then what is planned, then what is done, each the latest first. */
const placeOf = (run: Run): GroupPlace => ({ group: GROUP[run.state], at: run.doneAt ?? run.plannedAt, id: run.id });

export async function listRuns(
  db: Sequelize,
  houseId: string,
  limit: number,
  after: GroupPlace | undefined,
): Promise<{ readonly runs: Run[]; readonly next: string | null }> {
  const rows = await select<RunRow>(
    db,
    `with placed as (
       select id, case state when 'on' then '0' when 'planned' then '1' else '2' end as g, coalesce(done_at, planned_at) as t
       from run where house_id = $1 and state <> 'called-off')
     ${RUN.replace('where r.house_id', 'join placed o on o.id = r.id where r.house_id')}
       and ($3::text is null or o.g > $3 or (o.g = $3 and (o.t < $4::timestamptz or (o.t = $4::timestamptz and r.id > $5::uuid))))
     order by o.g, o.t desc, r.id limit $2`,
    [houseId, limit + 1, after?.group ?? null, after?.at ?? null, after?.id ?? null],
  );
  const runs = rows.slice(0, limit).map(runOf);
  const last = runs.at(-1);
  return { runs, next: rows.length > limit && last !== undefined ? groupCursorOf(placeOf(last)) : null };
}

interface EventRow {
  readonly id: string;
  readonly runId: string;
  readonly at: Date;
  readonly by: string;
  readonly body: RunEventBody;
}

export async function readRunEvents(
  db: Sequelize,
  runIds: readonly string[],
  transaction?: Transaction,
): Promise<ReadonlyMap<string, WholeRun['events']>> {
  const rows = await select<EventRow>(
    db,
    `select e.id, e.run_id as "runId", e.at, p.name as by, e.body from run_event e join person p on p.id = e.person_id
     where e.run_id = any($1::uuid[]) order by e.seq`,
    [[...runIds]],
    transaction,
  );
  const byRun = new Map<string, WholeRun['events']>();
  for (const { runId, at, ...event } of rows)
    byRun.set(runId, [...(byRun.get(runId) ?? []), { ...event, at: at.toISOString() }]);
  return byRun;
}

export async function readWholeRun(
  db: Sequelize,
  houseId: string,
  runId: string,
  transaction?: Transaction,
): Promise<WholeRun> {
  const row = await readRunRow(db, houseId, runId, transaction);
  const events = await readRunEvents(db, [runId], transaction);
  return { ...runOf(row), use: row.use, events: events.get(runId) ?? [] };
}

/** Timers of every batch that is on and nobody has stopped, the first to ring first. */
export async function listTimers(db: Sequelize, houseId: string): Promise<Answer<typeof api.pots.timers>['timers']> {
  const runs = await select<{ id: string; use: Use }>(
    db,
    `select r.id, rv.recipe as use from run r join recipe_version rv on rv.house_id = r.house_id and rv.id = r.recipe_version
     where r.house_id = $1 and r.state = 'on' order by r.started_at limit 100`,
    [houseId],
  );
  const events = await readRunEvents(
    db,
    runs.map((r) => r.id),
  );
  return runs
    .flatMap(({ id, use }) =>
      readRun(use.steps, (events.get(id) ?? []) as readonly RunEvent[]).timers.map((t) => ({
        ...t,
        runId: id,
        title: use.title,
      })),
    )
    .sort((a, b) => a.dueAt.localeCompare(b.dueAt));
}
