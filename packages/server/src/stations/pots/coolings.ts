/** Logs of what cools or freezes: begun with a first reading, read by probe or hand, judged by measured readings only. */
import type { Answer, Asked, api, Cooling } from '@zabrik/contract';
import { coolingProgress, freezingProgress, type Limit, type Verdict } from '@zabrik/core';
import type { Sequelize, Transaction } from 'sequelize';
import { readHouse } from '../../db/house.ts';
import { insertRow } from '../../db/insertRow.ts';
import { limitsOf, readLimitChoice } from '../../db/limits.ts';
import { select, selectOne } from '../../db/select.ts';
import { Problem } from '../../http/problem.ts';
import type { InCommand, Kitchen } from '../../kitchen.ts';
import { lockLots } from '../../massledger/lockLots.ts';

interface Row extends Omit<Cooling, 'startedAt' | 'closedAt' | 'verdict' | 'readings'> {
  readonly limit: Cooling['limit'];
  readonly verdict: Verdict | null;
  readonly readings: readonly { id: string; at: string; centiC: number; source: 'probe' | 'typed'; by: string }[];
  readonly startedAt: Date;
  readonly closedAt: Date | null;
}

const COOLING = `
select c.id, c.kind, c.state, c.name, c.setup, c.limit_at_start as "limit", c.verdict, c.outcome, p.name as by, c.started_at as "startedAt",
       c.closed_at as "closedAt",
       (select jsonb_build_object('id', l.id, 'code', l.code, 'name', l.name) from lot l where l.id = c.lot_id) as lot,
       coalesce((select jsonb_agg(jsonb_build_object('id', r.id, 'at', r.at, 'centiC', r.centi_c, 'source', r.source, 'by', q.name) order by r.at, r.seq)
                 from cooling_reading r join person q on q.id = r.person_id where r.cooling_id = c.id), '[]') as readings
from cooling c join person p on p.id = c.person_id where c.house_id = $1`;

/** Readings as minutes since the first. */
const logOf = (readings: Row['readings']) => {
  const start = Date.parse(readings[0]?.at ?? '');
  return readings.map((r) => ({ minute: (Date.parse(r.at) - start) / 60_000, C: r.centiC / 100 }));
};

/** What the readings say of the limit that was selected. Anything but a limit of cooling or freezing is not judged. */
export function judgeLog(limit: Limit | null, readings: Row['readings']): Verdict {
  if (limit?.kind === 'cooling') return coolingProgress(limit, logOf(readings)).verdict;
  if (limit?.kind === 'freeze_treatment') return freezingProgress(limit, logOf(readings)).verdict;
  return 'not-judged';
}

const coolingOf = ({ startedAt, closedAt, verdict, readings, ...row }: Row): Cooling => ({
  ...row,
  readings: readings.map((r) => ({ ...r, at: new Date(r.at).toISOString() })),
  verdict: verdict ?? judgeLog(row.limit as Limit | null, readings),
  startedAt: startedAt.toISOString(),
  closedAt: closedAt?.toISOString() ?? null,
});

async function readCooling(
  db: Sequelize,
  houseId: string,
  coolingId: string,
  transaction: Transaction,
): Promise<Cooling> {
  const row = await selectOne<Row>(db, `${COOLING} and c.id = $2`, [houseId, coolingId], transaction);
  if (row === undefined) throw new Problem('not_found', 'There is no such log in this house.');
  return coolingOf(row);
}

export async function listCoolings({ db }: Kitchen, houseId: string): Promise<Answer<typeof api.pots.coolings>> {
  const [open, closed] = await Promise.all([
    select<Row>(db, `${COOLING} and c.state = 'open' order by c.started_at, c.id limit 100`, [houseId]),
    select<Row>(db, `${COOLING} and c.state = 'closed' order by c.closed_at desc, c.id limit 30`, [houseId]),
  ]);
  return { open: open.map(coolingOf), closed: closed.map(coolingOf) };
}

