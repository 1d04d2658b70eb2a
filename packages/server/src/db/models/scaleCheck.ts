import type { ScaleSpec, TestPoint } from '@zabrik/core';
import { big, json, key, table, text, uuid, when } from '../table.ts';

/** A scale laid weights on: what was loaded and what it showed. Written once. */
export const ScaleCheckTable = table(
  'scale_check',
  {
    id: key(uuid),
    houseId: key(uuid),
    at: key(when),
    personId: uuid,
    scale: text(),
    scaleName: text(),
    accuracyClass: text<ScaleSpec['accuracyClass']>(),
    intervalMg: big,
    points: json<readonly TestPoint[]>(),
  },
  { inFile: { order: 'at, id' } },
);
