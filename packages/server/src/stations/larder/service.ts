import type { Answer, Asked, api } from '@zabrik/contract';
import { formatMass } from '@zabrik/core';
import { Problem } from '../../http/problem.ts';
import { costOfPart, lockLots, mustBeFree } from '../../massledger/lockLots.ts';
import { writeMovement } from '../../massledger/writeMovement.ts';
import type { InCommand, Services } from '../../services.ts';
import { mustHavePieces } from './lotsOfLots.ts';

/** Takes mass out of a lot: to the guests, to the staff, or to the bin with a reason. Its cost goes with it. */
export async function takeOut(
  services: Services,
  command: InCommand,
  { params, body }: Asked<typeof api.larder.takeOut>,
): Promise<Answer<typeof api.larder.takeOut>> {
  const { actor, transaction } = command;
  const [lot] = await lockLots(services.db, transaction, actor.houseId, [params.lotId]);
  if (lot === undefined) throw new Problem('not_found');
  // what is held back may be destroyed, and nothing else
  if (body.to !== 'waste') mustBeFree([lot]);
  if (body.massMg > lot.freeMg)
    throw new Problem(
      'not_enough',
      `Lot ${lot.code} has ${formatMass(lot.freeMg)} left that is not on a bench or in a planned pot.`,
    );
  mustHavePieces(lot, body.pieces);
  if (body.pieces !== null && body.pieces === lot.freePieces && body.massMg < lot.freeMg)
    throw new Problem(
      'not_enough',
      `${lot.freePieces === lot.pieces ? 'All' : 'The'} ${lot.freePieces} pieces of lot ${lot.code} weigh ${formatMass(lot.freeMg)}.`,
    );
  const costMinor = costOfPart(lot, body.massMg);
  const movementId = command.newId();
  await writeMovement(services.db, command, {
    id: movementId,
    kind: 'take-out',
    station: 'larder',
    note: body.note,
    reverses: null,
    postings: [
      {
        lotId: lot.id,
        massMg: -body.massMg,
        costMinor: -costMinor,
        pieces: body.pieces === null ? null : -body.pieces,
      },
      { sink: body.to, reason: body.reason, massMg: body.massMg, costMinor },
    ],
  });
  const [left] = await lockLots(services.db, transaction, actor.houseId, [lot.id]);
  return { movementId, leftMg: lot.massMg - body.massMg, leftPieces: left?.pieces ?? 0 };
}
