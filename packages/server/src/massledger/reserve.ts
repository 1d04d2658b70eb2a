import type { Sequelize } from 'sequelize';
import { ReservationTable } from '../db/models/reservation.ts';
import { rowsOf } from '../db/rows.ts';
import type { InCommand } from '../services.ts';

/** Whatever may have mass of a lot promised to it before it is moved: what kind of thing, and which. */
export interface Holder {
  readonly kind: 'breakdown' | 'cutting' | 'batch';
  readonly id: string;
}

/**
 * Promises mass of lots to a holder. The lots are locked by whoever asks, and judged there in words; the database refuses what is not free.
 *
 * Units   milligrams, above nothing; pieces where they were counted, else as many as the mass is of what the lot was made of.
 * Errors  `not_enough`.
 */
export async function reserve(
  db: Sequelize,
  command: InCommand,
  { kind, id }: Holder,
  lots: readonly { readonly lotId: string; readonly massMg: number; readonly pieces?: number | null }[],
): Promise<void> {
  const rows = lots.map(({ lotId, massMg, pieces = null }) => ({
    lotId,
    holderKind: kind,
    holderId: id,
    massMg,
    pieces,
  }));
  // in the order in which lots are locked
  await rowsOf(db, ReservationTable, command).addAll(rows.sort((a, b) => (a.lotId < b.lotId ? -1 : 1)));
}

/** Lets go what was promised to a holder: it moves in the same command, or is free again. */
export async function release(db: Sequelize, command: InCommand, holderId: string): Promise<void> {
  await rowsOf(db, ReservationTable, command).remove({ holderId });
}

/** How many pieces of each lot were promised to a holder, where they were counted. */
export async function promisedPieces(
  db: Sequelize,
  command: InCommand,
  holderId: string,
): Promise<ReadonlyMap<string, number>> {
  const rows = await rowsOf(db, ReservationTable, command).all({ holderId });
  return new Map(rows.flatMap(({ lotId, pieces }) => (pieces === null ? [] : [[lotId, pieces]])));
}
