import type { CutPlan } from '@zabrik/core';
import { filled, json, key, table, text, uuid, when, whole, yes } from '../table.ts';

/** A version of a cut plan that the house made, changed or retired. */
export const CutPlanTable = table(
  'cut_plan',
  {
    houseId: key(uuid),
    id: key(text()),
    version: key(whole),
    plan: json<CutPlan>(),
    retired: filled(yes),
    personId: uuid,
    at: when,
  },
  { inFile: { order: 'id, version' } },
);