/** Locks a log that is open. Errors: `not_found`; `cooling_closed`. */
async function lockOpen({ db }: Kitchen, { who, transaction }: InCommand, coolingId: string): Promise<void> {
  const row = await selectOne<{ state: Cooling['state'] }>(
    db,
    'select state from cooling where id = $1 and house_id = $2 for update',
    [coolingId, who.houseId],
    transaction,
  );
  if (row === undefined) throw new Problem('not_found', 'There is no such log in this house.');
  if (row.state !== 'open') throw new Problem('cooling_closed');
}

const addReading = (
  { db }: Kitchen,
  { who, commandId, transaction }: InCommand,
  coolingId: string,
  reading: { readonly at: string; readonly centiC: number; readonly source: 'probe' | 'typed' },
): Promise<void> =>
  insertRow(
    db,
    'cooling_reading',
    {
      id: commandId,
      house_id: who.houseId,
      cooling_id: coolingId,
      centi_c: reading.centiC,
      source: reading.source,
      person_id: who.personId,
      at: reading.at,
    },
    transaction,
  );

/**
 * Begins a log with its first reading, against a limit of the house's profile as it stands now.
 *
 * Errors  `invalid` when the profile has no such limit or it is not one of cooling or freezing; `key_reused` for another's id.
 */
export async function startCooling(
  kitchen: Kitchen,
  command: InCommand,
  { body }: Asked<typeof api.pots.startCooling>,
): Promise<Cooling> {
  const { db } = kitchen;
  const { who, transaction } = command;
  if (body.lotId !== null) await lockLots(db, transaction, who.houseId, [body.lotId]);
  const house = await readHouse(who.houseId, transaction);
  const limits = limitsOf(await readLimitChoice(db, who.houseId, house.timezone, transaction));
  const limit = body.limitId === null ? null : (limits.find((l) => l.id === body.limitId) ?? null);
  const wanted = body.kind === 'cooling' ? 'cooling' : 'freeze_treatment';
  if (body.limitId !== null && limit?.kind !== wanted)
    throw new Problem('invalid', undefined, [{ path: 'limitId', message: 'the profile has no such limit' }]);
  const there = await selectOne<{ id: string }>(db, 'select id from cooling where id = $1', [body.id], transaction);
  if (there !== undefined) throw new Problem('key_reused');
  await insertRow(
    db,
    'cooling',
    {
      id: body.id,
      house_id: who.houseId,
      kind: body.kind,
      lot_id: body.lotId,
      name: body.name,
      setup: JSON.stringify(body.setup),
      limit_at_start: limit === null ? null : JSON.stringify(limit),
      person_id: who.personId,
      started_at: body.at,
    },
    transaction,
  );
  await addReading(kitchen, command, body.id, body);
  return readCooling(db, who.houseId, body.id, transaction);
}

export async function recordCooling(
  kitchen: Kitchen,
  command: InCommand,
  { params, body }: Asked<typeof api.pots.readCooling>,
): Promise<Cooling> {
  await lockOpen(kitchen, command, params.coolingId);
  await addReading(kitchen, command, params.coolingId, body);
  return readCooling(kitchen.db, command.who.houseId, params.coolingId, command.transaction);
}

/**
 * Closes a log with what its readings say. One that is not within its limit is closed only with what was done about it.
 *
 * Errors  `needs_a_nod` when it is outside or still open and no outcome is given.
 */
export async function closeCooling(
  kitchen: Kitchen,
  command: InCommand,
  { params, body }: Asked<typeof api.pots.closeCooling>,
): Promise<Cooling> {
  const { db } = kitchen;
  const { who, at, transaction } = command;
  await lockOpen(kitchen, command, params.coolingId);
  const { verdict } = await readCooling(db, who.houseId, params.coolingId, transaction);
  if ((verdict === 'outside' || verdict === 'open') && body.outcome === null)
    throw new Problem(
      'needs_a_nod',
      verdict === 'outside'
        ? 'This is outside the limit your house selected. Write what was done about it: reheated at once, or thrown away.'
        : 'The limit is not reached by a measured reading yet. Take one, or write why the log ends here.',
    );
  await db.query(
    `update cooling set state = 'closed', verdict = $3, outcome = $4, closed_at = $5 where id = $1 and house_id = $2`,
    { bind: [params.coolingId, who.houseId, verdict, body.outcome, at], transaction },
  );
  return readCooling(db, who.houseId, params.coolingId, transaction);
}
