import type { Answer, Asked, api } from '@zabrik/contract';
import { BreakdownRow, PersonRow } from '../../db/models.ts';
import { Problem } from '../../http/problem.ts';
import type { InCommand, Kitchen } from '../../kitchen.ts';

/** Writes down what happened beside weighing. A hand-over also says who has the breakdown from now on. */
export async function recordEvent(
  kitchen: Kitchen,
  command: InCommand,
  { params, body }: Asked<typeof api.bench.event>,
): Promise<Answer<typeof api.bench.event>> {
  const { actor, commandId, transaction } = command;
  const breakdown = await BreakdownRow.findOne({
    where: { id: params.breakdownId, houseId: actor.houseId },
    transaction,
    lock: transaction.LOCK.SHARE,
  });
  if (breakdown === null) throw new Problem('not_found', 'There is no such breakdown in this house.');
  if (breakdown.state !== 'open') throw new Problem('stage_closed');
  if (body.kind === 'hand-over') {
    const to = await PersonRow.findOne({ where: { id: body.toPersonId, houseId: actor.houseId }, transaction });
    if (to === null || to.role === 'viewer')
      throw new Problem('invalid', 'Nobody here by that name works at the bench.', [
        { path: 'toPersonId', message: 'not someone who works at the bench' },
      ]);
    await breakdown.update({ holderId: to.id }, { transaction });
  }
  await kitchen.db.query(
    'insert into bench_event (id, house_id, breakdown_id, body, person_id, at) values ($1, $2, $3, $4, $5, $6)',
    {
      bind: [commandId, actor.houseId, breakdown.id, JSON.stringify(body), actor.personId, body.at],
      transaction,
    },
  );
  return { id: commandId, by: actor.name, body };
}
