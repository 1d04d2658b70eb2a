import type { Sequelize, Transaction } from 'sequelize';
import { select } from './select.ts';

/**
 * How much of each lot is of the animal it was cut from, 0..1: less than all where something was joined to the piece.
 * Lots of no breakdown, and those to which nothing was joined, are not in it.
 */
export async function readOwnParts(
  db: Sequelize,
  lotIds: readonly string[],
  transaction?: Transaction,
): Promise<ReadonlyMap<string, number>> {
  const rows = await select<{ readonly lotId: string; readonly part: number }>(
    db,
    `select l.id as "lotId", (sum(p.mass_mg) / sum(p.mass_mg + p.brought_mg))::float8 as part
     from lot l join breakdown_piece p on p.breakdown_id = l.breakdown_id and p.piece_id = l.piece_id
     where l.id = any($1::uuid[]) group by l.id having sum(p.brought_mg) > 0`,
    [[...lotIds]],
    transaction,
  );
  return new Map(rows.map(({ lotId, part }) => [lotId, part]));
}
