import type { Way } from '@zabrik/contract';
import type { CostingSchool, Found } from '@zabrik/core';
import { big, filled, json, key, orNull, type RowOf, real, table, text, uuid, when, whole } from '../table.ts';

/** One working-through of a stage of a cut plan. */
export const BreakdownTable = table(
  'breakdown',
  {
    id: key(uuid),
    houseId: uuid,
    lotId: uuid,
    refusals: json<Readonly<Record<string, Readonly<Record<string, string>>>>>(),
    planId: text(),
    stageId: text(),
    species: text(),
    form: text(),
    animals: whole,
    startMg: big,
    startMinor: big,
    state: text<'open' | 'closed' | 'cancelled'>(),
    supplierId: orNull(uuid),
    personId: uuid,
    startedAt: when,
    closedAt: orNull(when),
    movementId: orNull(uuid),
    bookedSchool: orNull(text<CostingSchool>()),
    note: orNull(text()),
    takenBack: filled(whole),
    rootId: uuid,
    startShare: filled(real),
    way: filled(text<Way>()),
    holderId: uuid,
    planVersion: text(),
    found: filled(json<Found>()),
  },
  { inFile: { order: 'started_at, id' } },
);

export type BreakdownRow = RowOf<typeof BreakdownTable>;
