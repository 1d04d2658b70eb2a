import type { Sequelize } from 'sequelize';
import { select, selectOne } from '../db/select.ts';
import { Problem } from '../http/problem.ts';
import type { InCommand } from '../services.ts';
import { lockLots } from './lockLots.ts';
import { type MovementKind, type Posting, type Sink, writeMovement } from './writeMovement.ts';

interface Line {
  readonly lotId: string | null;
  readonly sink: Sink | null;
  readonly reason: string | null;
  readonly massMg: number;
  readonly costMinor: number;
  readonly pieces: number | null;
}

/** Whether a movement that stands took anything from a lot after this one. */
async function takenSince(
  db: Sequelize,
  { transaction }: InCommand,
  lotId: string,
  movementId: string,
): Promise<boolean> {
  const row = await selectOne<{ taken: boolean }>(
    db,
    `select exists (select 1 from posting p join movement m on m.id = p.movement_id
       where p.lot_id = $1 and p.mass_mg < 0 and m.kind <> 'reverse' and p.id > (select max(id) from posting where movement_id = $2)
         and not exists (select 1 from corrected c where c.house_id = m.house_id and c.id = m.id)) as taken`,
    [lotId, movementId],
    transaction,
  );
  return row?.taken === true;
}

/**
 * Takes a movement back by its counter-entry. What it made must be untouched since.
 *
 * Errors  `not_found`; `cannot_reverse` (a reversal itself); `already_reversed`; `used_since`, naming the lot.
 */
export async function reverseMovement(
  db: Sequelize,
  command: InCommand,
  movementId: string,
  reason: string,
): Promise<{ readonly id: string; readonly kind: MovementKind }> {
  const { actor, transaction } = command;
  const before = await selectOne<{ kind: MovementKind; reversed: boolean }>(
    db,
    `select m.kind, exists (select 1 from corrected c where c.house_id = m.house_id and c.id = m.id) as reversed
     from movement m where m.id = $1 and m.house_id = $2`,
    [movementId, actor.houseId],
    transaction,
  );
  if (before === undefined) throw new Problem('not_found');
  if (before.kind === 'reverse') throw new Problem('cannot_reverse');
  if (before.reversed) throw new Problem('already_reversed');
  const lines = await select<Line>(
    db,
    `select lot_id as "lotId", sink, reason, mass_mg as "massMg", cost_minor as "costMinor", pieces from posting where movement_id = $1 order by id`,
    [movementId],
    transaction,
  );
  const filled = new Map(
    lines.flatMap((line) => (line.lotId !== null && line.massMg > 0 ? [[line.lotId, line] as const] : [])),
  );
  for (const lot of await lockLots(db, transaction, actor.houseId, [...filled.keys()])) {
    const line = filled.get(lot.id);
    // a tub holds more than one filling put into it: what matters is that nothing was taken from it since
    const mixed = lot.kind === 'tub' || before.kind === 'count';
    const untouched = mixed
      ? line !== undefined &&
        lot.freeMg >= line.massMg &&
        lot.costMinor >= line.costMinor &&
        !(await takenSince(db, command, lot.id, movementId))
      : lot.massMg === line?.massMg && lot.costMinor === line.costMinor && lot.freeMg === lot.massMg;
    if (!untouched)
      throw new Problem('used_since', `Lot ${lot.code}, ${lot.name}, has been used since. Take that back first.`);
  }
  const id = command.newId();
  const opposite = (value: number): number => (value === 0 ? 0 : -value);
  await writeMovement(db, command, {
    id,
    kind: 'reverse',
    station: 'ledger',
    note: reason,
    reverses: movementId,
    postings: lines.map((line): Posting => {
      const amounts = { massMg: opposite(line.massMg), costMinor: opposite(line.costMinor) };
      if (line.lotId !== null)
        return { lotId: line.lotId, ...amounts, pieces: line.pieces === null ? null : opposite(line.pieces) };
      if (line.sink === null) throw new Error(`posting of ${movementId} has neither lot nor sink`);
      return { sink: line.sink, reason: line.reason, ...amounts };
    }),
  });
  return { id, kind: before.kind };
}
