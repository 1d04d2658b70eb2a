import type { Cooling } from '@zabrik/contract';
import type { Limit, Verdict } from '@zabrik/core';
import { filled, json, key, orNull, table, text, uuid, when } from '../table.ts';

/** A log of something that cools, cooks, freezes or stands. */
export const CoolingTable = table(
  'cooling',
  {
    id: key(uuid),
    houseId: uuid,
    kind: text<'cooling' | 'freezing'>(),
    state: filled(text<'open' | 'closed' | 'called-off'>()),
    lotId: orNull(uuid),
    batchId: orNull(uuid),
    name: text(),
    setup: json<Cooling['setup']>(),
    limitAtStart: orNull(json<Limit>()),
    verdict: orNull(text<Verdict>()),
    outcome: orNull(text()),
    personId: uuid,
    startedAt: when,
    closedAt: orNull(when),
  },
  { inFile: { order: 'started_at, id' } },
);
