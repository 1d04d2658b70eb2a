import type { Role, Shift, Skill } from '@zabrik/contract';
import { big, type Column, filled, json, key, orNull, table, text, texts, uuid, when, whole } from '../table.ts';

/** Who works there. Secrets are kept as hashes. */
export const PersonTable = table(
  'person',
  {
    id: key(uuid),
    houseId: uuid,
    name: text(),
    role: text<Role>(),
    /** Null until somebody has given a PIN: nobody signs in without. */
    pinHash: orNull(text()),
    passwordHash: orNull(text()),
    /** Keeps the name in the books, and signs in no more. */
    leftAt: orNull(when),
    /** What an hour of this person costs, minor units; null: as the house says. */
    hourlyMinor: orNull(big),
    version: filled(whole),
    /** What they do alone. */
    skills: filled(texts) as Column<readonly Skill[], false>,
    /** Allergens they must not touch. */
    mustNotTouch: filled(texts),
    /** When they usually work. */
    shifts: filled(json<readonly Shift[]>()),
    /** They know their way: what to touch first is shown no more. */
    firstDayOverAt: orNull(when),
  },
  { inFile: { order: 'name', drop: ['pin_hash', 'password_hash'] } },
);
