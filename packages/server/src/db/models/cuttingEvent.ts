import type { CuttingEventBody } from '@zabrik/core';
import { big, filled, json, key, table, uuid, when } from '../table.ts';

/** What was measured, wished and weighed at a cutting. Never changed. */
export const CuttingEventTable = table(
  'cutting_event',
  {
    seq: filled(big),
    id: key(uuid),
    houseId: key(uuid),
    cuttingId: uuid,
    body: json<CuttingEventBody>(),
    personId: uuid,
    at: key(when),
  },
  { inFile: { order: 'seq', drop: ['seq'] } },
);
