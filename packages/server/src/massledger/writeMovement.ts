import type { Sequelize } from 'sequelize';
import { MovementTable } from '../db/models/movement.ts';
import { PostingTable } from '../db/models/posting.ts';
import { rowsOf } from '../db/rows.ts';
import type { InCommand } from '../services.ts';
import { inheritHolds } from './holds.ts';
import { tellPrograms } from './tellPrograms.ts';

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
  | 'trim'
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
  const { id, kind, station, note, reverses } = movement;
  const { personId } = actor;
  await rowsOf(db, MovementTable, command).add({ id, commandId, kind, station, at, personId, note, reverses });
  await rowsOf(db, PostingTable, command).addAll(lines.map((line) => ({ movementId: id, at, ...line })));
  // ask the database now: a refusal at commit would cost the connection as well
  await db.query('set constraints all immediate', { transaction });
  await inheritHolds(db, command, movement.id);
  await tellPrograms(db, command, movement.id);
}
