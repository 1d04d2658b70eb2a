import type { Sequelize } from 'sequelize';
import type { InCommand } from '../services.ts';
import { reverseMovement } from './reverseMovement.ts';
import type { MovementKind } from './writeMovement.ts';

/** What a station does once an entry of its own is taken back: whatever wrote it stands again where it stood before. */
export type Reversal = (db: Sequelize, command: InCommand, movementId: string) => Promise<void>;
/** By the kind of entry; kinds that nothing else follows from are left out. */
export type Reversals = Partial<Readonly<Record<MovementKind, Reversal>>>;

/** Takes an entry back by its counter-entry, and lets the station that wrote it put back what follows from it. */
export async function reverseEntry(
  db: Sequelize,
  reversals: Reversals,
  command: InCommand,
  movementId: string,
  reason: string,
): Promise<{ readonly movementId: string; readonly kind: MovementKind }> {
  const { id, kind } = await reverseMovement(db, command, movementId, reason);
  await reversals[kind]?.(db, command, movementId);
  return { movementId: id, kind };
}
