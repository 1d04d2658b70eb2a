import type { CutPlan } from '@zabrik/core';
import { json, key, table, text, uuid } from '../table.ts';

/** A cut plan as it was worked by, kept once for all work done by it. The id follows from the words. */
export const PlanVersionTable = table(
  'plan_version',
  {
    houseId: key(uuid),
    id: key(text()),
    plan: json<CutPlan>(),
  },
  { inFile: { order: 'id' } },
);
