import type { Plate } from '@zabrik/core';
import { filled, json, key, table, text, uuid, when, whole, yes } from '../table.ts';

/** A version of a plate: what is served, by its components. */
export const HousePlateTable = table(
  'house_plate',
  {
    houseId: key(uuid),
    plateId: key(text()),
    version: key(whole),
    body: json<Plate>(),
    retired: filled(yes),
    personId: uuid,
    at: when,
  },
  { inFile: { order: 'plate_id, version' } },
);
