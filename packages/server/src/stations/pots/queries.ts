import type { Answer, api, Batch, WholeBatch } from '@zabrik/contract';
import { type BatchEvent, type BatchEventBody, ownTimes, type Recipe, readBatch } from '@zabrik/core';
import type { Sequelize, Transaction } from 'sequelize';
import { select, selectOne } from '../../db/select.ts';
import { type GroupPlace, groupCursorOf } from '../../http/page.ts';
import { Problem } from '../../http/problem.ts';

export interface BatchRow
  extends Omit<Batch, 'title' | 'kind' | 'measure' | 'version' | 'plannedAt' | 'startedAt' | 'doneAt'> {
  readonly recipe: Recipe;
  readonly plannedAt: Date;
  readonly startedAt: Date | null;
  readonly doneAt: Date | null;
}

const BATCH = `
select r.id, r.state, r.recipe_id as "recipeId", rv.recipe as recipe, r.ways, r.ingredients, r.base_mg as "baseMg", r.expected as "expectedMg", r.plates, r.pieces,
       r.limiting, r.short, case when r.state = 'done' then r.unpriced else '{}' end as unpriced, r.foods, r.vessel_id as "vesselId", r.output_mg as "outputMg", r.movement_id as "movementId", p.name as by,
       r.planned_at as "plannedAt", r.started_at as "startedAt", r.done_at as "doneAt",
       coalesce((select jsonb_agg(jsonb_build_object('lotId', l.id, 'code', l.code, 'name', l.name, 'category', l.category, 'massMg', i.mass_mg,
                 'allergens', l.allergens, 'as', i.as_part)
                 order by i.position)
        from batch_input i join lot l on l.id = i.lot_id where i.batch_id = r.id), '[]') as inputs,
       (select jsonb_build_object('id', l.id, 'code', l.code, 'name', l.name, 'costMinor',
               (select sum(o.cost_minor) from posting o where o.movement_id = r.movement_id and o.lot_id = l.id))
        from lot l where l.id = r.output_lot_id) as "outputLot"
from batch r join recipe_version rv on rv.house_id = r.house_id and rv.id = r.recipe_version join person p on p.id = r.person_id
where r.house_id = $1`;

export const batchOf = ({ recipe, plannedAt, startedAt, doneAt, ...row }: BatchRow): Batch => ({
  ...row,
  title: recipe.title,
  kind: recipe.kind,
  measure: recipe.output.measure,
  version: recipe.version,
  plannedAt: plannedAt.toISOString(),
  startedAt: startedAt?.toISOString() ?? null,
  doneAt: doneAt?.toISOString() ?? null,
});

export async function readBatchRow(
  db: Sequelize,
  houseId: string,
  batchId: string,
  transaction?: Transaction,
): Promise<BatchRow> {
  const row = await selectOne<BatchRow>(db, `${BATCH} and r.id = $2`, [houseId, batchId], transaction);
  if (row === undefined) throw new Problem('not_found');
  return row;
}

/** The mass of one piece of the base: of lots that are counted in pieces, by what each was made with. */
const PIECE_MG = `(select round(sum(l.made_mg::numeric) / nullif(sum(l.pieces), 0))::float8 from batch_input i join lot l on l.id = i.lot_id
   where i.batch_id = r.id and i.as_part = 'base' and l.kind in ('delivery', 'piece') and l.pieces > 0)`;

/** So many batches before say what a step takes here. */
const BEFORE = 8;

const GROUP = { on: '0', planned: '1', done: '2', 'called-off': '3' } as const;

/** Where a batch stands in the list: what is on first, then what is planned, then what is done, each the latest first. */
const placeOf = (batch: Batch): GroupPlace => ({
  group: GROUP[batch.state],
  at: batch.doneAt ?? batch.plannedAt,
  id: batch.id,
});

