/** Logs of what cools or freezes: kept by the pots, told by the lot they are about. */
import type { Cooling } from '@zabrik/contract';
import { judgeLog, type Limit, type Verdict } from '@zabrik/core';
import type { Sequelize, Transaction } from 'sequelize';
import { Problem } from '../http/problem.ts';
import { select, selectOne } from './select.ts';

interface Row extends Omit<Cooling, 'startedAt' | 'closedAt' | 'verdict'> {
  readonly verdict: Verdict | null;
  readonly startedAt: Date;
  readonly closedAt: Date | null;
}

const COOLING = `
select c.id, c.kind, c.state, c.name, c.setup, c.limit_at_start as "limit", c.verdict, c.outcome, c.batch_id as "batchId", p.name as by, c.started_at as "startedAt",
       c.closed_at as "closedAt",
       (select jsonb_build_object('id', l.id, 'code', l.code, 'name', l.name) from lot l where l.id = c.lot_id) as lot,
       coalesce((select jsonb_agg(jsonb_build_object('id', r.id, 'at', r.at, 'centiC', r.centi_c, 'source', r.source, 'by', q.name) order by r.at, r.seq)
                 from cooling_reading r join person q on q.id = r.person_id where r.cooling_id = c.id), '[]') as readings
from cooling c join person p on p.id = c.person_id where c.house_id = $1`;

/** One that is open is judged by its readings so far, as of now; a closed one keeps what was said of it then. */
const coolingOf = ({ startedAt, closedAt, verdict, readings, ...row }: Row, now: Date): Cooling => ({
  ...row,
  readings: readings.map((r) => ({ ...r, at: new Date(r.at).toISOString() })),
  verdict:
    verdict ??
    judgeLog(
      row.limit as Limit | null,
      readings.map((r) => ({ at: r.at, C: r.centiC / 100 })),
      now.toISOString(),
    ),
  startedAt: startedAt.toISOString(),
  closedAt: closedAt?.toISOString() ?? null,
});

/** One log. Errors: `not_found`. */
export async function readCooling(
  db: Sequelize,
  houseId: string,
  coolingId: string,
  now: Date,
  transaction: Transaction,
): Promise<Cooling> {
  const row = await selectOne<Row>(db, `${COOLING} and c.id = $2`, [houseId, coolingId], transaction);
  if (row === undefined) throw new Problem('not_found', 'There is no such log in this house.');
  return coolingOf(row, now);
}

/** What is open, the longest first; what was closed, the latest first. */
export async function listCoolings(
  db: Sequelize,
  houseId: string,
  now: Date,
): Promise<{ open: Cooling[]; closed: Cooling[] }> {
  const [open, closed] = await Promise.all([
    select<Row>(db, `${COOLING} and c.state = 'open' order by c.started_at, c.id limit 100`, [houseId]),
    select<Row>(db, `${COOLING} and c.state = 'closed' order by c.closed_at desc, c.id limit 30`, [houseId]),
  ]);
  return { open: open.map((row) => coolingOf(row, now)), closed: closed.map((row) => coolingOf(row, now)) };
}

/** The logs of one lot, the latest first. */
export const listCoolingsOf = async (db: Sequelize, houseId: string, lotId: string, now: Date): Promise<Cooling[]> =>
  (
    await select<Row>(
      db,
      `${COOLING} and c.lot_id = $2 and c.state <> 'called-off' order by c.started_at desc limit 20`,
      [houseId, lotId],
    )
  ).map((row) => coolingOf(row, now));
