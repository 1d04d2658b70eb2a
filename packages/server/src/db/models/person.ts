import type { Role } from '@zabrik/contract';
import { key, orNull, table, text, uuid } from '../table.ts';

/** Who works there. Secrets are kept as hashes. */
export const PersonTable = table(
  'person',
  {
    id: key(uuid),
    houseId: uuid,
    name: text(),
    role: text<Role>(),
    pinHash: text(),
    passwordHash: orNull(text()),
  },
  { inFile: { order: 'name', drop: ['pin_hash', 'password_hash'] } },
);
