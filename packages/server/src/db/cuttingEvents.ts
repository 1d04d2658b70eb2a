import type { CuttingEvent, CuttingEventBody } from '@zabrik/core';
import type { Sequelize, Transaction } from 'sequelize';
import { select } from './select.ts';

interface EventRow {
  readonly id: string;
  readonly cuttingId: string;
  readonly at: Date;
  readonly by: string;
  readonly body: CuttingEventBody;
}

/** What happened at each cutting, in the order it was written. */
export const readCuttingEvents = async (
  db: Sequelize,
  ids: readonly string[],
  transaction?: Transaction,
): Promise<ReadonlyMap<string, CuttingEvent[]>> => {
  const rows = await select<EventRow>(
    db,
    `select e.id, e.cutting_id as "cuttingId", e.at, p.name as by, e.body
     from cutting_event e join person p on p.id = e.person_id where e.cutting_id = any($1::uuid[]) order by e.seq`,
    [[...ids]],
    transaction,
  );
  const byCutting = new Map<string, CuttingEvent[]>();
  for (const { cuttingId, at, ...event } of rows)
    byCutting.set(cuttingId, [...(byCutting.get(cuttingId) ?? []), { ...event, at: at.toISOString() }]);
  return byCutting;
};
