import { type Destination, type Keeping, lotCode } from '@zabrik/core';
import type { Sequelize } from 'sequelize';
import { LotTable } from '../db/models/lot.ts';
import { rowsOf } from '../db/rows.ts';
import { select } from '../db/select.ts';
import type { InCommand } from '../services.ts';

export interface NewLot {
  readonly id: string;
  readonly kind: 'delivery' | 'piece' | 'batch' | 'tub' | 'goods';
  readonly name: string;
  readonly species: string | null;
  readonly form: string | null;
  readonly category: string | null;
  readonly destination: Destination | null;
  readonly pieces: number;
  readonly madeMg: number;
  readonly keeping: Keeping;
  /** Where its date comes from, in words. */
  readonly dateBasis: string | null;
  /** The shelf life of the profile that set its date: it presumes a cold. */
  readonly dateLimit?: string | null;
  /** The cold its date presumes, °C. */
  readonly dateMaxC?: number | null;
  /** Of game: wild, or raised and slaughtered under inspection. */
  readonly raised?: 'wild' | 'farmed' | null;
  readonly supplierId: string | null;
  readonly breakdownId: string | null;
  readonly pieceId: string | null;
  readonly batchId: string | null;
  readonly allergens: readonly string[];
  /** The later stage of its plan it waits for. */
  readonly nextStage?: string | null;
  readonly note?: string | null;
  readonly goods?: string | null;
  readonly tubRecipe?: string | null;
  /** Why nothing may leave it from the beginning. */
  readonly held?: string | null;
  /** When it was made, where that was before now: the part of a lot is as old as the lot. */
  readonly madeAt?: Date;
}

/** How a new thing is kept: fresh, nothing opened, with this date. */
export const keptFresh = (placeId: string, ready: boolean, useBy: string | null): Keeping => ({
  state: 'fresh',
  placeId,
  ready,
  useBy,
  frozenOn: null,
  thawedOn: null,
  openedOn: null,
  daysLeft: null,
});

/** Gives lots their codes, in their order. They hold nothing until a movement puts mass into them. Answers the codes by id. */
export async function makeLots(
  db: Sequelize,
  command: InCommand,
  lots: readonly NewLot[],
): Promise<ReadonlyMap<string, string>> {
  const { actor, at, transaction } = command;
  if (lots.length === 0) return new Map();
  // from the house's own sequence, which nobody waits for: a number taken by what is taken back is left out
  const serials = await select<{ serial: number }>(
    db,
    'select next_lot_serial($1) as serial from generate_series(1, $2)',
    [actor.houseId, lots.length],
    transaction,
  );
  const rows = lots.map((lot, i) => {
    const serial = serials[i]?.serial;
    if (serial === undefined) throw new Error(`house ${actor.houseId} is gone`);
    const { keeping } = lot;
    return {
      id: lot.id,
      serial,
      code: lotCode(serial),
      kind: lot.kind,
      name: lot.name,
      species: lot.species,
      form: lot.form,
      category: lot.category,
      destination: lot.destination,
      pieces: lot.pieces,
      madeMg: lot.madeMg,
      useBy: keeping.useBy,
      madeAt: lot.madeAt ?? at,
      supplierId: lot.supplierId,
      breakdownId: lot.breakdownId,
      pieceId: lot.pieceId,
      batchId: lot.batchId,
      allergens: lot.allergens,
      nextStage: lot.nextStage ?? null,
      note: lot.note ?? null,
      placeId: keeping.placeId,
      ready: keeping.ready,
      state: keeping.state,
      frozenOn: keeping.frozenOn,
      thawedOn: keeping.thawedOn,
      openedOn: keeping.openedOn,
      daysLeft: keeping.daysLeft,
      dateBasis: lot.dateBasis,
      dateLimit: lot.dateLimit ?? null,
      dateMaxC: lot.dateMaxC ?? null,
      raised: lot.raised ?? null,
      goods: lot.goods ?? null,
      tubRecipe: lot.tubRecipe ?? null,
      held: lot.held ?? null,
    };
  });
  await rowsOf(db, LotTable, command).addAll(rows);
  return new Map(rows.map((row) => [row.id, row.code]));
}
