/** What a round through the larder found, written down. */

import type { Answer, Asked, api } from '@zabrik/contract';
import { formatMass, minor } from '@zabrik/core';
import { StockTakeTable } from '../../db/models/stockTake.ts';
import { rowsOf } from '../../db/rows.ts';
import { Problem } from '../../http/problem.ts';
import { costOfPart, lockLots, mustBeFree } from '../../massledger/lockLots.ts';
import { type Posting, writeMovement } from '../../massledger/writeMovement.ts';
import type { InCommand, Services } from '../../services.ts';

/** Writes a round through the larder down: one movement for all that differs, mass and cost to or from what was counted. */
export async function count(
  services: Services,
  command: InCommand,
  { body }: Asked<typeof api.larder.count>,
): Promise<Answer<typeof api.larder.count>> {
  const { db } = services;
  const { actor, at, transaction } = command;
  const counted = new Map(body.counts.map((c) => [c.lotId, c]));
  const lots = await lockLots(db, transaction, actor.houseId, [...counted.keys()]);
  const postings: Posting[] = [];
  let differenceMg = 0;
  let differenceMinor = 0;
  let differing = 0;
  for (const lot of lots) {
    const line = counted.get(lot.id);
    if (line === undefined) continue;
    // what was counted is held against what was known then: what left since has left both
    const massMg = line.countedMg - (line.seenMg ?? lot.massMg);
    if (massMg === 0) continue;
    const reservedMg = lot.massMg - lot.freeMg;
    if (lot.massMg + massMg < reservedMg)
      throw new Problem(
        'not_enough',
        `Lot ${lot.code}: ${formatMass(reservedMg)} of it is on a bench or promised to a pot. Put that back first, or count again.`,
      );
    if (line.reason === null)
      throw new Problem('invalid', `Lot ${lot.code} differs by ${formatMass(massMg)}: say why.`, [
        { path: 'counts', message: `a reason for ${lot.code}` },
      ]);
    // what is held back is thrown away with its reason, and does not vanish in a count
    if (massMg < 0) mustBeFree([lot]);
    // more than was known is worth what the rest of it is
    const costMinor =
      massMg < 0 ? -costOfPart(lot, -massMg) : lot.massMg === 0 ? 0 : minor((lot.costMinor * massMg) / lot.massMg);
    differing += 1;
    differenceMg += massMg;
    differenceMinor += costMinor;
    postings.push(
      {
        lotId: lot.id,
        massMg,
        costMinor,
        pieces: line.countedPieces === null ? null : line.countedPieces - (line.seenPieces ?? lot.pieces),
      },
      { sink: 'count', reason: line.reason, massMg: -massMg, costMinor: -costMinor },
    );
  }
  const movementId = differing === 0 ? null : command.newId();
  if (movementId !== null)
    await writeMovement(db, command, {
      id: movementId,
      kind: 'count',
      station: 'larder',
      note: body.note,
      reverses: null,
      postings,
    });
  const id = command.newId();
  const takeRow = {
    id,
    placeId: body.placeId,
    lots: lots.length,
    differing,
    differenceMg,
    differenceMinor,
    note: body.note,
  };
  await rowsOf(db, StockTakeTable, command).add({ ...takeRow, movementId, personId: actor.personId, at });
  return { ...takeRow, by: actor.name, at: at.toISOString(), movementId };
}
