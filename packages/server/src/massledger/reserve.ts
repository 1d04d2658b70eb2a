import type { Sequelize } from 'sequelize';
import type { InCommand } from '../kitchen.ts';

/** Whatever may have mass of a lot promised to it before it is moved: what kind of thing, and which. */
export interface Holder {
  readonly kind: 'breakdown' | 'cutting' | 'batch';
  readonly id: string;
}

/**
 * Promises mass of lots to a holder. The lots are locked by whoever asks, and judged there in words; the database refuses what is not free.
 *
 * Units   milligrams, above nothing.
 * Errors  `not_enough`.
 */
export async function reserve(
  db: Sequelize,
  { actor, transaction }: InCommand,
  { kind, id }: Holder,
  lots: readonly { readonly lotId: string; readonly massMg: number }[],
): Promise<void> {
  await db.query(
    `insert into reservation (house_id, lot_id, holder_kind, holder_id, mass_mg)
     select $1, lot_id, $2, $3, mass_mg from jsonb_to_recordset($4::jsonb) as r(lot_id uuid, mass_mg bigint) order by lot_id`,
    {
      bind: [actor.houseId, kind, id, JSON.stringify(lots.map((l) => ({ lot_id: l.lotId, mass_mg: l.massMg })))],
      transaction,
    },
  );
}

/** Lets go what was promised to a holder: it moves in the same command, or is free again. */
export async function release(db: Sequelize, { actor, transaction }: InCommand, holderId: string): Promise<void> {
  await db.query('delete from reservation where holder_id = $1 and house_id = $2', {
    bind: [holderId, actor.houseId],
    transaction,
  });
}
