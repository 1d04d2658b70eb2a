import { categoryById, pieceRules } from '@zabrik/catalogue';
import type { Answer, Asked, api } from '@zabrik/contract';
import { type Found, foundAfter } from '@zabrik/core';
import type { Sequelize } from 'sequelize';
import { piecesTaken, readWeighings, stageOf } from '../../db/breakdownHead.ts';
import { BenchEventTable } from '../../db/models/benchEvent.ts';
import { BreakdownTable } from '../../db/models/breakdown.ts';
import { PersonTable } from '../../db/models/person.ts';
import { rowsOf } from '../../db/rows.ts';
import type { RowOf } from '../../db/table.ts';
import { readPlanVersion } from '../../db/versions.ts';
import { Problem } from '../../http/problem.ts';
import type { InCommand, Services } from '../../services.ts';
import { bringIn } from './bringIn.ts';

type Body = Asked<typeof api.bench.event>['body'];
type Row = RowOf<typeof BreakdownTable>;
/** More than this and it is another plan. */
const MOST_OTHERS = 20;

const wrong = (path: string, words: string, message: string): Problem =>
  new Problem('invalid', words, [{ path, message }]);

/**
 * What is known of a breakdown once this was said of it, and what its trays refuse.
 *
 * Errors  `invalid`: no such piece, more missing than there are or than are not weighed, no such kind of piece, a tray it never goes to.
 */
async function nowFound(
  db: Sequelize,
  command: InCommand,
  row: Row,
  body: Extract<Body, { kind: 'came-without' | 'other-piece' }>,
): Promise<Pick<Row, 'found' | 'refusals'>> {
  const { houseId, transaction } = command;
  const stage = stageOf(await readPlanVersion(db, houseId, row.planVersion, transaction), row.stageId);
  const found: Found = foundAfter(row.found, body);
  if (body.kind === 'came-without') {
    const piece = stage.pieces.find((p) => p.id === body.pieceId);
    if (piece === undefined) throw wrong('pieceId', 'This plan has no such piece.', 'not in this plan');
    const taken = piecesTaken(await readWeighings(db, row.id, transaction))
      .filter((t) => t.pieceId === piece.id)
      .reduce((sum, t) => sum + t.units, 0);
    const there = piece.count * row.animals - taken;
    if (body.units > there)
      throw wrong(
        'units',
        taken > 0
          ? `${piece.name}: ${taken} of ${piece.count * row.animals} are weighed. What was weighed was there: take the weight back first.`
          : `${piece.name}: there are ${piece.count * row.animals} of it.`,
        'more than are not weighed',
      );
    if (stage.pieces.every((p) => (found.cameWithout[p.id] ?? 0) >= p.count * row.animals))
      throw wrong('units', 'Something of it has to be there.', 'nothing would be left');
    return { found, refusals: row.refusals };
  }
  const { piece } = body;
  if (categoryById.get(piece.category) === undefined)
    throw wrong('piece.category', 'There is no such kind of piece.', 'no such kind');
  if (stage.pieces.some((p) => p.id === piece.id))
    throw wrong('piece.id', 'The plan has this piece already.', 'in this plan');
  const { refused } = pieceRules(piece.category);
  const refusal = refused.find((r) => r.destination === piece.destination);
  if (refusal !== undefined) throw new Problem('tray_refused', `${refusal.reason}.`);
  if (found.others.length > MOST_OTHERS)
    throw wrong('piece', 'So much that the plan does not know is a plan of its own: make one.', 'too many');
  return {
    found,
    refusals: { ...row.refusals, [piece.id]: Object.fromEntries(refused.map((r) => [r.destination, r.reason])) },
  };
}

/** Writes down what happened beside weighing. A hand-over also says who has the breakdown from now on; what was found otherwise than planned changes what it is judged by. */
export async function recordEvent(
  services: Services,
  command: InCommand,
  { params, body }: Asked<typeof api.bench.event>,
): Promise<Answer<typeof api.bench.event>> {
  const { db } = services;
  const { actor, commandId } = command;
  const breakdowns = rowsOf(db, BreakdownTable, command);
  const changes = ['hand-over', 'came-without', 'other-piece', 'bring-in', 'bring-back'].includes(body.kind);
  const breakdown = await breakdowns.one({ id: params.breakdownId }, { lock: changes ? 'update' : 'share' });
  if (breakdown === undefined) throw new Problem('not_found', 'There is no such breakdown in this house.');
  if (breakdown.state !== 'open') throw new Problem('stage_closed');
  if (body.kind === 'hand-over') {
    const to = await rowsOf(db, PersonTable, command).one({ id: body.toPersonId, leftAt: null });
    if (to === undefined || to.role === 'viewer')
      throw new Problem('invalid', 'Nobody here by that name works at the bench.', [
        { path: 'toPersonId', message: 'not someone who works at the bench' },
      ]);
    await breakdowns.change({ id: breakdown.id }, { holderId: to.id });
  }
  if (body.kind === 'came-without' || body.kind === 'other-piece')
    await breakdowns.change({ id: breakdown.id }, await nowFound(db, command, breakdown, body));
  if (body.kind === 'bring-in' || body.kind === 'bring-back') await bringIn(services, command, breakdown, body);
  await rowsOf(db, BenchEventTable, command).add({
    id: commandId,
    breakdownId: breakdown.id,
    body,
    personId: actor.personId,
    at: new Date(body.at),
  });
  return { id: commandId, by: actor.name, body };
}
