/** What is brought to a piece on the bench: of a lot, which is promised to the breakdown from then on, or bought in. */

import { pieceRules } from '@zabrik/catalogue';
import type { Asked, api } from '@zabrik/contract';
import { type Brought, broughtIn, formatMass, isKnownAllergen, isPastDate, stageAsFound } from '@zabrik/core';
import { readEvents, stageOf } from '../../db/breakdownHead.ts';
import { dayIn, readHouse } from '../../db/house.ts';
import type { BreakdownTable } from '../../db/models/breakdown.ts';
import { BreakdownInputTable } from '../../db/models/breakdownInput.ts';
import { ReservationTable } from '../../db/models/reservation.ts';
import { rowsOf } from '../../db/rows.ts';
import type { RowOf } from '../../db/table.ts';
import { readPlanVersion } from '../../db/versions.ts';
import { Problem } from '../../http/problem.ts';
import { lockLots, mustBeFree } from '../../massledger/lockLots.ts';
import { reserve } from '../../massledger/reserve.ts';
import type { InCommand, Services } from '../../services.ts';

type Body = Extract<Asked<typeof api.bench.event>['body'], { kind: 'bring-in' | 'bring-back' }>;
type Row = RowOf<typeof BreakdownTable>;
/** More than this and something else is made of it. */
const MOST = 20;

const wrong = (path: string, words: string, message: string): Problem =>
  new Problem('invalid', words, [{ path, message }]);

/**
 * Promises what is brought, or lets it go again.
 *
 * Errors  `invalid`: no such piece, an allergen nobody knows, a lot that is here already, nothing to take back. `not_enough`, `lot_gone`, `on_hold`,
 *         `cannot_keep` of the lot.
 */
export async function bringIn({ db }: Services, command: InCommand, row: Row, body: Body): Promise<void> {
  const { actor, transaction } = command;
  const inputs = rowsOf(db, BreakdownInputTable, command);
  const here = broughtIn(await readEvents(db, row.id, transaction));
  if (body.kind === 'bring-back') {
    const brought = here.find((b) => b.id === body.eventId);
    if (brought === undefined) throw wrong('eventId', 'That was not brought here, or was taken back.', 'not here');
    if (brought.lotId === null) return;
    await inputs.remove({ breakdownId: row.id, lotId: brought.lotId });
    await rowsOf(db, ReservationTable, command).remove({ holderId: row.id, lotId: brought.lotId });
    return;
  }
  const plan = await readPlanVersion(db, actor.houseId, row.planVersion, transaction);
  const stage = stageAsFound(stageOf(plan, row.stageId), row.found, row.animals, pieceRules);
  if (!stage.pieces.some((p) => p.id === body.pieceId))
    throw wrong('pieceId', 'This plan has no such piece.', 'not in this plan');
  if (here.length >= MOST) throw wrong('pieceId', 'So much that is brought to it is a recipe of its own.', 'too many');
  const unknown = body.allergens.find((a) => !isKnownAllergen(a));
  if (unknown !== undefined)
    throw wrong('allergens', `There is no listed allergen ${unknown}.`, 'not a listed allergen');
  if (body.lotId === null) return;
  const [lot] = await lockLots(db, transaction, actor.houseId, [body.lotId]);
  if (lot === undefined) throw new Problem('not_found');
  const taken = await inputs.all({ breakdownId: row.id });
  if (taken.some((i) => i.lotId === lot.id))
    throw wrong('lotId', `Lot ${lot.code} is here already: take it back first.`, 'here already');
  if (lot.massMg === 0) throw new Problem('lot_gone', `Lot ${lot.code} is used up.`);
  mustBeFree([lot]);
  const house = await readHouse(db, command);
  if (isPastDate(lot.useBy, dayIn(house.timezone, command.at)))
    throw new Problem(
      'cannot_keep',
      `Lot ${lot.code} is past its date, ${lot.useBy}: nothing is joined to it that keeps longer.`,
    );
  if (lot.state === 'frozen') throw new Problem('cannot_keep', `Lot ${lot.code} is frozen. Thaw it first.`);
  if (body.massMg > lot.freeMg)
    throw new Problem('not_enough', `Lot ${lot.code} has ${formatMass(lot.freeMg)} left that is free.`);
  const under = { lotId: lot.id, massMg: body.massMg };
  const position = Math.max(0, ...taken.map((i) => i.position)) + 1;
  await inputs.add({ breakdownId: row.id, position, brought: true, ...under });
  await reserve(db, command, { kind: 'breakdown', id: row.id }, [under]);
}

/** What was brought, as the stage closes: nothing to a piece that nobody weighed, and not more than it weighs. */
export function mustBeWeighed(brought: readonly Brought[], weighedMg: (pieceId: string) => number): void {
  for (const b of brought) {
    const all = brought.filter((x) => x.pieceId === b.pieceId).reduce((sum, x) => sum + x.massMg, 0);
    if (weighedMg(b.pieceId) < all)
      throw new Problem(
        'invalid',
        weighedMg(b.pieceId) === 0
          ? `${b.name} was brought to a piece that is not weighed: weigh it, or take ${b.name} back.`
          : `What ${b.name} was brought to weighs less than what was brought: weigh it again.`,
        [{ path: 'brought', message: 'more than the piece weighs' }],
      );
  }
}
