import type { Answer, Asked, api } from '@zabrik/contract';
import { BenchEventTable } from '../../db/models/benchEvent.ts';
import { BreakdownTable } from '../../db/models/breakdown.ts';
import { PersonTable } from '../../db/models/person.ts';
import { rowsOf } from '../../db/rows.ts';
import { Problem } from '../../http/problem.ts';
import type { InCommand, Kitchen } from '../../kitchen.ts';

/** Writes down what happened beside weighing. A hand-over also says who has the breakdown from now on. */
export async function recordEvent(
  { db }: Kitchen,
  command: InCommand,
  { params, body }: Asked<typeof api.bench.event>,
): Promise<Answer<typeof api.bench.event>> {
  const { actor, commandId } = command;
  const breakdowns = rowsOf(db, BreakdownTable, command);
  const breakdown = await breakdowns.one({ id: params.breakdownId }, { lock: 'share' });
  if (breakdown === undefined) throw new Problem('not_found', 'There is no such breakdown in this house.');
  if (breakdown.state !== 'open') throw new Problem('stage_closed');
  if (body.kind === 'hand-over') {
    const to = await rowsOf(db, PersonTable, command).one({ id: body.toPersonId });
    if (to === undefined || to.role === 'viewer')
      throw new Problem('invalid', 'Nobody here by that name works at the bench.', [
        { path: 'toPersonId', message: 'not someone who works at the bench' },
      ]);
    await breakdowns.change({ id: breakdown.id }, { holderId: to.id });
  }
  await rowsOf(db, BenchEventTable, command).add({
    id: commandId,
    breakdownId: breakdown.id,
    body,
    personId: actor.personId,
    at: new Date(body.at),
  });
  return { id: commandId, by: actor.name, body };
}
