import type { BenchEventBody } from '@zabrik/contract';
import { big, filled, json, key, table, uuid, when } from '../table.ts';

/** What was said at the bench beside weighing. Never changed. */
export const BenchEventTable = table(
  'bench_event',
  {
    id: key(uuid),
    seq: filled(big),
    houseId: key(uuid),
    breakdownId: uuid,
    body: json<BenchEventBody>(),
    personId: uuid,
    at: key(when),
    recordedAt: filled(when),
  },
  { inFile: { order: 'seq', drop: ['seq'] } },
);
