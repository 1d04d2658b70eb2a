import type { BatchEventBody } from '@zabrik/core';
import { big, filled, json, key, table, uuid, when } from '../table.ts';

/** What happened at the stove. Never changed. */
export const BatchEventTable = table(
  'batch_event',
  {
    seq: filled(big),
    id: key(uuid),
    houseId: key(uuid),
    batchId: uuid,
    body: json<BatchEventBody>(),
    personId: uuid,
    at: key(when),
  },
  { inFile: { order: 'seq', drop: ['seq'] } },
);
