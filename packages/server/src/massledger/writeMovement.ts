import type { Sequelize } from 'sequelize';
import type { InCommand } from '../kitchen.ts';
import { inheritHolds } from './holds.ts';

export type Sink = 'supplier' | 'pantry' | 'waste' | 'loss' | 'served' | 'staff' | 'count' | 'work';

/** One line of a movement: mass and cost into a lot or a sink; negative is out of it. */
export type Posting =
  | {
      readonly lotId: string;
      readonly massMg: number;
      readonly costMinor: number;
      /** How many pieces go with it, where somebody counted them; below nought out of the lot. Left out: as the mass goes. */
      readonly pieces?: number | null;
    }
  | { readonly sink: Sink; readonly reason: string | null; readonly massMg: number; readonly costMinor: number };

export type MovementKind =
  | 'receive'
  | 'close-stage'
  | 'cut'
  | 'batch'
  | 'take-out'
  | 'split'
  | 'merge'
  | 'fill'
  | 'count'
  | 'reverse';

export interface Movement {
  readonly id: string;
  readonly kind: MovementKind;
  readonly station: string;
  readonly note: string | null;
  readonly reverses: string | null;
  readonly postings: readonly Posting[];
}

/**
 * Writes one movement and its postings. The only place that does. The database refuses it at commit when it does not sum to
 * zero in mass and in cost, or takes more from a lot than the lot holds.
 *
 * Units   milligrams and minor units. Postings of nothing at all are left out.
 */
export async function writeMovement(db: Sequelize, command: InCommand, movement: Movement): Promise<void> {
  const { actor, commandId, at, transaction } = command;
  const lines = movement.postings.filter((p) => p.massMg !== 0 || p.costMinor !== 0);
  await db.query(
    `insert into movement (id, house_id, command_id, kind, station, at, person_id, note, reverses)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9)`,
    {
      bind: [
        movement.id,
        actor.houseId,
        commandId,
        movement.kind,
        movement.station,
        at,
        actor.personId,
        movement.note,
        movement.reverses,
      ],
      transaction,
    },
  );
  await db.query(
    `insert into posting (movement_id, house_id, lot_id, sink, reason, mass_mg, cost_minor, pieces)
     select $1, $2, lot_id, sink, reason, mass_mg, cost_minor, pieces
     from jsonb_to_recordset($3::jsonb) as p(lot_id uuid, sink text, reason text, mass_mg bigint, cost_minor bigint, pieces integer)`,
    {
      bind: [
        movement.id,
        actor.houseId,
        JSON.stringify(
          lines.map((p) => ({
            lot_id: 'lotId' in p ? p.lotId : null,
            sink: 'sink' in p ? p.sink : null,
            reason: 'sink' in p ? p.reason : null,
            mass_mg: p.massMg,
            cost_minor: p.costMinor,
            pieces: 'lotId' in p ? (p.pieces ?? null) : null,
          })),
        ),
      ],
      transaction,
    },
  );
  // ask the database now: a refusal at commit would cost the connection as well
  await db.query('set constraints all immediate', { transaction });
  await inheritHolds(db, command, movement.id);
}
