import type { Role } from '@zabrik/contract';
import { big, filled, key, orNull, table, text, uuid, when, whole } from '../table.ts';

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
  },
  { inFile: { order: 'name', drop: ['pin_hash', 'password_hash'] } },
);
