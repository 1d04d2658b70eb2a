/** Logs of what cools or freezes: begun with a first reading, read by probe or hand, judged by measured readings only. */
import type { Asked, api, Cooling } from '@zabrik/contract';
import { readCooling } from '../../db/coolings.ts';
import { readHouse } from '../../db/house.ts';
import { limitsOf, readLimitChoice } from '../../db/limits.ts';
import { BatchTable } from '../../db/models/batch.ts';
import { CoolingTable } from '../../db/models/cooling.ts';
import { CoolingReadingTable } from '../../db/models/coolingReading.ts';
import { rowsOf } from '../../db/rows.ts';
import { Problem } from '../../http/problem.ts';
import { lockLots } from '../../massledger/lockLots.ts';
import type { InCommand, Services } from '../../services.ts';

/** Locks a log that is open. Errors: `not_found`; `cooling_closed`. */
async function lockOpen({ db }: Services, command: InCommand, coolingId: string): Promise<void> {
  const row = await rowsOf(db, CoolingTable, command).one({ id: coolingId }, { lock: 'update' });
  if (row === undefined) throw new Problem('not_found', 'There is no such log in this house.');
  if (row.state !== 'open') throw new Problem('cooling_closed');
}

const addReading = (
  { db }: Services,
  command: InCommand,
  coolingId: string,
  { at, centiC, source }: { readonly at: string; readonly centiC: number; readonly source: 'probe' | 'typed' },
): Promise<void> =>
  rowsOf(db, CoolingReadingTable, command).add({
    id: command.commandId,
    coolingId,
    centiC,
    source,
    personId: command.actor.personId,
    at: new Date(at),
  });

/**
 * Begins a log with its first reading, against a limit of the house's profile as it stands now.
 *
 * Errors  `invalid` when the profile has no such limit or it is not one of cooling or freezing; `key_reused` for another's id.
 */
export async function startCooling(
  services: Services,
  command: InCommand,
  { body }: Asked<typeof api.pots.startCooling>,
): Promise<Cooling> {
  const { db } = services;
  const { actor, transaction } = command;
  if (body.lotId !== null) await lockLots(db, transaction, actor.houseId, [body.lotId]);
  // what comes out of a batch has the log that was begun in its step; one that is done already has its lot at once
  const batch = body.batchId === null ? undefined : await rowsOf(db, BatchTable, command).one({ id: body.batchId });
  if (body.batchId !== null && batch === undefined)
    throw new Problem('not_found', 'There is no such batch in this house.');
  const house = await readHouse(db, command);
  const limits = limitsOf(await readLimitChoice(db, actor.houseId, house.timezone, transaction));
  const limit = body.limitId === null ? null : (limits.find((l) => l.id === body.limitId) ?? null);
  const wanted = body.kind === 'cooling' ? 'cooling' : 'freeze_treatment';
  if (body.limitId !== null && limit?.kind !== wanted)
    throw new Problem('invalid', undefined, [{ path: 'limitId', message: 'the profile has no such limit' }]);
  const coolings = rowsOf(db, CoolingTable, command);
  if ((await coolings.one({ id: body.id })) !== undefined) throw new Problem('key_reused');
  await coolings.add({
    id: body.id,
    kind: body.kind,
    lotId: body.lotId ?? batch?.outputLotId ?? null,
    batchId: body.batchId,
    name: body.name,
    setup: body.setup,
    limitAtStart: limit,
    personId: actor.personId,
    startedAt: new Date(body.at),
  });
  await addReading(services, command, body.id, body);
  return readCooling(db, actor.houseId, body.id, command.at, transaction);
}

export async function recordCooling(
  services: Services,
  command: InCommand,
  { params, body }: Asked<typeof api.pots.readCooling>,
): Promise<Cooling> {
  await lockOpen(services, command, params.coolingId);
  await addReading(services, command, params.coolingId, body);
  return readCooling(services.db, command.actor.houseId, params.coolingId, command.at, command.transaction);
}

/**
 * Closes a log with what its readings say. One that is not within its limit is closed only with what was done about it.
 *
 * Errors  `needs_confirmation` when it is outside, not shown or still open and no outcome is given.
 */
export async function closeCooling(
  services: Services,
  command: InCommand,
  { params, body }: Asked<typeof api.pots.closeCooling>,
): Promise<Cooling> {
  const { db } = services;
  const { actor, at, transaction } = command;
  await lockOpen(services, command, params.coolingId);
  const { verdict } = await readCooling(db, actor.houseId, params.coolingId, at, transaction);
  if (verdict !== 'within' && verdict !== 'not-judged' && body.outcome === null)
    throw new Problem(
      'needs_confirmation',
      verdict === 'outside'
        ? 'This is outside the limit your house selected. Write what was done about it: reheated at once, or thrown away.'
        : verdict === 'not-shown'
          ? 'The readings do not show that it was within the limit your house selected: there is too long between them, or nobody saw it begin. Write what was done about it.'
          : 'The limit is not reached by a measured reading yet. Take one, or write why the log ends here.',
    );
  await rowsOf(db, CoolingTable, command).change(
    { id: params.coolingId },
    { state: 'closed', verdict, outcome: body.outcome, closedAt: at },
  );
  return readCooling(db, actor.houseId, params.coolingId, at, transaction);
}