export async function listBatches(
  db: Sequelize,
  houseId: string,
  limit: number,
  after: GroupPlace | undefined,
): Promise<{ readonly batches: Batch[]; readonly next: string | null }> {
  const rows = await select<BatchRow>(
    db,
    `with placed as (
       select id, case state when 'on' then '0' when 'planned' then '1' else '2' end as g, coalesce(done_at, planned_at) as t
       from batch where house_id = $1 and state <> 'called-off')
     ${BATCH.replace('where r.house_id', 'join placed o on o.id = r.id where r.house_id')}
       and ($3::text is null or o.g > $3 or (o.g = $3 and (o.t < $4::timestamptz or (o.t = $4::timestamptz and r.id > $5::uuid))))
     order by o.g, o.t desc, r.id limit $2`,
    [houseId, limit + 1, after?.group ?? null, after?.at ?? null, after?.id ?? null],
  );
  const batches = rows.slice(0, limit).map(batchOf);
  const last = batches.at(-1);
  return { batches, next: rows.length > limit && last !== undefined ? groupCursorOf(placeOf(last)) : null };
}

interface EventRow {
  readonly id: string;
  readonly batchId: string;
  readonly at: Date;
  readonly by: string;
  readonly body: BatchEventBody;
}

export async function readBatchEvents(
  db: Sequelize,
  batchIds: readonly string[],
  transaction?: Transaction,
): Promise<ReadonlyMap<string, WholeBatch['events']>> {
  const rows = await select<EventRow>(
    db,
    `select e.id, e.batch_id as "batchId", e.at, p.name as by, e.body from batch_event e join person p on p.id = e.person_id
     where e.batch_id = any($1::uuid[]) order by e.seq`,
    [[...batchIds]],
    transaction,
  );
  const byBatch = new Map<string, WholeBatch['events']>();
  for (const { batchId, at, ...event } of rows)
    byBatch.set(batchId, [...(byBatch.get(batchId) ?? []), { ...event, at: at.toISOString() }]);
  return byBatch;
}

export async function readWholeBatch(
  db: Sequelize,
  houseId: string,
  batchId: string,
  transaction?: Transaction,
): Promise<WholeBatch> {
  const row = await readBatchRow(db, houseId, batchId, transaction);
  const earlier = await select<{ readonly id: string; readonly recipe: Recipe; readonly pieceMg: number | null }>(
    db,
    `select r.id, rv.recipe, ${PIECE_MG} as "pieceMg" from batch r join recipe_version rv on rv.house_id = r.house_id and rv.id = r.recipe_version
     where r.house_id = $1 and r.recipe_id = $2 and r.state = 'done' and r.id <> $3 order by r.done_at desc, r.id limit $4`,
    [houseId, row.recipeId, batchId, BEFORE],
    transaction,
  );
  const events = await readBatchEvents(db, [batchId, ...earlier.map((r) => r.id)], transaction);
  const of = (id: string) => events.get(id) ?? [];
  const size = await selectOne<{ readonly pieceMg: number | null }>(
    db,
    `select ${PIECE_MG} as "pieceMg" from batch r where r.house_id = $1 and r.id = $2`,
    [houseId, batchId],
    transaction,
  );
  const pieceMg = size?.pieceMg ?? null;
  return {
    ...batchOf(row),
    recipe: row.recipe,
    pieceMg,
    events: of(batchId),
    ownTimes: ownTimes(
      row.recipe.steps,
      earlier.map(({ id, recipe, pieceMg: before }) => ({
        steps: recipe.steps,
        standing: readBatch(recipe.steps, of(id) as readonly BatchEvent[]).standing,
        pieceMg: before ?? undefined,
      })),
      pieceMg ?? undefined,
    ),
  };
}

/** Timers of every batch that is on and nobody has stopped, the first to ring first. */
export async function listTimers(db: Sequelize, houseId: string): Promise<Answer<typeof api.pots.timers>['timers']> {
  const batches = await select<{ id: string; recipe: Recipe }>(
    db,
    `select r.id, rv.recipe as recipe from batch r join recipe_version rv on rv.house_id = r.house_id and rv.id = r.recipe_version
     where r.house_id = $1 and r.state = 'on' order by r.started_at limit 100`,
    [houseId],
  );
  const events = await readBatchEvents(
    db,
    batches.map((r) => r.id),
  );
  return batches
    .flatMap(({ id, recipe }) =>
      readBatch(recipe.steps, (events.get(id) ?? []) as readonly BatchEvent[]).timers.map((t) => ({
        ...t,
        batchId: id,
        breakdownId: null,
        title: recipe.title,
      })),
    )
    .sort((a, b) => a.dueAt.localeCompare(b.dueAt));
}
