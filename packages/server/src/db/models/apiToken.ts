import type { TokenScope } from '@zabrik/contract';
import { key, orNull, table, text, uuid, when } from '../table.ts';

/** What a program signs in with, for a person. Kept as a hash. */
export const ApiTokenTable = table(
  'api_token',
  {
    id: key(uuid),
    houseId: uuid,
    personId: uuid,
    name: text(),
    scope: text<TokenScope>(),
    hash: text(),
    madeAt: when,
    until: when,
    usedAt: orNull(when),
    endedAt: orNull(when),
  },
  { notInFile: 'secrets of this server' },
);
