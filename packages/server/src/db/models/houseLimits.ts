import type { LimitChange } from '../limits.ts';
import { big, filled, json, key, table, text, uuid, when } from '../table.ts';

/** The limits a house chose, from a moment on. Never changed. */
export const HouseLimitsTable = table(
  'house_limits',
  {
    id: key(uuid),
    seq: filled(big),
    houseId: uuid,
    profileId: text(),
    changes: json<readonly LimitChange[]>(),
    note: text(),
    personId: uuid,
    at: when,
  },
  { inFile: { order: 'seq', drop: ['seq'] } },
);
