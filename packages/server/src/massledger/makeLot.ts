import { type Destination, lotCode } from '@zabrik/core';
import type { Sequelize } from 'sequelize';
import { selectOne } from '../db/select.ts';
import type { InCommand } from '../kitchen.ts';

export interface NewLot {
  readonly id: string;
  readonly kind: 'delivery' | 'piece' | 'batch';
  readonly name: string;
  readonly species: string | null;
  readonly form: string | null;
  readonly category: string | null;
  readonly destination: Destination | null;
  readonly pieces: number;
  readonly madeMg: number;
  readonly useBy: string | null;
  readonly supplierId: string | null;
  readonly breakdownId: string | null;
  readonly pieceId: string | null;
  readonly runId: string | null;
  readonly allergens: readonly string[];
  /** The later stage of its plan it waits for. */
  readonly nextStage?: string | null;
  readonly note?: string | null;
}

/** Gives a lot its place and its code. It holds nothing until a movement puts mass into it. */
export async function makeLot(db: Sequelize, command: InCommand, lot: NewLot): Promise<{ readonly code: string }> {
  const { who, at, transaction } = command;
  const row = await selectOne<{ last_lot_serial: number }>(
    db,
    'update house set last_lot_serial = last_lot_serial + 1 where id = $1 returning last_lot_serial',
    [who.houseId],
    transaction,
  );
  if (row === undefined) throw new Error(`house ${who.houseId} is gone`);
  const code = lotCode(row.last_lot_serial);
  await db.query(
    `insert into lot (id, house_id, serial, code, kind, name, species, form, category, destination, pieces, made_mg, use_by, made_at,
                      supplier_id, breakdown_id, piece_id, run_id, allergens, next_stage, note)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16, $17, $18, $19, $20, $21)`,
    {
      bind: [
        lot.id,
        who.houseId,
        row.last_lot_serial,
        code,
        lot.kind,
        lot.name,
        lot.species,
        lot.form,
        lot.category,
        lot.destination,
        lot.pieces,
        lot.madeMg,
        lot.useBy,
        at,
        lot.supplierId,
        lot.breakdownId,
        lot.pieceId,
        lot.runId,
        [...lot.allergens],
        lot.nextStage ?? null,
        lot.note ?? null,
      ],
      transaction,
    },
  );
  return { code };
}
